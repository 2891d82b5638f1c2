package org.abletwine.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.step.Evaluation;
import org.abletwine.table.batch.FormedTable;
import org.abletwine.table.text.NumberForm;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Numbers that a column writes in a form of its own. */
class NumberFormTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "-",
      quoteCharacter = '`',
      value = {
        "1.234,56|1.234,56|1234.56",
        "1.234,56|1234,5|1234.5",
        "1.234,56|1.234|1234",
        "1.234,56|-1.234.567,8|-1234567.8",
        "1.234,56|007,50|007.50",
        "1.234,56|12.5|-",
        "1.234,56|1234.56|-",
        "1.234,56|1.2345,6|-",
        "1.234,56|12.34,5|-",
        "1.234,56|1,234.56|-",
        "1.234,56|1,2,3|-",
        "1.234,56|,5|-",
        "1.234,56|5,|-",
        "1.234,56|1..234|-",
        "1.234,56|1.234.|-",
        "1.234,56|n/a|-",
        "1.234,56||-",
        "1.234,56|1e5|-",
        "$1,234.56|$1,234.56|1234.56",
        "$1,234.56|1234.5|1234.5",
        "$1,234.56|-$5|-5",
        "$1,234.56|$-5|-5",
        "$1,234.56|€5|-",
        "(1,234.56)|(1,234.56)|-1234.56",
        "(1,234.56)|1,234.56|1234.56",
        "(1,234.56)|(5|-",
        "1 234,56 €|1\u00A0234,56\u202F€|1234.56",
        "1 234,56 €|12 345|12345",
        "1'234.50|1’234’567.5|1234567.5",
        "1234,5|1234,5|1234.5",
        "1234,5|1.234,5|-",
        "1.234.567|1.234.567|1234567",
        "1.234.567|1,5|-",
        "1.234,56-|1.234,56-|-1234.56",
        "12,5 %|7,25 %|7.25"
      })
  void areReadAsTheExampleSays(String example, String text, String plain) {
    String written =
        text == null ? "" : text.replace("\\u00A0", "\u00A0").replace("\\u202F", "\u202F");
    assertThat(NumberForm.of(example, false).plain(written)).isEqualTo(plain);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "1.234|does not tell",
        "1,234|does not tell",
        "EUR|no digit",
        "1.23.45|by threes",
        "1;234|parts no numbers",
        "1.234,567'8|more than two kinds"
      })
  void anExampleThatDoesNotTellIsRefused(String example, String why) {
    assertThatThrownBy(() -> NumberForm.of(example, false))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining(why);
    assertThat(NumberForm.of("1.234", true).plain("12.345")).isEqualTo("12345");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "-",
      value = {
        "1.234,56|1234567.5|1.234.567,5|#,##0.00",
        "1.234,56|-123|-123|#,##0.00",
        "1.234,56|1234|1.234|#,##0.00",
        "1234.5|-1234567.25|-1234567.25|0.0",
        "(1,234.56)|-1234.5|(1,234.5)|#,##0.00;(#,##0.00)",
        "(1,234.56)|1234.5|1,234.5|#,##0.00;(#,##0.00)",
        "1.234,56-|-1234.5|1.234,5-|#,##0.00",
        "$1,234.56|-1234.5|-$1,234.5|\"$\"#,##0.00",
        "1 234,56 kg|1234.5|1 234,5 kg|#,##0.00\" kg\"",
        "1.234,56kg|1234.5|1.234,5kg|#,##0.00\"kg\"",
        "12,5 %|7.25|7,25 %|0.0%",
        "1 234 567|1234567|1 234 567|#,##0",
        "1 234 567|1234.5|1 234.5|#,##0"
      })
  void areWrittenAsTheExampleSays(String example, String plain, String text, String cellFormat) {
    NumberForm form = NumberForm.of(example, false);
    assertThat(form.write(plain)).isEqualTo(text);
    assertThat(form.plain(text) == null || form.plain(text).equals(plain)).isTrue();
    assertThat(form.cellFormat()).isEqualTo(cellFormat);
    assertThat(form).hasToString(example);
  }

  @Test
  void anExampleSaysWhatSurroundsANumber() {
    NumberForm dollars = NumberForm.of("$1,234.50", false);
    assertThat(dollars.before()).isEqualTo("$");
    assertThat(dollars.behind()).isEmpty();
    assertThat(dollars.places()).isEqualTo(2);
    assertThat(dollars.grouped()).isTrue();
    assertThat(dollars.percent()).isFalse();
    NumberForm share = NumberForm.of("12,5 %", false);
    assertThat(share.behind()).isEqualTo(" %");
    assertThat(share.places()).isEqualTo(1);
    assertThat(share.grouped()).isFalse();
    assertThat(share.percent()).isTrue();
    assertThat(NumberForm.of("%12", true).percent()).isTrue();
    assertThat(NumberForm.of("1 234 567", true).places()).isZero();
  }

  private static Table formed(MemoryTable table) {
    return FormedTable.of(
        table,
        TableOptions.builder()
            .types(
                java.util.Map.of(
                    "amount", new ColumnType(ColumnType.Kind.NUMBER, List.of("1.234,56"))))
            .build());
  }

  /** The same as of a table that writes them plainly, for any number of workers and batches. */
  @Test
  void areNumbersAsAllOthersAre() {
    Random random = new Random(4);
    List<String> rows = new ArrayList<>();
    List<String> plain = new ArrayList<>();
    for (int i = 0; i < 6_000; i++) {
      long cents = random.nextInt(2_000_000_000) - 1_000_000_000L;
      String whole = Long.toString(Math.abs(cents) / 100);
      StringBuilder grouped = new StringBuilder(whole);
      for (int at = whole.length() - 3; at > 0; at -= 3) {
        grouped.insert(at, '.');
      }
      String places = String.format("%02d", Math.abs(cents) % 100);
      String sign = cents < 0 ? "-" : "";
      boolean blank = i % 11 == 0;
      rows.add(i + ";" + (blank ? "" : sign + grouped + "," + places) + ";x");
      plain.add(i + ";" + (blank ? "" : sign + whole + "." + places) + ";x");
    }
    for (int workers = 1; workers <= 3; workers++) {
      assertThat(doubled(formed(table(rows)), workers))
          .isEqualTo(doubled(table(plain).typed("amount", ColumnType.Kind.NUMBER), workers));
    }
  }

  private static MemoryTable table(List<String> rows) {
    return new MemoryTable(
        "t",
        List.of("no", "amount", "y"),
        rows.stream()
            .map(
                row ->
                    java.util.Arrays.stream(row.split(";", -1))
                        .map(cell -> cell.isEmpty() ? null : cell)
                        .toArray(String[]::new))
            .toList(),
        700);
  }

  private static List<String> doubled(Table table, int workers) {
    ListSink sink = new ListSink();
    Enrichment.of(table)
        .step(new Compute("twice", "amount * 2", Evaluation.STRICT))
        .workers(workers)
        .build()
        .writeTo(sink);
    List<String> all = new ArrayList<>();
    for (String column : List.of("no", "amount", "y", "twice")) {
      all.addAll(sink.column(column));
    }
    return all;
  }
}
