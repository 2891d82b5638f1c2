package org.abletwine.examples;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/**
 * Tickets that a program holds in memory, a step that takes off what the weighbridge puts before
 * its codes, and a sink that prints: a table, a normalise step and a sink of one's own.
 */
public final class TablesOfYourOwn {
  private TablesOfYourOwn() {}

  /** Tickets as the weighbridge holds them. */
  private record Weighbridge(List<List<@Nullable String>> tickets) implements Table {
    @Override
    public String name() {
      return "weighbridge";
    }

    @Override
    public Schema schema() {
      return new Schema(List.of("ticket_no", "grower_code"));
    }

    @Override
    public Rows rows() {
      Iterator<List<@Nullable String>> left = tickets.iterator();
      return new Rows() {
        @Override
        public @Nullable List<@Nullable String> next() {
          return left.hasNext() ? left.next() : null;
        }

        @Override
        public void close() {
          // nothing is held open
        }
      };
    }
  }

  /** Prints every row. */
  private static final class Printed implements TableSink {
    @Override
    public void start(Table source, Schema columns) {
      System.out.println(String.join(" | ", columns.names()));
    }

    @Override
    public void write(List<@Nullable String> row) {
      System.out.println(String.join(" | ", row.stream().map(String::valueOf).toList()));
    }

    @Override
    public void commit() {
      System.out.println("that is all");
    }

    @Override
    public void close() {
      // printed already
    }
  }

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    Table tickets =
        new Weighbridge(
            List.of(
                Arrays.asList("1", "KEL/000324R"),
                Arrays.asList("2", "TAN/000238N"),
                Arrays.asList("3", "TAN/X99999"),
                Arrays.asList("4", null)));
    LookupFigures growers =
        Enrichment.of(tickets)
            .lookup(
                Lookup.in(Tables.file(Path.of(args[0], "growers.csv")))
                    .key("grower_code", "grower_no")
                    .normalise(new WithoutBridge(), Normalise.trim())
                    .bring("name"))
            .build()
            .writeTo(new Printed())
            .lookups()
            .get(0);
    growers.matchedBy().forEach(by -> System.out.println(by.name() + ": " + by.rows()));
  }
}
