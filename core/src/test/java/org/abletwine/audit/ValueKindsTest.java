package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.MemoryTable;
import org.abletwine.audit.TableProfile.Column.Spoiled;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What columns hold, as a plan states it, and what spoils it. */
class ValueKindsTest {
  private static TableProfile.Column profile(List<String> values) {
    return TableProfile.of(MemoryTable.of("t", "x", values.toArray(String[]::new)))
        .columns()
        .get(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "-",
      value = {
        "1;2;-3|whole number|integer",
        "1;2.5;+3|decimal|decimal",
        "001;2|code|-",
        "0;10|whole number|integer",
        "2026-08-01;2024-02-29|date|date",
        "2026-08-01;2026-02-29|text|-",
        "2026-08-01;2026-13-01|text|-",
        "2026-08-01;2026-08-01T14:30|date and time|date-time",
        "2026-08-01 14:30:00;2026-08-01T14:30:00.25|date and time|date-time",
        "2026-08-01T14:3|text|-",
        "2026-08-01T14:30:00.|text|-",
        "2026-08-01 at noon|text|-",
        "1;2026-08-01|text|-",
        "1.2.3|text|-",
        "-|empty|-",
        "+|text|-"
      })
  void allValuesTogetherAreOfAType(String values, String type, String stated) {
    List<String> rows = values == null ? List.of("") : List.of(values.split(";"));
    assertThat(profile(rows).type()).isEqualTo(type);
    assertThat(profile(rows).stated()).isEqualTo(stated);
  }

  @Test
  void aFewOthersSpoilIt() {
    List<String> days = new ArrayList<>();
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < 95; i++) {
      days.add("2026-08-1" + i % 10);
      numbers.add(i % 2 == 0 ? "" + i : i + ".5");
    }
    assertThat(profile(days).spoiled()).isNull();
    days.add(7, "7.5");
    numbers.add(50, "n/a");
    numbers.add(20, "2026-08-01");
    for (int i = 0; i < 4; i++) {
      days.add("undefined");
    }
    assertThat(profile(days).spoiled()).isEqualTo(new Spoiled("date", 5, "7.5", 8));
    assertThat(profile(days).type()).isEqualTo("text");
    assertThat(profile(numbers).spoiled()).isEqualTo(new Spoiled("decimal", 2, "2026-08-01", 21));
    days.add("x");
    assertThat(profile(days).spoiled()).as("more than one in twenty").isNull();
    numbers.add("007");
    assertThat(profile(numbers).spoiled()).as("codes are no numbers").isNull();
  }

  @Test
  void aLongExampleIsCutBetweenCharacters() {
    List<String> values = new ArrayList<>(java.util.Collections.nCopies(40, "1"));
    values.add("é".repeat(100));
    assertThat(profile(values).spoiled())
        .isEqualTo(new Spoiled("whole number", 1, "é".repeat(60), 41));
  }
}
