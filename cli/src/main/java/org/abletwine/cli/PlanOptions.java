package org.abletwine.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.database.Drivers;

/** How a plan is read. */
public final class PlanOptions {
  private final Given<Map<String, String>> set;
  private final Given<List<Path>> drivers;

  /**
   * Tells a command of them.
   *
   * @param usage of the command
   */
  public PlanOptions(Usage usage) {
    set =
        usage.pairs(
            "--set",
            "NAME=VALUE",
            "The value of a parameter of the plan. May be given several times.");
    drivers =
        usage.options(
            "--driver-path",
            "FILE",
            Path.class,
            "A library with a JDBC driver, beside those for SQLite and PostgreSQL.");
  }

  /** Returns the values of parameters, once the drivers are at hand. */
  public Map<String, String> values() {
    drivers.get().forEach(Drivers::add);
    return set.get();
  }
}
