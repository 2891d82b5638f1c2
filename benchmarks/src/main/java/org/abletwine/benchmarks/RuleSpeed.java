package org.abletwine.benchmarks;

import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import org.abletwine.demo.WendleVale;
import org.abletwine.enrich.Enrichment;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Several;
import org.abletwine.match.MatchRule;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/**
 * Lookups by rule against the equal lookup of the same sizes, alternating; many literal patterns
 * against trying each in turn; a chain of four against one lookup. Times are of whole runs within
 * one process: both files read, the enriched file written.
 */
public final class RuleSpeed {
  private static final int TRANSACTIONS = 1_000_000;
  private static final int GROWERS = 400;
  private static final int PATTERNS = 10_000;
  private static final int TRIED_IN_TURN = 20_000;

  private static Path out = Path.of("out.csv");

  private RuleSpeed() {}

  /**
   * Runs the comparisons.
   *
   * @param args rounds; the folder for data
   * @throws IOException when data cannot be written
   */
  public static void main(String[] args) throws IOException {
    int rounds = Integer.parseInt(args[0]);
    Path data = Files.createDirectories(Path.of(args[1], "rules"));
    out = data.resolve("out.csv");
    for (int size : new int[] {1_000, 100_000, 1_000_000}) {
      ordered(data, size, rounds);
    }
    patterns(data, rounds);
    chain(data, rounds);
  }

  private static void ordered(Path data, int size, int rounds) throws IOException {
    SplittableRandom random = new SplittableRandom(size);
    Path ours = data.resolve("ours-" + size + ".csv");
    Path theirs = data.resolve("theirs-" + size + ".csv");
    try (BufferedWriter out = Files.newBufferedWriter(theirs)) {
      out.write("code,group_code,group_number,from,to,value\n");
      for (int row = 0; row < size; row++) {
        int number = row / 100;
        out.write("K" + row + ",G" + row % 100 + "," + number + "," + row + "," + (row + 1));
        out.write(",V" + row + "\n");
      }
    }
    try (BufferedWriter out = Files.newBufferedWriter(ours)) {
      out.write("no,key,group_code,number,at\n");
      for (int row = 0; row < TRANSACTIONS; row++) {
        int at = random.nextInt(size);
        out.write(row + ",K" + at + ",G" + at % 100 + "," + at / 100 + "," + at + ".5\n");
      }
    }
    Table from = Tables.file(theirs);
    Lookup one = Lookup.in(from).key("key", "code").bring("value");
    Lookup two = Lookup.in(from).key("group_code").key("number", "group_number").bring("value");
    KeyPart below = KeyPart.matching("at", MatchRule.Kind.AT_OR_BELOW, "from");
    KeyPart band = KeyPart.between("at", "from", "to");
    Lookup plain = Lookup.in(from).bring("value");
    Table transactions = Tables.file(ours);
    Lookup[] all = {
      one,
      plain.key(below),
      plain.key(band),
      two,
      plain.key("group_code").key(below),
      plain.key("group_code").key(band)
    };
    double[] medians = alternating(transactions, all, rounds);
    System.out.printf(
        Locale.ROOT,
        "%,9d reference rows: equal %.2f s; at-or-below %.2f, between %.2f of it;"
            + " two equal parts %.2f s; equal part and at-or-below %.2f, and between %.2f of it%n",
        size,
        medians[0],
        medians[1] / medians[0],
        medians[2] / medians[0],
        medians[3],
        medians[4] / medians[3],
        medians[5] / medians[3]);
  }

  /** The median time of each lookup; they take turns, so that a slow moment meets all alike. */
  private static double[] alternating(Table transactions, Lookup[] lookups, int rounds) {
    List<List<Double>> times = new ArrayList<>();
    Arrays.stream(lookups).forEach(lookup -> times.add(new ArrayList<>()));
    for (int round = 0; round < rounds; round++) {
      for (int i = 0; i < lookups.length; i++) {
        times.get(i).add(seconds(Enrichment.of(transactions).lookup(lookups[i]).build()));
      }
    }
    return times.stream().mapToDouble(RuleSpeed::median).toArray();
  }

  private static void patterns(Path data, int rounds) throws IOException {
    SplittableRandom random = new SplittableRandom(7);
    List<String> patterns = new ArrayList<>();
    Path theirs = data.resolve("patterns.csv");
    try (BufferedWriter out = Files.newBufferedWriter(theirs)) {
      out.write("pattern,kind\n");
      for (int row = 0; row < PATTERNS; row++) {
        String pattern = word(random, 6 + random.nextInt(6));
        patterns.add(pattern);
        out.write(pattern + ",k" + row + "\n");
      }
    }
    Path ours = data.resolve("texts.csv");
    List<String> texts = new ArrayList<>();
    try (BufferedWriter out = Files.newBufferedWriter(ours)) {
      out.write("no,text\n");
      for (int row = 0; row < TRANSACTIONS; row++) {
        String planted = random.nextInt(4) == 0 ? patterns.get(random.nextInt(PATTERNS)) : "";
        String text = planted + " " + word(random, 12) + " " + word(random, 8);
        if (texts.size() < TRIED_IN_TURN) {
          texts.add(text);
        }
        out.write(row + "," + text + "\n");
      }
    }
    long begun = System.nanoTime();
    long hits = 0;
    for (String text : texts) {
      for (String pattern : patterns) {
        hits += text.contains(pattern) ? 1 : 0;
      }
    }
    double inTurn = (System.nanoTime() - begun) / 1e9 * TRANSACTIONS / TRIED_IN_TURN;
    for (MatchRule.Kind kind :
        List.of(MatchRule.Kind.CONTAINS, MatchRule.Kind.STARTS_WITH, MatchRule.Kind.WILDCARD)) {
      Lookup lookup =
          Lookup.in(Tables.file(theirs))
              .key(KeyPart.matching("text", kind, "pattern"))
              .bring("kind")
              .several(Several.longest());
      double ours1 = seconds(Tables.file(ours), lookup, rounds);
      System.out.printf(
          Locale.ROOT,
          "%,d patterns, %,d texts: %s %.2f s, files read; each pattern in turn %.0f s, counted up"
              + " from %,d texts (%,d hits): %.0f times%n",
          PATTERNS,
          TRANSACTIONS,
          kind.word(),
          ours1,
          inTurn,
          TRIED_IN_TURN,
          hits,
          inTurn / ours1);
    }
  }

  /** Tickets to growers, districts, regions, and managers of regions. */
  private static void chain(Path data, int rounds) throws IOException {
    Path tickets = data.resolve("tickets.csv");
    if (!Files.exists(tickets)) {
      WendleVale.write(data, TRANSACTIONS, GROWERS, WendleVale.SEED);
    }
    Path managers = data.resolve("managers.csv");
    try (BufferedWriter out = Files.newBufferedWriter(managers)) {
      out.write("region_name,manager\n");
      for (String region : List.of("Northvale", "Eastmarch", "Southdown Plain", "Westering")) {
        out.write(region + ",M-" + region + "\n");
      }
    }
    Lookup[] links = {
      Lookup.in(Tables.file(data.resolve("growers.csv")))
          .key("grower_code", "grower_no")
          .bring("district_code")
          .several(Several.first()),
      Lookup.in(Tables.file(data.resolve("districts.csv")))
          .key("district_code")
          .bring("region_code"),
      Lookup.in(Tables.file(data.resolve("regions.csv"))).key("region_code").bring("region_name"),
      Lookup.in(Tables.file(managers)).key("region_name").bring("manager")
    };
    List<Double> one = new ArrayList<>();
    List<Double> all = new ArrayList<>();
    for (int round = 0; round < rounds; round++) {
      one.add(seconds(Enrichment.of(Tables.file(tickets)).lookup(links[0]).build()));
      Enrichment.Builder builder = Enrichment.of(Tables.file(tickets));
      Arrays.stream(links).forEach(builder::lookup);
      all.add(seconds(builder.build()));
    }
    System.out.printf(
        Locale.ROOT,
        "%,d tickets of 12 columns: chain of four small references %.2f of one lookup (%.2f s)%n",
        TRANSACTIONS,
        median(all) / median(one),
        median(one));
  }

  private static String word(SplittableRandom random, int length) {
    StringBuilder word = new StringBuilder();
    for (int i = 0; i < length; i++) {
      word.append((char) ('a' + random.nextInt(26)));
    }
    return word.toString();
  }

  private static double seconds(Table transactions, Lookup lookup, int rounds) {
    List<Double> times = new ArrayList<>();
    for (int round = 0; round < rounds; round++) {
      times.add(seconds(Enrichment.of(transactions).lookup(lookup).build()));
    }
    return median(times);
  }

  private static double seconds(Enrichment enrichment) {
    long begun = System.nanoTime();
    try (TableSink sink = Tables.sink(out)) {
      enrichment.writeTo(sink);
    }
    return (System.nanoTime() - begun) / 1e9;
  }

  private static double median(List<Double> times) {
    return times.stream().sorted().toList().get(times.size() / 2);
  }
}
