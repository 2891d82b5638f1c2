package org.abletwine.cli;

import java.util.Map;

/** How a plan is read. */
public final class PlanOptions {
  private final Given<Map<String, String>> set;
  private final DriverOption drivers;

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
    drivers = new DriverOption(usage);
  }

  /** Returns the values of parameters, once the drivers are at hand. */
  public Map<String, String> values() {
    drivers.add();
    return set.get();
  }
}
