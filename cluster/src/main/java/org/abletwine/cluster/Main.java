package org.abletwine.cluster;

import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** What the engine starts: {@code able-twine-cluster.jar run PLAN}. */
@Command(
    name = "able-twine-cluster",
    description = "Runs a plan on a cluster: the same rows and figures as able-twine run.",
    mixinStandardHelpOptions = true,
    subcommands = RunOnCluster.class,
    synopsisSubcommandLabel = "COMMAND")
public final class Main implements Runnable {
  @Spec private CommandSpec spec;

  private Main() {}

  /**
   * Runs a command, and ends the process with its exit status unless that is 0.
   *
   * @param args the command and its arguments
   */
  public static void main(String[] args) {
    int status = new CommandLine(new Main()).setUsageHelpWidth(100).execute(args);
    System.out.flush();
    if (status != 0) {
      System.exit(status);
    }
  }

  @Override
  public void run() {
    throw new ParameterException(spec.commandLine(), "a command is missing");
  }
}
