package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Likeness by letters, against the figures of the literature and against a library. */
class JaroWinklerTest {
  @ParameterizedTest
  @CsvSource({"MARTHA, MARHTA, 0.961", "DIXON, DICKSONX, 0.813", "DWAYNE, DUANE, 0.840", "a, b, 0"})
  void knownPairs(String one, String other, double likeness) {
    assertThat(JaroWinkler.similarity(one, other))
        .isCloseTo(likeness, org.assertj.core.data.Offset.offset(0.0005));
  }

  @Test
  void isWhatTheLibrarySays() {
    JaroWinklerSimilarity library = new JaroWinklerSimilarity();
    Random random = new Random(7);
    for (int i = 0; i < 200_000; i++) {
      String one = text(random);
      String other = random.nextInt(3) == 0 ? changed(one, random) : text(random);
      assertThat(JaroWinkler.similarity(one, other))
          .as("%s and %s", one, other)
          .isEqualTo(library.apply(one, other));
    }
  }

  private static String text(Random random) {
    StringBuilder text = new StringBuilder();
    for (int length = random.nextInt(9); length > 0; length--) {
      text.append((char) ('a' + random.nextInt(5)));
    }
    return text.toString();
  }

  private static String changed(String text, Random random) {
    StringBuilder changed = new StringBuilder(text);
    changed.insert(random.nextInt(text.length() + 1), (char) ('a' + random.nextInt(5)));
    return changed.reverse().reverse().toString();
  }
}
