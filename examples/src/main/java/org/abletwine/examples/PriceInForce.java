package org.abletwine.examples;

import java.nio.file.Path;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/** The price in force on the day, for commodity and grade; and the moisture band. */
public final class PriceInForce {
  private PriceInForce() {}

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    Path demo = Path.of(args[0]);
    Lookup prices =
        Lookup.in(Tables.file(demo.resolve("prices.csv")))
            .key("commodity")
            .key("grade_mark", "grade")
            .key(KeyPart.atOrBelow("delivered_on", "effective_from"))
            .normalise(Normalise.trim(), Normalise.ignoreCase())
            .bring("price_per_tonne");
    Lookup moisture =
        Lookup.in(Tables.file(demo.resolve("moisture-deductions.csv")))
            .key("commodity")
            .key(KeyPart.between("moisture_pct", "from_pct", "to_pct"))
            .normalise(Normalise.trim(), Normalise.ignoreCase())
            .bring("deduction_pct");
    RunRecord record;
    try (TableSink sink = Tables.sink(demo.resolve("out/priced.csv"))) {
      record =
          Enrichment.of(Tables.file(demo.resolve("tickets.csv")))
              .lookup(prices)
              .lookup(moisture)
              .build()
              .writeTo(sink);
    }
    for (LookupFigures lookup : record.lookups()) {
      System.out.printf(
          "%s: %d matched, %d unmatched, %d ambiguous%n",
          lookup.reference().name(), lookup.matched(), lookup.unmatched(), lookup.ambiguous());
      lookup.misses().forEach(miss -> System.out.printf("  %d %s%n", miss.rows(), miss.kind()));
    }
  }
}
