package org.abletwine.examples;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.formats.database.Database;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.MatchRule;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Destination;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/**
 * Enriches two zipped months of tickets from a sheet of a workbook, a query of a database and
 * objects of a file, and writes a sheet of a workbook, a Parquet file and a table of a database.
 */
public final class WorkbooksAndDatabases {
  private WorkbooksAndDatabases() {}

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    Path demo = Path.of(args[0]);
    TableOptions typed =
        TableOptions.builder()
            .types(Map.of("gross_kg", ColumnType.of(ColumnType.Kind.INTEGER)))
            .build();
    Table tickets = Tables.files(List.of(demo.resolve("tickets-2026-*.csv.zip")), typed);
    Table growers =
        Tables.file(
            demo.resolve("masters.xlsx"),
            TableOptions.builder().sheet(new TableOptions.Sheet("Growers", 0, null)).build());
    Table prices =
        Database.at("jdbc:sqlite:" + demo.resolve("prices.db"))
            .query("select * from prices where price_per_tonne > ?", List.of("0"));
    Table retests =
        Tables.file(demo.resolve("retests.jsonl"), TableOptions.builder().nested(true).build());

    Enrichment enrichment =
        Enrichment.of(tickets)
            .lookup(
                Lookup.in(growers)
                    .named("growers")
                    .key("grower_code", "grower_no")
                    .bring("name as grower_name"))
            .lookup(
                Lookup.in(prices)
                    .named("prices")
                    .key("commodity", "commodity")
                    .key("grade_mark", "grade")
                    .key(
                        KeyPart.matching(
                            "delivered_on", MatchRule.Kind.AT_OR_BELOW, "effective_from"))
                    .bring("price_per_tonne"))
            .lookup(
                Lookup.in(retests)
                    .named("retests")
                    .key("ticket_no", "ticket_no")
                    .normalise(Normalise.dropLeadingZeros())
                    .bring("retest_pct", "by.name as tested_by"))
            .build();

    OutputOptions sheet = OutputOptions.NONE.withSheet("tickets");
    Destination workbook = Tables.destination(demo.resolve("out/tickets.xlsx"), sheet);
    Destination columns =
        Tables.destination(demo.resolve("out/tickets.parquet"), OutputOptions.NONE);
    Destination table =
        Database.at("jdbc:sqlite:" + demo.resolve("out/tickets.db"))
            .into("tickets", Database.Mode.REPLACE);
    for (Destination place : List.of(workbook, columns, table)) {
      try (TableSink sink = place.open(null)) {
        RunRecord record = enrichment.writeTo(sink);
        System.out.println(record.rowsOut() + " rows to " + place.shortName());
        record
            .lookups()
            .forEach(l -> System.out.println("  " + l.name() + ": " + l.matched() + " matched"));
      }
    }
  }
}
