package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import org.abletwine.lookup.Aggregate.Function;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What values come to, put together. */
class AggregateTest {
  private static final ColumnType NUMBER = ColumnType.of(ColumnType.Kind.NUMBER);
  private static final ColumnType TEXT = ColumnType.of(ColumnType.Kind.TEXT);

  private static Aggregate of(Function function) {
    return new Aggregate(function, "+");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      nullValues = "null",
      value = {
        "SUM; 10,9,2.50; 21.50; null",
        "AVG; 10,9,2.50; 7.1666666667; null",
        "MIN; 10,9,2.50; 2.50; null",
        "MAX; 10,9,2.50; 10; null",
        "LISTAGG; 10,9,9; 10+9+9; null",
        "COUNT_DISTINCT; 10,9,9; 2; 0",
        "COUNT; 1,0,1; 2; null"
      })
  void valuesArePutTogether(
      Function function, String values, String expected, @Nullable String ofNone) {
    List<@Nullable String> all = Arrays.asList(("," + values + ",").split(",", -1));
    all.replaceAll(value -> value != null && value.isEmpty() ? null : value);
    assertThat(of(function).ofAll(all, NUMBER)).isEqualTo(expected);
    assertThat(of(function).ofAll(Arrays.asList(null, null), NUMBER)).isEqualTo(ofNone);
  }

  @Test
  void theFirstOfEqualsIsTaken() {
    assertThat(of(Function.MAX).ofAll(List.of("2.0", "2", "1"), NUMBER)).isEqualTo("2.0");
    assertThat(of(Function.MIN).ofAll(List.of("3", "2.0", "2"), NUMBER)).isEqualTo("2.0");
    assertThat(of(Function.MAX).ofAll(List.of("10", "9"), TEXT)).as("as text").isEqualTo("9");
    assertThat(of(Function.MAX).ofAll(List.of("10", "9"), null)).as("as they are").isEqualTo("10");
  }

  @Test
  void countsAloneTellNothingOfValues() {
    for (Function function : Function.values()) {
      boolean counts = function == Function.COUNT || function == Function.COUNT_DISTINCT;
      assertThat(of(function).counts()).isEqualTo(counts);
      assertThat(of(function).ofOne(null, true)).isEqualTo(counts ? "1" : null);
      assertThat(of(function).ofOne(null, false)).isEqualTo(counts ? "0" : null);
    }
    assertThat(of(Function.SUM).ofOne("1e2", false)).isEqualTo("100");
    assertThat(of(Function.MAX).ofOne("1e2", false)).isEqualTo("1e2");
  }

  @Test
  void whatValuesMustBe() {
    assertThat(of(Function.SUM).needed(null)).isNotNull();
    assertThat(of(Function.MAX).needed(null)).isNull();
    assertThat(of(Function.MIN).needed(NUMBER)).isNotNull();
    assertThat(of(Function.LISTAGG).needed(NUMBER)).isNull();
    assertThat(of(Function.COUNT).needed(NUMBER)).isNull();
    assertThat(of(Function.AVG).needed(TEXT).fits("x")).isFalse();
    ColumnType whole = ColumnType.of(ColumnType.Kind.INTEGER);
    assertThat(of(Function.SUM).needed(whole).fits("1.5")).isFalse();
    assertThat(of(Function.SUM).needed(NUMBER).fits("1.5")).isTrue();
  }

  @Test
  void aTextOfOneKeyMayBeSoLongAndNoLonger() {
    int each = 9; // and a plus
    int most = 1_000_000 / (each + 1);
    List<String> all = Collections.nCopies(most, "x".repeat(each));
    assertThat(of(Function.LISTAGG).ofAll(List.copyOf(all), null)).hasSize(10 * most - 1);
    assertThatThrownBy(
            () -> of(Function.LISTAGG).ofAll(Collections.nCopies(most + 1, all.get(0)), null))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("listagg: the values of one key, 100001 of them");
  }

  @Test
  void averagesAreNotCutShort() {
    assertThat(Aggregate.average(new BigDecimal("10.50"), 2)).isEqualTo("5.25");
    assertThat(Aggregate.average(new BigDecimal("10.0"), 2)).isEqualTo("5.0");
    assertThat(Aggregate.average(new BigDecimal("10"), 2)).isEqualTo("5");
  }
}
