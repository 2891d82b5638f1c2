package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.function.Function;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What stands in a cell as a value of Java, and what is said when it is none. */
class CellValueTest {

  private static CellValue cell(@Nullable String text, ColumnType.Kind kind, String... patterns) {
    return new CellValue("growers", 3, "since", new ColumnType(kind, List.of(patterns)), text);
  }

  private static CellValue cell(@Nullable String text) {
    return new CellValue("growers", 3, "since", null, text);
  }

  @Test
  void nullIsNullWhateverItIsReadAs() {
    for (Function<CellValue, @Nullable Object> read :
        List.<Function<CellValue, @Nullable Object>>of(
            CellValue::decimal,
            CellValue::integer,
            CellValue::date,
            CellValue::dateTime,
            CellValue::truth)) {
      assertThat(read.apply(cell(null))).isNull();
      assertThatThrownBy(() -> read.apply(cell("x")))
          .isInstanceOf(DataException.class)
          .hasMessageStartingWith("growers, row 3, column \"since\": \"x\" is not ");
    }
  }

  @Test
  void numbers() {
    assertThat(cell(" 1.50 ").decimal()).isEqualTo(new BigDecimal("1.50"));
    assertThat(cell("7.0").integer()).isEqualTo(7);
    assertThat(cell("9223372036854775807").integer()).isEqualTo(Long.MAX_VALUE);
    assertThatThrownBy(() -> cell("9223372036854775808").integer())
        .hasMessageEndingWith("is not a whole number of up to 18 digits");
    assertThatThrownBy(() -> cell("7.5").integer()).hasMessageEndingWith("of up to 18 digits");
  }

  @Test
  void datesAreWrittenAsTheTypeSays() {
    LocalDate day = LocalDate.of(2026, 7, 3);
    assertThat(cell("2026-07-03").date()).isEqualTo(day);
    assertThat(cell(" 2026-07-03 ").dateTime()).isEqualTo(day.atStartOfDay());
    assertThat(cell("03.07.2026", ColumnType.Kind.DATE, "dd.MM.yyyy").date()).isEqualTo(day);
    assertThat(cell("03.07.2026 08", ColumnType.Kind.DATE_TIME, "dd.MM.yyyy HH").dateTime())
        .isEqualTo(LocalDateTime.of(2026, 7, 3, 8, 0));
    assertThatThrownBy(() -> cell("2026-07-03", ColumnType.Kind.DATE, "dd.MM.yyyy").date())
        .hasMessageEndingWith("is not a date");
    assertThat(cell("2026-07-03", ColumnType.Kind.NUMBER, "1.234,56").date())
        .as("an example of a number is no pattern of a date")
        .isEqualTo(day);
    assertThatThrownBy(() -> cell("2026-07-03T08:00").date())
        .hasMessageEndingWith("is not a date alone");
  }

  @Test
  void truthValues() {
    assertThat(cell(" True ").truth()).isTrue();
    assertThat(cell("FALSE").truth()).isFalse();
    assertThatThrownBy(() -> cell("yes").truth()).hasMessageEndingWith("is not true or false");
  }

  @Test
  void aFailureSaysWhere() {
    DataException e = cell("x").not("a pear");
    assertThat(e.table()).isEqualTo("growers");
    assertThat(e.row()).isEqualTo(3);
    assertThat(e.column()).isEqualTo("since");
    assertThat(new CellValue("t", 0, "c", null, "x").where()).isEqualTo("t, column \"c\"");
  }
}
