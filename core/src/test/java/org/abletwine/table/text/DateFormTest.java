package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DateFormTest {
  private static final List<String> PIECES =
      List.of(
          "d", "dd", "M", "MM", "MMM", "MMMM", "H", "HH", "m", "mm", "s", "ss", "yyyy", "uuuu",
          "yy", "u", "hh a", "EEE", ".", "-", "/", ":", " ", ", ", "'T'", "''", "'d'", "[HH]", "D",
          "SSS", "QQQ", "n");

  private static LocalDateTime drawn(Random random) {
    return LocalDate.of(1, 1, 1)
        .plusDays(random.nextInt(3_652_059))
        .atTime(random.nextInt(24), random.nextInt(60), random.nextInt(60));
  }

  /** Whatever a pattern is made of, it is written as the formatter of the runtime does. */
  @Test
  void everyPatternIsWrittenAsTheFormatterDoes() {
    Random random = new Random(3);
    int written = 0;
    for (int i = 0; i < 5_000; i++) {
      StringBuilder pattern = new StringBuilder();
      for (int pieces = 1 + random.nextInt(6); pieces > 0; pieces--) {
        pattern.append(PIECES.get(random.nextInt(PIECES.size())));
      }
      DateForm form;
      try {
        form = DateForm.of(pattern.toString());
      } catch (IllegalArgumentException e) {
        assertThatThrownBy(() -> DatePatterns.formatter(pattern.toString()))
            .isInstanceOf(IllegalArgumentException.class);
        continue;
      }
      LocalDateTime time = drawn(random);
      String expected = DatePatterns.formatter(pattern.toString()).format(time);
      assertThat(form.write(time)).as(pattern + " of " + time).isEqualTo(expected);
      written++;
    }
    assertThat(written).isGreaterThan(3_000);
  }

  @ParameterizedTest
  @ValueSource(strings = {"dd.MM.yyyy", "d/M/uuuu", "yyyy-MM-dd HH:mm:ss", "yyyyMMdd", "MMyyyy"})
  void patternsOfDigitsAreWrittenDigitByDigit(String pattern) {
    Random random = new Random(5);
    for (int i = 0; i < 300; i++) {
      LocalDateTime time = drawn(random);
      assertThat(DateForm.of(pattern).write(time))
          .isEqualTo(DatePatterns.formatter(pattern).format(time));
    }
  }

  @Test
  void whatATimeDoesNotHaveIsAFailure() {
    assertThatThrownBy(() -> DateForm.of("dd.MM.yyyy VV").write(LocalDateTime.MIN))
        .isInstanceOf(DateTimeException.class);
  }

  /** Ten characters are a day or nothing, as the runtime reads them. */
  @Test
  void tenCharactersAreReadAsTheRuntimeDoes() {
    DatePatterns iso = new DatePatterns(List.of());
    Random random = new Random(9);
    String marks = "0123456789-+T :";
    for (int i = 0; i < 20_000; i++) {
      StringBuilder text = new StringBuilder(drawn(random).toLocalDate().toString());
      for (int change = random.nextInt(3); change > 0; change--) {
        text.setCharAt(random.nextInt(10), marks.charAt(random.nextInt(marks.length())));
      }
      LocalDateTime expected;
      try {
        expected = LocalDate.parse(text).atStartOfDay();
      } catch (DateTimeException e) {
        expected = null;
      }
      boolean known = expected != null && expected.getYear() >= 1;
      assertThat(iso.read(text.toString())).as(text.toString()).isEqualTo(known ? expected : null);
    }
  }
}
