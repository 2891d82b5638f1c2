package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.BitSet;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.TableReader;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/**
 * How a reference is loaded: what of it is held, when it is divided, and what it is told to need.
 */
class ReferenceLoaderTest {
  private static final MemoryTable SALES = MemoryTable.of("sales", "crop", "k1", "k77", "none");

  /** A table that says how large it is, and may run out of memory once it has read a batch. */
  private record Sized(MemoryTable of, long size, long read, boolean full, AtomicInteger again)
      implements BatchTable {
    Sized(MemoryTable of, long size, long read, boolean full) {
      this(of, size, read, full, new AtomicInteger());
    }

    @Override
    public String name() {
      return of.name();
    }

    @Override
    public Schema schema() {
      return of.schema();
    }

    @Override
    public long sizeInBytes() {
      return size;
    }

    @Override
    public void readAgain() {
      again.incrementAndGet();
    }

    @Override
    public Pieces pieces(int first, @Nullable BitSet wanted) {
      TableReader all = of.reader(null);
      TableReader told =
          new TableReader() {
            private boolean begun;

            @Override
            public boolean read(Batch into) {
              if (full && begun) {
                throw new OutOfMemoryError("no room");
              }
              begun = true;
              return all.read(into);
            }

            @Override
            public long bytesRead() {
              return read;
            }

            @Override
            public void close() {
              all.close();
            }
          };
      return new BatchPieces(told, of.schema().size(), wanted);
    }
  }

  private static MemoryTable many(int rows) {
    return MemoryTable.of(
        "many",
        "code,price",
        IntStream.range(0, rows).mapToObj(row -> "k" + row + ",p" + row).toArray(String[]::new));
  }

  private static Lookup in(Sized table) {
    return Lookup.in(table).key("crop", "code").bring("price");
  }

  private static LookupFigures run(Lookup lookup, long memory) {
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(SALES)
            .lookup(lookup)
            .workers(1)
            .memory(memory, null)
            .build()
            .writeTo(sink)
            .lookups()
            .get(0);
    assertThat(sink.column("price")).containsExactly("p1", "p77", null);
    return figures;
  }

  private static int parts(Sized table, long memory) {
    LookupFigures.Spilled spilled = run(in(table), memory).spilled();
    return spilled == null ? 0 : spilled.parts();
  }

  @Test
  void whatDoesNotFitIsDividedByWhatAllOfItIsTakenToNeed() {
    MemoryTable rows = many(3_000);
    assertThat(parts(new Sized(rows, 50_000, 50_000, false), 10_000_000)).isZero();
    int whole = parts(new Sized(rows, 50_000, 50_000, false), 100_000);
    int hundredth = parts(new Sized(rows, 5_000_000, 50_000, false), 100_000);
    int unknown = parts(new Sized(rows, -1, 50_000, false), 100_000);
    int nothing = parts(new Sized(rows, 5_000_000, 0, false), 100_000);
    assertThat(whole).as("a little more than the limit: the fewest").isEqualTo(4);
    assertThat(nothing).as("nobody knows how much was read").isEqualTo(4);
    // What was read is just beyond the limit; a part takes at least 65,536 bytes.
    assertThat(hundredth).isBetween(100 * 100_000 / 65_536, 100 * 120_000 / 65_536);
    assertThat(unknown).as("taken to be 16 times it").isBetween(25, 30);
  }

  @Test
  void whatIsHeldIsNoRoomForTheNext() {
    MemoryTable rows = many(2_000);
    Lookup first = in(new Sized(rows, 50_000, 50_000, false)).named("a");
    Lookup second =
        Lookup.in(new Sized(many(2_001), 50_000, 50_000, false))
            .key("crop", "code")
            .bring("price as other")
            .named("b");
    for (boolean fits : List.of(true, false)) {
      List<LookupFigures> figures =
          Enrichment.of(SALES)
              .lookup(first)
              .lookup(second)
              .memory(fits ? 10_000_000 : 200_000, null)
              .build()
              .writeTo(new ListSink())
              .lookups();
      assertThat(figures.get(0).spilled()).isNull();
      assertThat(figures.get(1).spilled() == null).isEqualTo(fits);
    }
  }

  @Test
  void whoRunsOutOfMemoryIsToldHowMuchIsNeeded() {
    long most = Runtime.getRuntime().maxMemory() / 1_000_000;
    for (long[] sizes : new long[][] {{9_000, 1_000}, {9_000, 0}, {9_000, 9_000}, {-1, 500}}) {
      boolean told = sizes[1] > 0 && sizes[0] > sizes[1];
      long needed = told ? (long) (1.2 * most * sizes[0] / sizes[1]) : 2 * most;
      Lookup lookup = in(new Sized(many(10), sizes[0], sizes[1], true));
      assertThatThrownBy(() -> Enrichment.of(SALES).lookup(lookup).build().writeTo(new ListSink()))
          .isInstanceOf(DataException.class)
          .hasMessage(
              "not enough memory: many needs about "
                  + needed
                  + " MB, this run has "
                  + most
                  + " MB; give more with -Xmx"
                  + (needed / 1000 + 1)
                  + "g (for the command line: ABLE_TWINE_JAVA_OPTIONS), bring fewer columns, or"
                  + " leave out rows with where:")
          .hasCauseInstanceOf(OutOfMemoryError.class);
    }
  }

  @Test
  void eachLoadReadsTheTableAnew() {
    Sized table = new Sized(many(10), 500, 500, false);
    in(table).load();
    assertThat(table.again).hasValue(1);
    in(table).load();
    assertThat(table.again).hasValue(2);
  }
}
