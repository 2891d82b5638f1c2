package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import org.abletwine.step.Columns;
import org.abletwine.table.Batch;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What expressions come to: a table of expression, and result with the columns below. */
class ExpressionTest {
  private static final List<String> NAMES =
      List.of("a", "b", "half", "nothing", "word", "spaced", "day", "later", "Net kg");
  private static final @Nullable String[] ROW = {
    "7", "2", "0.50", null, "Tamsin", "  oats ", "2026-07-20", "2026-08-31", "12"
  };

  private static Columns columns() {
    Columns columns = new Columns("tickets.csv", new Schema(NAMES));
    columns.typed("day", ColumnType.of(ColumnType.Kind.DATE));
    columns.typed("later", ColumnType.of(ColumnType.Kind.DATE));
    return columns;
  }

  private static @Nullable String value(String expression) {
    Expression compiled =
        Expression.of(
            expression,
            columns(),
            "compute x",
            new Expression.Settings(false, LocalDate.of(2026, 9, 1)));
    compiled.over(Batch.ofOneRow(ROW));
    return compiled.text(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      quoteCharacter = '~',
      nullValues = "null",
      value = {
        "a + b | 9",
        "a - b * 3 | 1",
        "(a - b) * 3 | 15",
        "-a + 1 | -6",
        "a / b | 3.5",
        "b / a | 0.285714285714",
        "a / 1000 | 0.007",
        "half / 10 | 0.05",
        "half * half | 0.2500",
        "half + 1 | 1.50",
        "1 / 3 * 3 | 0.999999999999",
        "a % 4 | 3",
        "mod(a, b) | 1",
        "a + nothing | null",
        "nothing * 0 | null",
        "9223372036854775807 + 1 | 9223372036854775808",
        "9223372036854775807 * 10 | 92233720368547758070",
        "0.1 + 0.2 | 0.3",
        "round(2.5) | 3",
        "round(-2.5) | -3",
        "round(a / 3, 2) | 2.33",
        "round(1234.5, -2) | 1200",
        "round(a, 2) | 7.00",
        "floor(-0.5) | -1",
        "ceiling(0.2) | 1",
        "abs(b - a) | 5",
        "power(b, 10) | 1024",
        "power(b, -1) | 0.5",
        "\"Net kg\" * 2 | 24",
        "a = 7 | true",
        "a <> 7 | false",
        "a = '7.0' | false",
        "a > 10 | false",
        "nothing = nothing | null",
        "nothing is null | true",
        "a is not null | true",
        "not (a = nothing) | null",
        "a = 7 and nothing = 1 | null",
        "a = 8 and nothing = 1 | false",
        "a = 7 or nothing = 1 | true",
        "a = 8 or nothing = 1 | null",
        "a between 1 and 7 | true",
        "a not between 1 and 6 | true",
        "a in (1, 7) | true",
        "a not in (1, null) | null",
        "word in ('Tamsin', 'Dunmere') | true",
        "word like 'T%n' | true",
        "word like '_amsi_' | true",
        "word not like 'x%' | true",
        "nothing like 'x' | null",
        "case when a > 5 then 'many' else 'few' end | many",
        "case when nothing > 5 then 'many' end | null",
        "case b when 1 then 'one' when 2 then 'two' end | two",
        "case when b = 0 then 0 else a / b end | 3.5",
        "case when b <> 0 then a / b else a / 0 end | 3.5",
        "coalesce(nothing, b, a / 0) | 2",
        "nullif(b, 2) | null",
        "nullif(a, b) | 7",
        "cast('12' as integer) + 1 | 13",
        "cast(a as decimal(10, 2)) | 7.00",
        "cast(a as varchar(10)) || 'x' | 7x",
        "word || '-' || b | Tamsin-2",
        "word || nothing | null",
        "upper(word) | TAMSIN",
        "lower(word) | tamsin",
        "trim(spaced) | oats",
        "trim(leading 'T' from word) | amsin",
        "substring(word, 2, 3) | ams",
        "substring(word from 4) | sin",
        "substring(word, 0, 2) | T",
        "position('s' in word) | 4",
        "char_length(word) | 6",
        "replace(word, 'm', 'nn') | Tannsin",
        "extract(month from day) | 7",
        "day + interval '14' day | 2026-08-03",
        "later - interval '2' month | 2026-06-30",
        "later - day | 42",
        "day < later | true",
        "day = '2026-07-20' | true",
        "day < date '2026-07-21' | true",
        "current_date | 2026-09-01",
      })
  void comesTo(String expression, @Nullable String expected) {
    assertThat(value(expression)).isEqualTo(expected);
  }

  @Test
  void decimalsAgreeWithBigDecimal() {
    Random random = new Random(11);
    for (int i = 0; i < 4_000; i++) {
      BigDecimal a = number(random);
      BigDecimal b = number(random);
      String x = a.toPlainString();
      String y = b.toPlainString();
      Columns columns = new Columns("t", new Schema(List.of("x", "y")));
      assertThat(of("x + y", columns, x, y)).isEqualByComparingTo(a.add(b));
      assertThat(of("x - y", columns, x, y)).isEqualByComparingTo(a.subtract(b));
      assertThat(of("x * y", columns, x, y)).isEqualByComparingTo(a.multiply(b));
      assertThat(of("round(x, 3)", columns, x, y))
          .isEqualByComparingTo(a.setScale(3, RoundingMode.HALF_UP));
      if (b.signum() != 0) {
        int places = Math.max(12, a.scale());
        assertThat(of("x / y", columns, x, y))
            .as(x + " / " + y)
            .isEqualByComparingTo(a.divide(b, places, RoundingMode.HALF_UP));
      }
    }
  }

  private static BigDecimal number(Random random) {
    return switch (random.nextInt(5)) {
      case 0 -> BigDecimal.valueOf(random.nextLong(), random.nextInt(10));
      case 1 -> BigDecimal.valueOf(random.nextInt(20) - 10);
      case 2 -> BigDecimal.TEN.pow(random.nextInt(6));
      default -> BigDecimal.valueOf(random.nextInt(2_000_000) - 1_000_000, random.nextInt(5));
    };
  }

  private static BigDecimal of(String expression, Columns columns, String x, String y) {
    Expression compiled =
        Expression.of(expression, columns, "compute x", Expression.Settings.STRICT);
    compiled.over(Batch.ofOneRow(x, y));
    return new BigDecimal(String.valueOf(compiled.text(0)));
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      quoteCharacter = '~',
      value = {
        "a + | cannot read",
        "gross + 1 | no column is called \"gross\" (at character 1)",
        "a + halb | did you mean \"half\"?",
        "upper(word) + 1 | is text where a number is needed",
        "roundd(a) | is not a known function; did you mean \"round\"?",
        "round() | takes 1 to 2 values, not 0",
        "extract(hour from day) | YEAR, MONTH or DAY",
        "day + interval '1' hour | needs DAY, MONTH or YEAR",
        "cast(a as blob) | a type that is not known",
        "day < '20.7.2026' | is not a date"
      })
  void wrongExpressionsAreRefusedBeforeAnyRow(String expression, String message) {
    assertThatThrownBy(() -> value(expression))
        .isInstanceOf(SettingException.class)
        .message()
        .contains(message);
  }

  @Test
  void theCurrentDateMustBeStated() {
    assertThatThrownBy(
            () -> Expression.of("current_date", columns(), "compute x", Expression.Settings.STRICT))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("unless the plan states it");
  }

  @ParameterizedTest
  @ValueSource(strings = {"a / 0", "word + 1", "cast(word as integer)", "power(0, -1)"})
  void rowsThatCannotBeComputedEndTheRunOrAreNull(String expression) {
    assertThatThrownBy(() -> value(expression))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 1, compute x");
    Expression lenient =
        Expression.of(expression, columns(), "compute x", new Expression.Settings(true, null));
    lenient.over(Batch.ofOneRow(ROW));
    assertThat(lenient.text(0)).isNull();
    assertThat(lenient.errors()).isEqualTo(1);
    assertThat(lenient.errorExample()).contains("row 1");
  }
}
