package org.abletwine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Step;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How columns leave: dates by a pattern, numbers with so many places. */
class FormatColumnTest {
  private static final Evaluation LENIENT = new Evaluation(true, null);

  private final ListSink sink = new ListSink();

  private StepFigures.Formatted run(MemoryTable table, Step format) {
    return Enrichment.of(table)
        .step(format)
        .build()
        .writeTo(sink)
        .of(StepFigures.Formatted.class)
        .get(0);
  }

  @ParameterizedTest
  @CsvSource({
    "dd.MM.yyyy, 01.07.2026, 31.12.2025",
    "d MMM yyyy, 1 Jul 2026, 31 Dec 2025",
    "yyyyMMdd, 20260701, 20251231"
  })
  void datesLeaveByThePattern(String pattern, String first, String second) {
    MemoryTable table = MemoryTable.of("t", "day", "2026-07-01", "2025-12-31", "");
    run(table, new FormatColumn("day", pattern, 0, Evaluation.STRICT));
    assertThat(sink.column("day")).containsExactly(first, second, null);
  }

  @Test
  void datesOfAStatedPatternAreReadByIt() {
    MemoryTable table =
        MemoryTable.of("t", "day", "03/04/2026", "30/04/2026")
            .typed("day", ColumnType.Kind.DATE, "dd/MM/yyyy");
    run(table, new FormatColumn("day", "yyyy-MM-dd", 0, Evaluation.STRICT));
    assertThat(sink.column("day")).containsExactly("2026-04-03", "2026-04-30");
  }

  @Test
  void timesOfDayMayLeaveToo() {
    MemoryTable table = MemoryTable.of("t", "at", "2026-07-01T14:05", "2026-07-01");
    run(table, new FormatColumn("at", "dd.MM. HH:mm", 0, Evaluation.STRICT));
    assertThat(sink.column("at")).containsExactly("01.07. 14:05", "01.07. 00:00");
  }

  @ParameterizedTest
  @CsvSource({"0, 3, -2", "1, 2.5, -1.5", "2, 2.50, -1.50", "4, 2.5000, -1.5000"})
  void numbersAreRoundedHalfUpAndFilledUp(int places, String first, String second) {
    MemoryTable table = MemoryTable.of("t", "kg", "2.5", "-1.5", "");
    run(table, new FormatColumn("kg", null, places, Evaluation.STRICT));
    assertThat(sink.column("kg")).containsExactly(first, second, null);
  }

  @Test
  void whatIsNoDateEndsTheRunOrBecomesNullAndIsCounted() {
    MemoryTable table = MemoryTable.of("t", "day", "2026-07-01", "soon", "later");
    assertThatThrownBy(
            () -> run(table, new FormatColumn("day", "dd.MM.yyyy", 0, Evaluation.STRICT)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 2")
        .hasMessageContaining("\"soon\" cannot be written as dd.MM.yyyy, since it is not a date");
    ListSink lenient = new ListSink();
    StepFigures.Formatted figures =
        Enrichment.of(table)
            .step(new FormatColumn("day", "dd.MM.yyyy", 0, LENIENT))
            .build()
            .writeTo(lenient)
            .of(StepFigures.Formatted.class)
            .get(0);
    assertThat(lenient.column("day")).containsExactly("01.07.2026", null, null);
    assertThat(figures.errors()).isEqualTo(2);
    assertThat(figures.errorExample()).contains("row 2", "soon");
  }

  @Test
  void formsThatDoNotFitAreRefused() {
    MemoryTable table =
        MemoryTable.of("t", "kg,day", "1,2026-01-01")
            .typed("kg", ColumnType.Kind.NUMBER)
            .typed("day", ColumnType.Kind.DATE);
    for (List<Object> wrong :
        List.<List<Object>>of(
            List.of("kg", "dd.MM.yyyy", 0, "the column holds numbers; state decimals: N"),
            List.of("day", "bb", 0, "cannot read the pattern \"bb\""),
            List.of("kg", "", 19, "must be from 0 to 18"),
            List.of("day", "", 2, "is a date where a number is needed"),
            List.of("tons", "", 2, "has no column \"tons\""))) {
      @Nullable String pattern = wrong.get(1).equals("") ? null : (String) wrong.get(1);
      FormatColumn format =
          new FormatColumn((String) wrong.get(0), pattern, (int) wrong.get(2), Evaluation.STRICT);
      assertThatThrownBy(() -> run(table, format))
          .isInstanceOf(SettingException.class)
          .hasMessageContaining((String) wrong.get(3));
    }
  }
}
