package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Expressions at the bounds of what they take, and the words with which they refuse the rest. */
class ExpressionEdgesTest {
  private static final Evaluation LENIENT = new Evaluation(true, null);

  private static Columns columns(String... names) {
    return new Columns("tickets.csv", new Schema(List.of(names)));
  }

  private static Expression of(String text) {
    return Expression.of(text, columns("a", "word"), "compute x", Evaluation.STRICT);
  }

  private static @Nullable String value(String text) {
    Expression expression = of(text);
    expression.over(OneRow.of("7", "Tamsin"));
    return expression.text(0);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "upper | 1 value",
        "lower | 1 value",
        "char_length | 1 value",
        "replace | 3 values",
        "substring | 2 to 3 values",
        "floor | 1 value",
        "ceiling | 1 value",
        "round | 1 to 2 values",
        "abs | 1 value",
        "mod | 2 values",
        "power | 2 values",
        "nullif | 2 values"
      })
  void functionsSayHowManyValuesTheyTake(String function) {
    String[] parts = function.split(" \\| ");
    int most = Integer.parseInt(parts[1].replaceAll(".*?(\\d+) values?", "$1"));
    for (int count : new int[] {0, most + 1}) {
      String text = parts[0] + "(" + ", 1".repeat(count).replaceFirst(", ", "") + ")";
      assertThatThrownBy(() -> of(text))
          .as(text)
          .isInstanceOf(SettingException.class)
          .hasMessageContaining("takes " + parts[1] + ", not " + count);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      quoteCharacter = '~',
      nullValues = "null",
      value = {
        "position('Ta' in word) | 1",
        "position('x' in word) | 0",
        "position('' in word) | 1",
        "trim('  x ') | x",
        "'.' || trim(trailing ' ' from '  x ') | .  x",
        "trim('    ') || '.' | .",
        "trim(both 'a' from 'aaa') || '.' | .",
        "character_length(word) | 6",
        "ceil(0.2) | 1",
        "substring(word, 3, 0) || '.' | .",
        "substring(word, 7) || '.' | .",
        "substring(word, 6) | n",
        "substring(word, -2, 4) | T",
        "substring(word, 1, 2147483647) | Tamsin",
        "substring(word, 2147483647, 2147483647) || '.' | .",
        "replace(word, '', 'x') | Tamsin",
        "replace(word, 'am', '') | Tsin",
        "round(a, 0 + 1) | 7.0",
        "round(a, 50 + 50) | 7.{100}",
        "round(a, 0 - 100) | 0",
        "power(a, 0) | 1",
        "power(1, 999) | 1",
        "power(1, -999) | 1",
        "power(0, 0) | 1",
        "power(0, 5) | 0",
        "cast(9.99 as decimal(3, 2)) | 9.99",
        "cast(9.994 as decimal(3, 2)) | 9.99",
        "cast('99' as decimal(2, 0)) | 99",
        "cast(0.5 as decimal(1, 1)) | 0.5",
        "cast(word as varchar(6)) | Tamsin",
        "cast(word as char(6)) || '.' | Tamsin.",
        "cast(date '2026-07-20' as varchar(10)) | 2026-07-20",
        "date '2026-07-20' || '' | 2026-07-20",
        "cast(' 2026-07-20 ' as date) | 2026-07-20",
        "cast('0001-01-01' as date) | 0001-01-01",
        "date '0001-01-02' - interval '1' day | 0001-01-01",
        "date '9999-12-30' + interval '1' day | 9999-12-31",
        "extract(year from date '2026-07-20') | 2026",
        "extract(day from date '2026-07-20') | 20",
        "a = 7 and word = 'Tamsin' or a = 8 | true",
        "not a = 8 | true"
      })
  void whatIsJustWithinItsBounds(String text, @Nullable String expected) {
    String wanted = expected == null ? null : expected.replace("{100}", "0".repeat(100));
    assertThat(value(text)).isEqualTo(wanted);
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      quoteCharacter = '~',
      value = {
        "substring(word, 1, -1) | a length of 0 or more",
        "substring(word, 1.5) | whole numbers",
        "round(a, 100 + 1) | at most 100",
        "round(a, 0 - 101) | at most 100",
        "round(a, a / 2) | a whole number of places",
        "power(a, 1000) | at most 999",
        "power(a, -1000) | at most 999",
        "power(a, 0.5) | whole exponent",
        "power(0, -1) | zero has no negative power",
        "cast(99.995 as decimal(4, 2)) | 99.995 does not fit decimal(4, 2)",
        "cast('100' as decimal(2, 0)) | does not fit decimal(2, 0)",
        "cast(1.5 as decimal(1, 1)) | does not fit",
        "cast(word as date) | cast: \"Tamsin\" is not a date",
        "cast(word as decimal(3, 1)) | cast: \"Tamsin\" is not a number",
        "date '0001-01-01' - interval '1' day | 0001-01-01 less 1 days is not between",
        "date '9999-12-31' + interval '2' month | 9999-12-31 plus 2 months is not between",
        "a / (a - 7) | division of 7 by zero"
      })
  void whatIsJustBeyondThemIsAnErrorOfItsRow(String text, String message) {
    assertThatThrownBy(() -> value(text))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 1, compute x")
        .hasMessageContaining(message);
    Expression lenient = Expression.of(text, columns("a", "word"), "compute x", LENIENT);
    lenient.over(OneRow.of("7", "Tamsin"));
    assertThat(lenient.isNull(0)).isTrue();
    assertThat(lenient.failed(0)).isTrue();
    lenient.over(OneRow.of(null, null));
    assertThat(lenient.failed(0)).as("of nulls").isEqualTo(!text.matches(".*\\b(a|word)\\b.*"));
  }

  /** Too large by one, and just not: of the text itself, and of what it makes. */
  @Test
  void sizesAreBoundedToTheCharacter() {
    String inBrackets = "(".repeat(SqlText.MOST_BRACKETS) + "a" + ")".repeat(SqlText.MOST_BRACKETS);
    assertThat(value(inBrackets)).isEqualTo("7");
    assertThat(value("(a) + ".repeat(150) + "a")).isEqualTo("" + 7 * 151);
    assertThatThrownBy(() -> of("a + (" + inBrackets + ")"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("one within another, at character 105");
    String filler = " ".repeat(SqlText.MOST_CHARACTERS - 1);
    assertThat(value("a" + filler)).isEqualTo("7");
    assertThatThrownBy(() -> of("a " + filler)).hasMessageContaining("more than 20000");
    Columns columns = columns("x");
    for (String text : List.of("x || x", "replace(x, 'y', 'yy')")) {
      Expression twice = Expression.of(text, columns, "compute z", LENIENT);
      twice.over(OneRow.of("y".repeat(Functions.MOST_TEXT / 2)));
      assertThat(String.valueOf(twice.text(0))).hasSize(Functions.MOST_TEXT);
      twice.over(OneRow.of("y".repeat(Functions.MOST_TEXT / 2 + 1)));
      assertThat(twice.text(0)).isNull();
      assertThat(twice.errors().count()).isEqualTo(1);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      quoteCharacter = '~',
      value = {
        "select + 1 | write \"select\" in double quotes, since it is a word of SQL too: \"select\" + 1",
        "select + where | that are no plain words, or words of SQL too: \"select\" + \"where\"",
        "select + ) | cannot read",
        "a + 'x | at character 7: a single quote is not closed",
        "a + \"x | at character 7: a double quote is not closed"
      })
  void slipsAreToldWithTheirPlace(String text, String message) {
    assertThatThrownBy(
            () ->
                Expression.of(
                    text, columns("a", "select", "from", "where"), "compute x", Evaluation.STRICT))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining(message);
  }

  @Test
  void aHintIsGivenOnlyWhereItHelps() {
    assertThatThrownBy(() -> of("a + )")).hasMessageNotContaining("double quotes");
    assertThatThrownBy(
            () -> Expression.of("select + )", columns("select"), "compute x", Evaluation.STRICT))
        .hasMessageNotContaining("double quotes");
    assertThatThrownBy(() -> of("a +\n\n * word"))
        .hasMessageContaining("it goes wrong after `a + *`");
    assertThatThrownBy(() -> of("a = 1 word")).hasMessageContaining("goes wrong after `a = 1`");
    assertThatThrownBy(() -> of("'it''s' )")).hasMessageContaining("goes wrong after `'it''s'`");
    assertThatThrownBy(() -> of("a +\n\n = 1"))
        .hasMessageContaining("it goes wrong at line 3, character 2");
  }

  @Test
  void knowsItsInputsItsTypeAndItsText() {
    Expression sum = of("a + a * char_length(word)");
    assertThat(sum.inputs()).containsExactly("a", "word");
    assertThat(sum).hasToString("a + a * char_length(word)");
    assertThat(sum.type()).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(of("word || a").type()).isEqualTo(ColumnType.of(ColumnType.Kind.TEXT));
    assertThat(of("date '2026-07-01'").type()).isEqualTo(ColumnType.of(ColumnType.Kind.DATE));
    assertThat(of("a = 7").type()).isEqualTo(ColumnType.of(ColumnType.Kind.BOOLEAN));
  }

  /** A column of numbers that do and do not fit a long, and of nulls, into a column and out. */
  @Test
  void fillsAColumnWhateverItsNumbers() {
    String[][] cells = {{"1", null, "2.50"}, {"1e30", null, "-3"}, {null, null, null}};
    for (String[] numbers : cells) {
      Batch batch = new Batch(2);
      batch.clear(1, ',');
      for (String number : numbers) {
        batch.addCell(number);
        batch.addCell("w");
        batch.endRow();
      }
      for (String text : List.of("a * 2", "word || a")) {
        Expression expression = of(text);
        expression.over(batch);
        CellVector target = new CellVector();
        target.clear();
        int nulls = 0;
        int counted = expression.appendTo(target, 3);
        for (int row = 0; row < 3; row++) {
          String number = numbers[row];
          nulls += number == null ? 1 : 0;
          assertThat(target.get(row)).isEqualTo(number == null ? null : wanted(text, number));
          assertThat(expression.isNull(row)).isEqualTo(number == null);
        }
        assertThat(counted).isEqualTo(nulls);
      }
    }
  }

  private static String wanted(String text, String number) {
    return text.startsWith("a")
        ? new BigDecimal(number).multiply(BigDecimal.valueOf(2)).toPlainString()
        : "w" + number;
  }

  /** What a step before computed is taken over as numbers, and is the same as if it were read. */
  @Test
  void computesOnWhatWasComputed() {
    for (ColumnType.Kind kind : new ColumnType.Kind[] {null, ColumnType.Kind.INTEGER}) {
      Columns columns = columns("a", "word");
      int added = columns.add("half", "compute half", "rename it");
      if (kind != null) {
        columns.typed("half", ColumnType.of(kind));
      }
      Batch batch = new Batch(2);
      batch.clear(1, ',');
      for (String number : new @Nullable String[] {"4", null, "5", "12.50"}) {
        batch.addCell(number);
        batch.addCell("x");
        batch.endRow();
      }
      Expression half = of("a / 2");
      half.over(batch);
      half.appendTo(batch.addColumn(), 4);
      Expression more = Expression.of("half + 1", columns, "compute y", LENIENT);
      more.over(batch);
      assertThat(added).isEqualTo(2);
      boolean whole = kind != null;
      assertThat(more.text(0)).isEqualTo("3");
      assertThat(more.text(1)).isNull();
      assertThat(more.text(2)).isEqualTo(whole ? null : "3.5");
      assertThat(more.text(3)).isEqualTo(whole ? null : "7.25");
      assertThat(more.errors().count()).isEqualTo(whole ? 2 : 0);
      assertThat(List.of(more.failed(0), more.failed(1), more.failed(2)))
          .containsExactly(false, false, whole);
      if (whole) {
        assertThat(more.errors().row()).isEqualTo(3);
        assertThat(more.errors().example()).contains("row 3", "\"2.5\" is not a whole number");
      }
    }
  }
}
