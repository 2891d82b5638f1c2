package org.abletwine.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Lays out the demo data. The same size and seed always give the same bytes; troubles are planted
 * in fixed shares, so that every size shows all of them. Stateless.
 */
public final class WendleVale {
  /** Says that a folder was laid out by the demo. */
  private static final String MARK = ".wendle-vale";

  /** The seed of the demo. */
  public static final long SEED = 20_260_814L;

  /** Tickets of the demo. */
  public static final long TICKETS = 3_000;

  /** Growers of the demo. */
  public static final int GROWERS = 420;

  private WendleVale() {}

  /**
   * Writes every table of the scenario.
   *
   * @param folder where to; must exist
   * @param tickets how many tickets, at least 1
   * @param growers how many growers, at least 10
   * @param seed where the random numbers start
   * @return how often each trouble was planted
   * @throws IOException when a file cannot be written
   */
  public static Planted write(Path folder, long tickets, int growers, long seed)
      throws IOException {
    Files.writeString(
        folder.resolve(MARK), "Laid out by able-twine demo, which may lay it out anew.\n");
    Planted planted = new Planted();
    MasterTables.write(folder, growers, seed, planted);
    TicketTable.write(folder.resolve("tickets.csv"), tickets, growers, seed, planted);
    return planted;
  }

  /**
   * Lays out the demo: tables, plan, README and an empty folder {@code out}.
   *
   * @param folder where to; made when missing
   * @return how often each trouble was planted
   * @throws IOException when a file cannot be written
   */
  public static Planted layOut(Path folder) throws IOException {
    Files.createDirectories(folder.resolve("out"));
    Planted planted = write(folder, TICKETS, GROWERS, SEED);
    OtherKinds.write(folder, planted);
    MadeByHand.write(folder, planted);
    copy("harvest.plan.yaml", folder);
    copy("intake-check.plan.yaml", folder);
    copy("month-end.plan.yaml", folder);
    Files.writeString(folder.resolve("README.md"), DemoReadme.text(planted));
    return planted;
  }

  /**
   * Whether a folder holds the demo, so that it may be laid out there anew.
   *
   * @param folder the folder
   */
  public static boolean isIn(Path folder) {
    return Files.exists(folder.resolve(MARK));
  }

  private static void copy(String resource, Path folder) throws IOException {
    try (var in = WendleVale.class.getResourceAsStream(resource)) {
      if (in == null) {
        throw new IOException("the demo file " + resource + " is not in this build");
      }
      Files.write(folder.resolve(resource), in.readAllBytes());
    }
  }

  /** Width of a grower number in digits. */
  static int growerWidth(int growers) {
    return Math.max(6, Integer.toString(growers).length());
  }

  /** The letter that ends a grower number. */
  static char checkLetter(long number) {
    return (char) ('A' + (number * 7 + 3) % 23);
  }

  /** A grower number as the master writes it. */
  static String growerNumber(long number, int width) {
    String digits = Long.toString(number);
    return "0".repeat(Math.max(0, width - digits.length())) + digits + checkLetter(number);
  }
}
