package org.abletwine.examples;

import static org.abletwine.key.Normalise.trim;
import static org.abletwine.lookup.Fill.fill;

import java.nio.file.Path;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/** Enriches the demo's tickets with their grower and the grower's district, into a new file. */
public final class EnrichOneFile {
  private EnrichOneFile() {}

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    Path demo = Path.of(args[0]);
    Table tickets = Tables.file(demo.resolve("tickets.csv"));
    Table growers = Tables.file(demo.resolve("growers.csv"));
    Table districts = Tables.file(demo.resolve("districts.csv"));

    Enrichment enrichment =
        Enrichment.of(tickets)
            .lookup(
                Lookup.in(growers)
                    .key("grower_code", "grower_no")
                    .normalise(trim())
                    .bring("name as grower_name", "district_code")
                    .whenUnmatched(fill("grower_name", "Unlisted grower")))
            .lookup(Lookup.in(districts).key("district_code").bring("district_name"))
            .build();

    try (TableSink sink = Tables.sink(demo.resolve("out/with-districts.csv"))) {
      RunRecord record = enrichment.writeTo(sink);
      for (LookupFigures lookup : record.lookups()) {
        System.out.printf(
            "%s: %d of %d matched, %d unmatched, %d ambiguous, %d blank key%n",
            lookup.name(),
            lookup.matched(),
            lookup.rows(),
            lookup.unmatched(),
            lookup.ambiguous(),
            lookup.blankKey());
      }
    }
  }
}
