package org.abletwine.cli;

import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** How much of the figures to print. */
public final class FiguresOptions {
  @Spec(Spec.Target.MIXEE)
  private CommandSpec spec;

  @Option(
      names = "--figures",
      paramLabel = "WHICH",
      description = "main: what needs a person first; all: every figure. Default: main.")
  private String figures;

  @Option(names = "--quiet", description = "Print only what fails: controls that do not hold.")
  private boolean quiet;

  /** Nothing is stated. */
  public FiguresOptions() {}

  /** Returns whether every figure is wanted. */
  public boolean all() {
    return detail() == Detail.ALL;
  }

  /** Returns whether only what fails is wanted. */
  public boolean quiet() {
    return detail() == Detail.QUIET;
  }

  Detail detail() {
    if (figures != null && !figures.equals("main") && !figures.equals("all")) {
      throw new ParameterException(
          spec.commandLine(), "--figures: expected main or all, found \"" + figures + "\"");
    }
    return quiet ? Detail.QUIET : "all".equals(figures) ? Detail.ALL : Detail.MAIN;
  }
}
