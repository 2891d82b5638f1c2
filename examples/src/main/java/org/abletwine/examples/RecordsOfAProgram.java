package org.abletwine.examples;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Stream;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Row;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/** Records that a program holds are priced, and come back as records; and a file as a stream. */
public final class RecordsOfAProgram {
  private RecordsOfAProgram() {}

  private record Delivery(String ticketNo, String commodity, String grade, LocalDate day) {}

  private record Priced(String ticketNo, @Nullable BigDecimal pricePerTonne) {}

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    List<Delivery> deliveries =
        List.of(
            new Delivery("X1", "wheat", "M1", LocalDate.of(2026, 7, 21)),
            new Delivery("X2", "Barley ", "m1", LocalDate.of(2026, 8, 2)),
            new Delivery("X3", "quinces", "M1", LocalDate.of(2026, 7, 9)));
    Lookup prices =
        Lookup.in(Tables.file(Path.of(args[0], "prices.csv")))
            .key("commodity")
            .key("grade")
            .key(KeyPart.atOrBelow("day", "effective_from"))
            .normalise(Normalise.trim(), Normalise.ignoreCase())
            .bring("price_per_tonne");

    Enrichment.of(Tables.records(deliveries)).lookup(prices).build().rows().stream()
        .map(row -> row.as(Priced.class))
        .forEach(System.out::println);

    Enrichment tickets =
        Enrichment.of(Tables.file(Path.of(args[0], "tickets.csv")))
            .lookup(
                Lookup.in(Tables.file(Path.of(args[0], "growers.csv")))
                    .key("grower_code", "grower_no")
                    .bring("district_code"))
            .build();
    try (Stream<Row> rows = tickets.stream()) {
      System.out.println(
          rows.filter(row -> "D01".equals(row.get("district_code"))).count() + " tickets of D01");
    }
  }
}
