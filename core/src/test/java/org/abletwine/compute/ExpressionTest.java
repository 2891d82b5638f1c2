package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What expressions come to: a table of expression, and result with the columns below. */
class ExpressionTest {
  private static final List<String> NAMES =
      List.of(
          "a", "b", "half", "nothing", "word", "spaced", "day", "later", "Net kg", "on", "till",
          "high", "low", "arabic", "nbsp", "at", "seen");
  private static final @Nullable String[] ROW = {
    "7",
    "2",
    "0.50",
    null,
    "Tamsin",
    "  oats ",
    "2026-07-20",
    "2026-08-31",
    "12",
    "2026-01-01",
    "2026-01-31",
    "\uD83C\uDF3E",
    "\uFFFD",
    "\u0661\u0662",
    "\u00A0oats\t",
    "2026-07-20T16:05:09.250",
    "20.07.2026 16:05"
  };

  private static Columns columns() {
    Columns columns = new Columns("tickets.csv", new Schema(NAMES));
    columns.typed("day", ColumnType.of(ColumnType.Kind.DATE));
    columns.typed("later", ColumnType.of(ColumnType.Kind.DATE));
    columns.typed("at", ColumnType.of(ColumnType.Kind.DATE_TIME));
    columns.typed("seen", new ColumnType(ColumnType.Kind.DATE_TIME, List.of("dd.MM.yyyy HH:mm")));
    return columns;
  }

  private static @Nullable String value(String expression) {
    Expression compiled =
        Expression.of(
            expression, columns(), "compute x", new Evaluation(false, LocalDate.of(2026, 9, 1)));
    compiled.over(OneRow.of(ROW));
    return compiled.text(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      quoteCharacter = '~',
      nullValues = "null",
      value = {
        "greatest(a, b, half) | 7",
        "least(a, b, half) | 0.50",
        "least(a, nothing) | null",
        "greatest(day, later) | 2026-08-31",
        "least(word, 'Zoe', 'Ann') | Ann",
        "greatest(a, \"Net kg\") | 12",
        "least(a, \"Net kg\") | 7",
        "greatest(a, \"Net kg\", word) | Tamsin",
        "least(\"Net kg\", 9) | 9",
        "greatest(a) + 1 | 8",
        "lpad(a, 3, '0') | 007",
        "lpad('abcd', 2) | ab",
        "rpad(a, 4, 'xy') | 7xyx",
        "lpad(high, 3, high) | \uD83C\uDF3E\uD83C\uDF3E\uD83C\uDF3E",
        "lpad(nothing, 3) | null",
        "first_of_month(day) | 2026-07-01",
        "last_of_month(date '2028-02-10') | 2028-02-29",
        "first_of_month(at) | 2026-07-01",
        "first_of_month(on) | 2026-01-01",
        "date_text(day, 'MM/yyyy') | 07/2026",
        "date_text(day, 'd MMMM') | 20 July",
        "date_text(at, 'HH:mm') | 16:05",
        "date_text(seen, 'yyyyMMdd-HHmm') | 20260720-1605",
        "date_text(on, 'EEE') | Thu",
        "date_text(nothing, 'yyyy') | null",
        "extract(hour from at) | 16",
        "extract(minute from seen) | 5",
        "extract(second from at) | 9.25",
        "extract(year from seen) | 2026",
        "extract(day from at) | 20",
        "extract(hour from '2026-07-20T23:00:00') | 23",
        "cast(seen as date) | 2026-07-20",
        "cast(at as date) - day | 0",
        "interval '14' day + day | 2026-08-03",
        "interval '1' month + on | 2026-02-01",
        "(a = 7) is true | true",
        "(a = nothing) is true | false",
        "(a = nothing) is not true | true",
        "(a = 8) is false | true",
        "(a = nothing) is unknown | true",
        "(a = 7) is not unknown | true",
        "cast((a = 7) as varchar(10)) || '!' | true!",
        "cast((a = 7) as integer) + cast((a = 8) as integer) | 1",
        "cast('TRUE ' as boolean) | true",
        "cast((a = 8) as boolean) | false",
        "case when cast('false' as boolean) then 1 else 2 end | 2",
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
        "cast(word as varchar(2)) | Ta",
        "cast(word as varchar(20)) | Tamsin",
        "cast(b as char(3)) || 'x' | 2  x",
        "cast(high || 'ab' as varchar(1)) = high | true",
        "char_length(trim(nbsp)) | 6",
        "trim(both 'n' from trim(leading 'T' from word)) | amsi",
        "high > low | true",
        "high between low and 'zzz' | false",
        "low < high and not high <= low | true",
        "day - on | 200",
        "till - on | 30",
        "on - till | -30",
        "till - '2026-01-30' | 1",
        "'2026-01-30' - on | 29",
        "a - b | 5",
        "coalesce(nothing, b) < 4 | true",
        "coalesce(a, b) < 10 | true",
        "case when a = 7 then b end < 4 | true",
        "case when a = 7 then a else b end < 10 | true",
        "nullif(a, b) < 10 | true",
        "coalesce(on, till) - on | 0",
        "power(3, -1) | 0.333333333333",
        "power(half, 2) | 0.2500",
        "5.00 % 3 | 2.00",
        "half % 0.3 | 0.20",
        "6 % 2.000 | 0.000",
        "0 - (-9223372036854775808) | 9223372036854775808",
        "-(-9223372036854775808) | 9223372036854775808",
        "1 / (-9223372036854775808) | 0",
        "-9223372036854775808 / (-9223372036854775808) | 1",
        "18446744073709551616 / (-9223372036854775808) | -2",
        "'a''b' || word | a'bTamsin",
        "word like 'T%' and word like '%n' and word like '%ms%' | true",
        "'50%' like '%!%' escape '!' | true",
        "word like 'T!%' escape '!' | false",
        "high like '_' | true",
        "'abcabd' like '%abd' | true",
        "'aab' like 'a_b' | true",
        "'ab' like 'a_b' | false",
        "'ababac' like '%abac%' | true",
        "'xaybz' like '%a_b%' | true",
        "a in (1, 2, 3, 4, 5, 6, 7) | true",
      })
  void comesTo(String expression, @Nullable String expected) {
    assertThat(value(expression)).isEqualTo(expected);
  }

  @Tag("oracle")
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
    Expression compiled = Expression.of(expression, columns, "compute x", Evaluation.STRICT);
    compiled.over(OneRow.of(x, y));
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
        "cast(a = 7 as integer) | a condition within CAST stands in brackets",
        "date_text(day, word) | must be a pattern in single quotes",
        "date_text(day, 'bb') | is no pattern of a date",
        "greatest(a = 7, b = 2) | has conditions in it",
        "extract(hour from day) | is a date, which has no hour",
        "day + interval '1' hour | needs DAY, MONTH or YEAR",
        "cast(a as blob) | a type that is not known",
        "day < '20.7.2026' | is not a date",
        "word || 'abc | at character 13: a single quote is not closed",
        "word || \"abc | a double quote is not closed",
        "a \\ b | goes wrong at character 3",
        "'' - '' | is text where a number is needed",
        "a +\u2028 b | U+2028 is no space",
        "a +\u00A0b | U+00A0 is no space",
        "day + interval '99999999999999' day | up to seven digits",
        "cast(a as decimal(99999999, 2)) | beyond 1000",
        "cast(a as decimal(2, 5)) | more decimal places than digits",
        "1e999999999 | exponent of up to 1000",
        "a / 1e-999999 | exponent of up to 1000",
        "word like 'a' escape 'xy' | a single character",
        "word like 'a!b' escape '!' | must stand before %, _ or itself",
        "word like 'a!' escape '!' | must stand before %, _ or itself",
        "trim('xy' from word) | a single character",
        "trim('' from word) | a single character",
        "word similar to 'a' | an operator that is not known",
        "word ilike 'a' | an operator that is not known",
        "0 + ~a | an operator that is not known",
        "E'a\\n' | a letter before the quote",
        "a between symmetric 1 and 2 | SYMMETRIC",
        "try_cast(word as integer) | is not known",
        "upper(distinct word) | does not take",
        "day - 5 | is a number where a date is needed"
      })
  void wrongExpressionsAreRefusedBeforeAnyRow(String expression, String message) {
    assertThatThrownBy(() -> value(expression))
        .isInstanceOf(SettingException.class)
        .message()
        .contains(message);
  }

  @Tag("oracle")
  @Test
  void whatIsTooLargeIsRefusedAtOnce() {
    for (String deep :
        List.of(
            "a" + " + a".repeat(3_000), "a" + "||a".repeat(3_000), "not ".repeat(2_000) + "a=1")) {
      assertThatThrownBy(() -> value(deep))
          .isInstanceOf(SettingException.class)
          .hasMessageContaining("200 operations");
    }
    assertThatThrownBy(() -> value("not ".repeat(10_000) + "a = 1"))
        .hasMessageContaining("more than 20000");
    assertThatThrownBy(() -> value("(".repeat(3_000) + "a" + ")".repeat(3_000)))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("100 brackets");
    assertThat(value("a in (" + "0, ".repeat(5_000) + "7)")).isEqualTo("true");
  }

  @Test
  void anEmptyTextIsNoExpression() {
    assertThatThrownBy(() -> value(" "))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("there is nothing in it");
  }

  /** What depends on the rows is bounded too: digits, characters, years. */
  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      value = {
        "9e900 * 9e900 | more than 1000 digits",
        "power(9, 999) * power(9, 999) | more than 1000 digits",
        "power(123456789, 999) | more than 1000 digits",
        "cast('9999-12-31' as date) + interval '1' day | is not between 0001-01-01 and 9999-12-31",
        "cast('0001-01-01' as date) - interval '9999' year | is not between",
        "cast('1000' || '0-01-01' as date) | is not a date",
        "cast(arabic as integer) | is not a number",
        "arabic + 1 | is not a number",
        "on - word | is not a number"
      })
  void whatCannotBeOfARowIsAnErrorOfThatRow(String expression, String message) {
    assertThatThrownBy(() -> value(expression))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 1, compute x")
        .hasMessageContaining(message);
  }

  @Test
  void aTextThatGrowsEndsWithAnError() {
    Columns columns = new Columns("t", new Schema(List.of("x")));
    String half = "y".repeat(60_000);
    for (String text : List.of("x || x", "replace(x, 'y', 'yy')")) {
      Expression grows = Expression.of(text, columns, "compute x", Evaluation.STRICT);
      assertThatThrownBy(() -> grows.over(OneRow.of(half)))
          .isInstanceOf(DataException.class)
          .hasMessageContaining("120000 characters, more than 100000");
    }
  }

  /** However long the text and however many signs: nothing is tried twice. */
  @Tag("oracle")
  @Test
  @Timeout(10)
  void likeIsLinear() {
    Columns columns = new Columns("t", new Schema(List.of("x")));
    String text = "a".repeat(500_000);
    for (String pattern :
        List.of("%a".repeat(300) + "%b", "%" + "a".repeat(1_000) + "b%", "%a%".repeat(300))) {
      Expression like =
          Expression.condition("x like '" + pattern + "'", columns, "keep", Evaluation.STRICT);
      like.over(OneRow.of(text));
      assertThat(like.isTrue(0)).isEqualTo(!pattern.contains("b"));
    }
  }

  @Test
  void aRowWithSeveralErrorsCountsOnce() {
    Expression lenient =
        Expression.of(
            "coalesce(a / 0, b / 0, word + 1)", columns(), "compute x", new Evaluation(true, null));
    lenient.over(OneRow.of(ROW));
    assertThat(lenient.text(0)).isNull();
    assertThat(lenient.errors().count()).isEqualTo(1);
  }

  @Test
  void aColumnOfWholeNumbersTakesNoOthers() {
    Columns columns = new Columns("t", new Schema(List.of("kg")));
    columns.typed("kg", ColumnType.of(ColumnType.Kind.INTEGER));
    Expression doubled = Expression.of("kg * 2", columns, "compute x", Evaluation.STRICT);
    doubled.over(OneRow.of("7.0"));
    assertThat(doubled.text(0)).isEqualTo("14.0");
    assertThatThrownBy(() -> doubled.over(OneRow.of("1.5")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("\"1.5\" is not a whole number");
  }

  @Test
  void theCurrentDateMustBeStated() {
    assertThatThrownBy(
            () -> Expression.of("current_date", columns(), "compute x", Evaluation.STRICT))
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
        Expression.of(expression, columns(), "compute x", new Evaluation(true, null));
    lenient.over(OneRow.of(ROW));
    assertThat(lenient.text(0)).isNull();
    assertThat(lenient.errors().count()).isEqualTo(1);
    assertThat(lenient.errors().example()).contains("row 1");
  }
}
