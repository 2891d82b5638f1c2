package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.table.Destination;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rows that a lookup sets apart: whole, as they are before it, each where its outcome goes. */
class ApartTest {
  private static final MemoryTable SALES =
      MemoryTable.of(
          "sales",
          "no,crop,kg",
          "1,rye,5",
          "2,oats,6",
          "3,,7",
          "4,peas,8",
          "5,beans,9",
          "6,rye,1",
          "7,oats,",
          "8,,2");

  private static final MemoryTable PRICES =
      MemoryTable.of("prices", "crop,price", "rye,4", "oats,3", "oats,5", "peas,2");

  /** A place in memory, which keeps all that is written there. */
  private static final class InMemory implements Destination {
    private final List<ListSink> opened = new ArrayList<>();

    @Override
    public TableSink open(@Nullable TableSink beside) {
      ListSink sink = new ListSink();
      opened.add(sink);
      return sink;
    }

    @Override
    public @Nullable Path file() {
      return null;
    }

    List<String> rows() {
      assertThat(opened).hasSize(1);
      assertThat(opened.get(0).committed()).isTrue();
      return opened.get(0).rows().stream().map(row -> String.join(" ", row)).toList();
    }
  }

  @ParameterizedTest
  @CsvSource({"1, false", "2, false", "3, false", "1, true", "2, true"})
  void eachOutcomeGoesWhereItIsSentTo(int workers, boolean onDisk) {
    InMemory noPrice = new InMemory();
    InMemory doubtful = new InMemory();
    Lookup lookup =
        Lookup.in(PRICES)
            .key("crop")
            .bring("price")
            .when(Outcome.UNMATCHED, Treatment.apart(noPrice))
            .when(Outcome.AMBIGUOUS, Treatment.apart(doubtful))
            .when(Outcome.BLANK_KEY, Treatment.apart(noPrice));
    ListSink sink = new ListSink();
    Enrichment.Builder run = Enrichment.of(SALES).lookup(lookup).measure("kg").workers(workers);
    LookupFigures figures =
        (onDisk ? run.memory(1, null) : run).build().writeTo(sink).lookups().get(0);
    assertThat(sink.rows())
        .containsExactly(
            List.of("1", "rye", "5", "4"),
            List.of("4", "peas", "8", "2"),
            List.of("6", "rye", "1", "4"));
    assertThat(noPrice.rows()).containsExactly("3 null 7", "5 beans 9", "8 null 2");
    assertThat(doubtful.rows()).containsExactly("2 oats 6", "7 oats null");
    assertThat(noPrice.opened.get(0).names()).containsExactly("no", "crop", "kg");
    assertThat(figures.outcomes().dropped()).isEqualTo(5);
  }

  @ParameterizedTest
  @CsvSource({"false", "true"})
  void whatIsDroppedGoesNowhere(boolean onDisk) {
    InMemory doubtful = new InMemory();
    Lookup lookup =
        Lookup.in(PRICES)
            .key("crop")
            .bring("price")
            .when(Outcome.UNMATCHED, Treatment.drop())
            .when(Outcome.AMBIGUOUS, Treatment.apart(doubtful));
    ListSink sink = new ListSink();
    Enrichment.Builder run = Enrichment.of(SALES).lookup(lookup);
    (onDisk ? run.memory(1, null) : run).build().writeTo(sink);
    assertThat(sink.column("no")).containsExactly("1", "3", "4", "6", "8");
    assertThat(doubtful.rows()).containsExactly("2 oats 6", "7 oats null");
  }
}
