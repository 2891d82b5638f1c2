package org.abletwine.cli;

import org.abletwine.table.batch.Workers;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** How many threads work on the rows. */
final class WorkersOption {
  private static final int MOST = 1_000;

  @Spec(Spec.Target.MIXEE)
  private CommandSpec spec;

  @Option(
      names = "--workers",
      paramLabel = "N",
      description =
          "How many threads work on the rows. Default: one for each processor. What comes out is"
              + " the same for any number.")
  private Integer workers;

  int count() {
    if (workers != null && (workers < 1 || workers > MOST)) {
      throw new ParameterException(
          spec.commandLine(), "--workers takes a number from 1 to " + MOST + ", not " + workers);
    }
    return workers == null ? Workers.usual() : workers;
  }
}
