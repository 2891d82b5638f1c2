package org.abletwine.cluster;

import org.abletwine.cli.Usage;

/** What the engine starts: {@code able-twine-cluster.jar run PLAN}. */
public final class Main implements Runnable {
  private final Usage usage =
      Usage.of(
          this,
          "able-twine-cluster",
          "Runs a plan on a cluster: the same rows and figures as able-twine run.");

  private Main() {}

  /**
   * Runs a command, and ends the process with its exit status unless that is 0.
   *
   * @param args the command and its arguments
   */
  public static void main(String[] args) {
    int status = new Main().usage.with(new RunOnCluster().usage()).line().execute(args);
    System.out.flush();
    if (status != 0) {
      System.exit(status);
    }
  }

  @Override
  public void run() {
    throw usage.wrong("a command is missing");
  }
}
