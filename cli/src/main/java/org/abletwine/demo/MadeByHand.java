package org.abletwine.demo;

import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Writes the table that somebody at Wendle Vale made by hand from the first tickets, with twenty
 * slips in it. What is right is worked out here with plain maps, apart from the tool.
 */
final class MadeByHand {
  /** Tickets in the table. */
  private static final int TICKETS = 600;

  private static final String HEADER =
      "ticket_no,delivered_on,grower_code,grower,district_code,commodity,grade_mark,net_kg,price,"
          + "deduction,payable";

  private final List<String[]> tickets;
  private final List<String[]> growers;
  private final List<String[]> prices;
  private final List<String[]> bands;
  private final Map<String, String[]> newest = new HashMap<>();
  private final Map<String, String[]> first = new HashMap<>();
  private final Planted planted;
  private int typed;

  /** A row of the table, as its cells are worked out. */
  private static final class Made {
    private String code = "";
    private String grower = "";
    private String district = "";
    private @Nullable BigDecimal price;
    private @Nullable BigDecimal deduction;
    private String payable = "";
  }

  private MadeByHand(Path folder, Planted planted) throws IOException {
    this.planted = planted;
    tickets = read(folder.resolve("tickets.csv"), TICKETS);
    growers = read(folder.resolve("growers.csv"), Integer.MAX_VALUE);
    prices = read(folder.resolve("prices.csv"), Integer.MAX_VALUE);
    bands = read(folder.resolve("moisture-deductions.csv"), Integer.MAX_VALUE);
    for (String[] grower : growers) {
      String key = key(grower[0]);
      first.putIfAbsent(key, grower);
      newest.merge(key, grower, (one, other) -> other[6].compareTo(one[6]) > 0 ? other : one);
    }
  }

  private static List<String[]> read(Path file, int most) throws IOException {
    return Files.readAllLines(file).stream()
        .skip(1)
        .limit(most)
        .map(line -> line.split(",", -1))
        .toList();
  }

  private static String key(String code) {
    return code.replaceAll("[\\s\\u00A0]+", "").replaceFirst("^0+", "").toUpperCase(Locale.ROOT);
  }

  static void write(Path folder, Planted planted) throws IOException {
    new MadeByHand(folder, planted).write(folder.resolve("tickets-by-hand.csv"));
  }

  private void write(Path file) throws IOException {
    List<String> lines = new ArrayList<>(List.of(HEADER));
    for (String[] ticket : tickets) {
      lines.add(line(ticket));
    }
    Files.writeString(file, String.join("\n", lines) + "\n");
  }

  private String line(String[] ticket) {
    Made made = new Made();
    String[] grower = newest.get(key(ticket[3]));
    made.code = ticket[3];
    made.grower = grower == null ? "Unlisted" : grower[1];
    made.district = grower == null ? "" : grower[2];
    made.price = price(ticket, 0);
    made.deduction = deduction(ticket, false);
    slips(ticket, grower, made);
    BigDecimal net = new BigDecimal(ticket[7]).subtract(new BigDecimal(ticket[8]));
    if (made.payable.isEmpty()) {
      made.payable = payable(net, made);
    } else if (made.payable.equals("typed")) {
      made.payable = new BigDecimal(payable(net, made)).add(new BigDecimal("100")).toPlainString();
    }
    return String.join(
        ",",
        Arrays.asList(
            ticket[0],
            ticket[1],
            made.code,
            made.grower,
            made.district,
            ticket[4],
            ticket[6],
            net.toPlainString(),
            made.price == null ? "" : made.price.toPlainString(),
            made.deduction == null ? "" : made.deduction.toPlainString(),
            made.payable));
  }

  private static String payable(BigDecimal net, Made made) {
    if (made.price == null || made.deduction == null) {
      return "";
    }
    return net.multiply(made.price)
        .multiply(BigDecimal.ONE.subtract(made.deduction.movePointLeft(2)))
        .movePointLeft(3)
        .setScale(2, RoundingMode.HALF_UP)
        .toPlainString();
  }

  /** The price in force, or the one that was so many times before. */
  private @Nullable BigDecimal price(String[] ticket, int before) {
    List<BigDecimal> inForce = new ArrayList<>();
    for (String[] price : prices) {
      boolean same =
          price[0].equalsIgnoreCase(ticket[4])
              && price[1].equals(ticket[6])
              && price[2].compareTo(ticket[1]) <= 0;
      if (same) {
        inForce.add(new BigDecimal(price[3]));
      }
    }
    int at = inForce.size() - 1 - before;
    return at < 0 ? null : inForce.get(at);
  }

  /** The deduction of the only band that holds the moisture; or of the one that ends there. */
  private @Nullable BigDecimal deduction(String[] ticket, boolean ending) {
    BigDecimal moisture = new BigDecimal(ticket[9]);
    List<BigDecimal> found = new ArrayList<>();
    for (String[] band : bands) {
      boolean ends = !band[2].isEmpty() && moisture.compareTo(new BigDecimal(band[2])) == 0;
      boolean holds =
          (band[1].isEmpty() || moisture.compareTo(new BigDecimal(band[1])) >= 0)
              && (band[2].isEmpty() || moisture.compareTo(new BigDecimal(band[2])) < 0);
      if (band[0].equalsIgnoreCase(ticket[4]) && (ending ? ends : holds)) {
        found.add(new BigDecimal(band[3]));
      }
    }
    return found.size() == 1 ? found.get(0) : null;
  }

  /** At most one slip in a row, each kind in the first rows where it can be made. */
  private void slips(String[] ticket, String @Nullable [] grower, Made made) {
    boolean known = grower != null && made.price != null && made.deduction != null;
    if (!known || grower == null) {
      return;
    }
    String[] other = first.get(key(ticket[3]));
    BigDecimal edge = deduction(ticket, true);
    BigDecimal stale = price(ticket, 1);
    boolean plain = ticket[3].matches("0.*");
    if (other != null && !other[2].equals(grower[2]) && slip("the first of several growers", 3)) {
      made.district = other[2];
    } else if (edge != null && edge.compareTo(made.deduction) != 0 && slip("a band edge", 4)) {
      made.deduction = edge;
    } else if (stale != null && stale.compareTo(made.price) != 0 && slip("a stale price", 5)) {
      made.price = stale;
    } else if (plain && slip("a grower code with its zeros dropped", 4)) {
      made.code = ticket[3].replaceFirst("^0+", "");
    } else if (slip("a payable typed over", 2)) {
      made.payable = "typed";
    } else if (slip("a grower's name typed over", 1)) {
      made.grower = "Brook Farm (new)";
    } else if (slip("a district left blank", 2)) {
      made.district = "";
    }
  }

  private boolean slip(String what, int most) {
    String trouble = "slips in the table made by hand: " + what;
    if (planted.count(trouble) >= most || typed++ % 3 != 0) {
      return false;
    }
    planted.add(trouble);
    return true;
  }
}
