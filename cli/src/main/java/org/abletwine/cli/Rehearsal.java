package org.abletwine.cli;

import java.nio.file.Path;

/**
 * Runs what people run most on the demo data, for the launcher: it has the classes listed that are
 * met on the way, and keeps them ready for later starts.
 */
final class Rehearsal {
  private Rehearsal() {}

  /**
   * Runs some commands, one after the other.
   *
   * @param args the folder for the demo data, which is not there yet
   */
  public static void main(String[] args) {
    Path folder = Path.of(args[0]);
    String plan = folder.resolve("harvest.plan.yaml").toString();
    String tickets = folder.resolve("tickets.csv").toString();
    String growers = folder.resolve("growers.csv").toString();
    String out = folder.resolve("rehearsed.csv").toString();
    String key = "grower_code=grower_no";
    Main.begin();
    Main.run("--help");
    Main.run("demo", folder.toString());
    Main.run("check", plan);
    Main.run("run", plan);
    Main.run("profile", tickets);
    Main.run("duplicates", growers, "--key", "grower_no");
    Main.run("overlap", tickets, growers, "--key", key);
    Main.run("enrich", tickets, "--from", growers, "--key", key, "--bring", "name", "--out", out);
    System.exit(0);
  }
}
