package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.table.ColumnType;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What an aggregate comes to over a whole reference, and that it is pointed out where it does. */
class AllRowsTest {

  private static Aggregate aggregate(String text) {
    return java.util.Objects.requireNonNull(Attribute.parse(text + " as a").aggregate());
  }

  /** The rows in any order, as those of a reference on disk come. */
  private static AllRows rows(@Nullable String... values) {
    Random random = new Random(values.length);
    return new AllRows(
        taker -> {
          List<Integer> left = new ArrayList<>();
          for (int row = 0; row < values.length; row++) {
            left.add(random.nextInt(left.size() + 1), row);
          }
          left.forEach(row -> taker.take(row + 1L, values[row]));
        });
  }

  @ParameterizedTest
  @CsvSource(
      nullValues = "-",
      value = {
        "sum(x), 11.50, 11.5",
        "avg(x), 3.8333333333, 3.833333333",
        "min(x), 2, 2.0",
        "max(x), 7.50, 7.5",
        "listagg(x), '2, 7.50, 2.0', '2, 7.50, 2.1'",
        "count(distinct x), -, 3"
      })
  void areWhatTheyComeToTogether(String aggregate, @Nullable String value, String other) {
    AllRows rows = rows("2", null, "7.50", "2.0");
    Aggregate of = aggregate(aggregate);
    if (value != null) {
      assertThat(rows.comeTo(of, null, value)).as(aggregate).isTrue();
    }
    assertThat(rows.comeTo(of, null, other)).as(aggregate).isFalse();
    assertThat(rows().comeTo(of, null, "0")).as("of nothing").isFalse();
    assertThat(rows(null, null).comeTo(of, null, "0")).as("of nulls").isFalse();
  }

  @Test
  void aCountAddsUpWhatEachRowComesToAlone() {
    assertThat(rows("1", null, "1", "1").comeTo(aggregate("count(x)"), null, "3")).isTrue();
    assertThat(rows("1", null, "1", "1").comeTo(aggregate("count(x)"), null, "4")).isFalse();
  }

  @Test
  void leastAndGreatestGoByTheStatedType() {
    AllRows rows = rows("10", "9", "b");
    assertThat(rows.comeTo(aggregate("max(x)"), null, "b")).as("text where any is").isTrue();
    assertThat(rows.comeTo(aggregate("min(x)"), null, "10")).isTrue();
    AllRows numbers = rows("10", "9", null);
    ColumnType text = ColumnType.of(ColumnType.Kind.TEXT);
    assertThat(numbers.comeTo(aggregate("max(x)"), null, "10")).isTrue();
    assertThat(numbers.comeTo(aggregate("max(x)"), text, "9")).isTrue();
    assertThat(numbers.comeTo(aggregate("max(x)"), text, "10")).isFalse();
  }

  @Test
  void isPointedOutWhereverTheReferenceIs() {
    MemoryTable ours = MemoryTable.of("ours", "k", "a", "a", "a");
    MemoryTable theirs =
        MemoryTable.of("theirs", "k,kg,no", "a,5.0,x", "a,,x", "z,9,q", "a,5,", "a,2,y");
    for (long memory : new long[] {1L << 40, 1}) {
      for (String where : new String[] {"k = 'a'", "k IS NOT NULL"}) {
        Lookup lookup =
            Lookup.in(theirs)
                .key("k")
                .where(where)
                .bring("sum(kg) as s", "count(*) as n", "max(kg) as m", "listagg(no, '/') as t");
        List<String> told =
            Enrichment.of(ours)
                .lookup(lookup)
                .memory(memory, null)
                .build()
                .writeTo(new ListSink())
                .lookups()
                .get(0)
                .constants();
        String all = where.equals("k = 'a'") ? " (what all rows together come to)" : "";
        assertThat(told)
            .as(where + " in " + memory)
            .containsExactly("s = 12.0" + all, "n = 4" + all, "m = 5.0" + all, "t = x/x/y" + all);
      }
    }
  }
}
