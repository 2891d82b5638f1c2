package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.abletwine.table.ColumnType;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The order of values, stated and found. */
class ValueOrderTest {
  @ParameterizedTest
  @CsvSource({
    "NUMBER, , 9, 10, -1",
    "NUMBER, , 1.50, ' 1.5', 0",
    "NUMBER, , -1, -2, 1",
    "TEXT, , 9, 10, 1",
    "TEXT, , 'a ', a, 0",
    "DATE, , 2026-01-09, 2026-01-10, -1",
    "DATE, dd.MM.yyyy, 09.02.2026, 10.01.2026, 1",
    "DATE_TIME, , 2026-01-01T10:00, 2026-01-01, 1",
    "DATE_TIME, , 2026-01-01 10:00, 2026-01-01T09:00, 1"
  })
  void comparesAsTheTypeSays(
      ColumnType.Kind kind, String pattern, String one, String other, int sign) {
    ValueOrder order =
        ValueOrder.of(new ColumnType(kind, pattern == null ? List.of() : List.of(pattern)));
    assertThat(Integer.signum(order.compare(one, other))).isEqualTo(sign);
    assertThat(Integer.signum(order.compare(other, one))).isEqualTo(-sign);
  }

  @ParameterizedTest
  @CsvSource({
    "NUMBER, , n/a, false",
    "NUMBER, , 1e3, true",
    "INTEGER, , 12, true",
    "INTEGER, , 120.00, true",
    "INTEGER, , 12.5, false",
    "INTEGER, , x, false",
    "DATE, dd.MM.yyyy, 2026-01-01, false",
    "DATE, dd.MM.yyyy, 31.02.2026, false",
    "DATE, , 2026-02-28, true",
    "TEXT, , anything, true"
  })
  void tellsWhatFits(ColumnType.Kind kind, String pattern, String text, boolean fits) {
    ColumnType type = new ColumnType(kind, pattern == null ? List.of() : List.of(pattern));
    assertThat(ValueOrder.of(type).fits(text)).isEqualTo(fits);
  }

  @Test
  void anOrderIsFoundOnlyWhereAllValuesAgree() {
    ValueOrder.Finder numbers = new ValueOrder.Finder();
    assertThat(numbers.look("10")).isTrue();
    assertThat(numbers.look("9")).isTrue();
    assertThat(numbers.order().compare("10", "9")).isPositive();
    assertThat(numbers.look("2026-01-01")).as("neither numbers nor dates").isFalse();
    assertThat(numbers.order().compare("10", "9")).as("by code point then").isNegative();
    ValueOrder.Finder dates = new ValueOrder.Finder();
    assertThat(dates.look("2026-03-01")).isTrue();
    assertThat(dates.look("2026-03-01T08:00")).isTrue();
    assertThat(dates.order().noun()).isEqualTo("a date and time");
  }

  @Test
  void whatDoesNotFitIsNotCompared() {
    ValueOrder order = ValueOrder.of(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThatThrownBy(() -> order.compare("1", "x"))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("\"x\"");
    assertThatThrownBy(() -> order.compare("y", "1")).hasMessageContaining("\"y\"");
    assertThat(order).hasToString("ValueOrder[NUMBER]");
  }

  @Test
  void pairsOfSurrogatesComeAfterAllOtherCharacters() {
    assertThat(ValueOrder.byCodePoint("\uFF5E", "\uD83C\uDF3E")).isNegative();
    assertThat("\uFF5E".compareTo("\uD83C\uDF3E")).as("by code unit").isPositive();
    assertThat(ValueOrder.byCodePoint("a", "ab")).isNegative();
  }
}
