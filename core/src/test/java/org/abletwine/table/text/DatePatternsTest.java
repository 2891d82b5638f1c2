package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DatePatternsTest {
  private static final DatePatterns ISO = new DatePatterns(List.of());

  private static @Nullable String read(DatePatterns patterns, String text) {
    byte[] bytes = Utf8.bytes(text);
    long day = patterns.day(bytes, 0, bytes.length);
    return day == DatePatterns.NONE ? null : LocalDate.ofEpochDay(day).toString();
  }

  @Test
  void everyDayOfFourCenturiesIsRead() {
    for (LocalDate day = LocalDate.of(1800, 1, 1); day.getYear() < 2200; day = day.plusDays(1)) {
      byte[] text = Utf8.bytes(day.toString());
      assertThat(DatePatterns.isoDay(text, 0)).isEqualTo(day.toEpochDay());
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "2026-02-29",
        "2026-13-01",
        "2026-00-10",
        "2026-01-00",
        "2026-01-32",
        "2026/01/01",
        "2026-1-1",
        "26-01-01",
        "20260101",
        "today",
        "",
        "2026-01-01x",
        "2026-01-0a"
      })
  void whatIsNoDayIsNone(String text) {
    assertThat(read(ISO, text)).isNull();
  }

  @ParameterizedTest
  @CsvSource({
    "2024-02-29, 2024-02-29",
    "' 2026-07-05 ', 2026-07-05",
    "2026-07-05T23:59:59, 2026-07-05",
    "2026-07-05 00:00, 2026-07-05"
  })
  void isoDatesAndTimesGiveTheirDay(String text, String day) {
    assertThat(read(ISO, text)).isEqualTo(day);
  }

  @ParameterizedTest
  @CsvSource({
    "dd.MM.yyyy, 05.07.2026, 2026-07-05",
    "d MMM yyyy, 5 jul 2026, 2026-07-05",
    "dd.MM.yyyy HH:mm, 05.07.2026 18:30, 2026-07-05",
    "dd.MM.yyyy, 31.02.2026, ",
    "dd.MM.yyyy, 5.7.2026, ",
    "dd.MM.yyyy, 2026-07-05, "
  })
  void patternsAreStrict(String pattern, String text, @Nullable String day) {
    assertThat(read(new DatePatterns(List.of(pattern)), text)).isEqualTo(day);
  }

  @Test
  void patternsAreTriedInTurn() {
    DatePatterns two = new DatePatterns(List.of("dd.MM.yyyy", "yyyyMMdd"));
    assertThat(read(two, "05.07.2026")).isEqualTo("2026-07-05");
    assertThat(read(two, "20260705")).isEqualTo("2026-07-05");
    assertThat(read(two, "2026-07-05")).as("ISO is not among them").isNull();
    assertThat(two).hasToString("dd.MM.yyyy | yyyyMMdd");
  }

  @Test
  void aWrongPatternIsRefusedWhenItIsStated() {
    assertThatThrownBy(() -> new DatePatterns(List.of("qq pp")))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void itSurvivesBeingSent() throws Exception {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ObjectOutputStream out = new ObjectOutputStream(bytes)) {
      out.writeObject(new DatePatterns(List.of("dd.MM.yyyy")));
    }
    try (ObjectInputStream in =
        new ObjectInputStream(new ByteArrayInputStream(bytes.toByteArray()))) {
      assertThat(read((DatePatterns) in.readObject(), "05.07.2026")).isEqualTo("2026-07-05");
    }
  }
}
