package org.abletwine.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.database.Drivers;
import picocli.CommandLine.Option;

/** How a plan is read. */
public final class PlanOptions {
  /** Nothing is stated. */
  public PlanOptions() {}

  @Option(
      names = "--set",
      paramLabel = "NAME=VALUE",
      description = "The value of a parameter of the plan. May be given several times.")
  private Map<String, String> set = new LinkedHashMap<>();

  @Option(
      names = "--driver-path",
      paramLabel = "FILE",
      description = "A library with a JDBC driver, beside those for SQLite and PostgreSQL.")
  private List<Path> drivers = List.of();

  /** Returns the values of parameters, once the drivers are at hand. */
  public Map<String, String> values() {
    drivers.forEach(Drivers::add);
    return set;
  }
}
