package org.abletwine.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.abletwine.demo.WendleVale;
import org.abletwine.derive.Compute;
import org.abletwine.derive.Rollup;
import org.abletwine.enrich.Enrichment;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Several;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Evaluation;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/**
 * What six computed columns, and a rollup to 100,000 groups, add to a run that looks up growers and
 * prices: both runs alternating in one process, files read and written.
 */
public final class ComputeSpeed {
  private static final String[][] COLUMNS = {
    {"net_kg", "gross_kg - tare_kg"},
    {"net_t", "net_kg / 1000"},
    {"dry_kg", "round(net_kg * (100 - moisture_pct) / 100, 1)"},
    {"value", "round(net_kg * price_per_tonne / 1000, 2)"},
    {"fee", "case when net_kg > 20000 then value * 0.01 else 25 end"},
    {"payable", "value - fee"}
  };

  private ComputeSpeed() {}

  /**
   * Runs the comparison.
   *
   * @param args the number of tickets; rounds; the folder for data
   * @throws IOException when data cannot be written
   */
  public static void main(String[] args) throws IOException {
    int tickets = Integer.parseInt(args[0]);
    int rounds = Integer.parseInt(args[1]);
    Path data = Files.createDirectories(Path.of(args[2], "c" + tickets));
    if (!Files.exists(data.resolve("remark-patterns.csv"))) {
      WendleVale.write(data, tickets, 100_000, WendleVale.SEED);
    }
    List<Double> plain = new ArrayList<>();
    List<Double> computed = new ArrayList<>();
    List<Double> rolled = new ArrayList<>();
    for (int round = 1; round <= rounds; round++) {
      plain.add(seconds(data, false, false));
      computed.add(seconds(data, true, false));
      rolled.add(seconds(data, false, true));
      System.out.printf(
          Locale.ROOT,
          "round %d: without %.2f s; six computed columns %.2f s; rollup %.2f s%n",
          round,
          plain.get(round - 1),
          computed.get(round - 1),
          rolled.get(round - 1));
    }
    System.out.printf(
        Locale.ROOT,
        "medians, of the run without: six computed columns %.2f, rollup to about 100,000 groups %.2f%n",
        median(computed) / median(plain),
        median(rolled) / median(plain));
  }

  private static double seconds(Path data, boolean compute, boolean rollup) {
    Table tickets = Tables.file(data.resolve("tickets.csv"));
    Enrichment.Builder builder =
        Enrichment.of(tickets)
            .lookup(
                Lookup.in(Tables.file(data.resolve("growers.csv")))
                    .key("grower_code", "grower_no")
                    .bring("name as grower_name", "district_code")
                    .several(Several.first()))
            .lookup(
                Lookup.in(Tables.file(data.resolve("prices.csv")))
                    .key("commodity")
                    .key("grade_mark", "grade")
                    .key(
                        KeyPart.matching(
                            "delivered_on", MatchRule.Kind.AT_OR_BELOW, "effective_from"))
                    .bring("price_per_tonne"));
    if (compute) {
      for (String[] column : COLUMNS) {
        builder.step(new Compute(column[0], column[1], Evaluation.STRICT));
      }
    }
    if (rollup) {
      builder.step(
          new Rollup(
              List.of("grower_code"),
              List.of("gross_kg", "count(*) as tickets"),
              true,
              null,
              tickets,
              Evaluation.STRICT));
    }
    long begun = System.nanoTime();
    try (TableSink sink = Tables.sink(data.resolve("out.csv"))) {
      builder.build().writeTo(sink);
    }
    return (System.nanoTime() - begun) / 1e9;
  }

  private static double median(List<Double> times) {
    return times.stream().sorted().toList().get(times.size() / 2);
  }
}
