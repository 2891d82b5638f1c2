package outsider;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;

/** What anybody would do first, with the artifacts as they are published. */
public final class Deliveries {
  private Deliveries() {}

  /** A delivery of a program's own. */
  public record Delivery(String ticket, String grower, BigDecimal netKg) {}

  /** The same, with what was fetched. */
  public record Named(String ticket, String name, BigDecimal netKg) {}

  /**
   * Runs it.
   *
   * @param args a folder to write to
   */
  public static void main(String[] args) throws IOException {
    Path folder = Path.of(args[0]);
    Path growers = folder.resolve("growers.csv");
    Files.writeString(growers, "grower,name\nG1,Moor\nG2,\"Fen, Lower\"\n");
    List<Delivery> deliveries =
        List.of(
            new Delivery("T1", " g2", new BigDecimal("12.50")),
            new Delivery("T2", "G9", new BigDecimal("3")));
    Enrichment enrichment =
        Enrichment.of(Tables.records(deliveries))
            .lookup(
                Lookup.in(Tables.file(growers))
                    .key("grower")
                    .normalise(Normalise.trim(), Normalise.ignoreCase())
                    .bring("name"))
            .build();
    enrichment.rows().forEach(row -> System.out.println(row.as(Named.class)));
    try (TableSink sink = Tables.sink(folder.resolve("named.csv"))) {
      RunRecord record = enrichment.writeTo(sink);
      System.out.println(record.lookups().get(0).matched() + " of " + record.rowsIn() + " matched");
    }
    System.out.print(Files.readString(folder.resolve("named.csv")));
    System.out.println(
        Lookup.in(Tables.file(growers)).key("grower").bring("name").load().apply(Map.of("grower", "G1")).get("name"));
    try {
      Tables.file(folder.resolve("growers.json"));
    } catch (SettingException e) {
      System.out.println(e.getMessage());
    }
    System.out.println(Deliveries.class.getModule().isNamed() ? "as a module" : "on the class path");
  }
}
