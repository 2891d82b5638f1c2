package org.abletwine.cli;

/** How much of the figures to print. */
public final class FiguresOptions {
  private final Usage usage;
  private final Given<String> figures;
  private final Given<Boolean> quiet;

  /**
   * Tells a command of them.
   *
   * @param usage of the command
   */
  public FiguresOptions(Usage usage) {
    this.usage = usage;
    figures =
        usage.option(
            "--figures",
            "WHICH",
            "main: what needs a person first; all: every figure. Default: main.");
    quiet = usage.flag("--quiet", "Print only what fails: controls that do not hold.");
  }

  /** Returns whether every figure is wanted. */
  public boolean all() {
    return detail() == Detail.ALL;
  }

  /** Returns whether only what fails is wanted. */
  public boolean quiet() {
    return detail() == Detail.QUIET;
  }

  Detail detail() {
    if (figures.orNull() != null
        && !figures.orNull().equals("main")
        && !figures.orNull().equals("all")) {
      throw usage.wrong("--figures: expected main or all, found \"" + figures.orNull() + "\"");
    }
    return quiet.get() ? Detail.QUIET : "all".equals(figures.orNull()) ? Detail.ALL : Detail.MAIN;
  }
}
