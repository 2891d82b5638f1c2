package org.abletwine.match.near;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Edits, against the recursion they are defined by. */
class EditsTest {
  private static int byDefinition(String one, String other) {
    if (one.isEmpty() || other.isEmpty()) {
      return one.length() + other.length();
    }
    String a = one.substring(1);
    String b = other.substring(1);
    int edits =
        Math.min(
            byDefinition(a, b) + (one.charAt(0) == other.charAt(0) ? 0 : 1),
            Math.min(byDefinition(a, other), byDefinition(one, b)) + 1);
    boolean swap =
        one.length() > 1
            && other.length() > 1
            && one.charAt(0) == other.charAt(1)
            && one.charAt(1) == other.charAt(0);
    return swap ? Math.min(edits, byDefinition(one.substring(2), other.substring(2)) + 1) : edits;
  }

  @Test
  void theyAreThoseOfTheDefinition() {
    Random random = new Random(2);
    for (int i = 0; i < 2_000; i++) {
      String one = word(random);
      String other = word(random);
      assertThat(Edits.between(one, other))
          .as(one + " " + other)
          .isEqualTo(byDefinition(one, other))
          .isEqualTo(Edits.between(other, one));
    }
  }

  private static String word(Random random) {
    StringBuilder word = new StringBuilder();
    for (int i = random.nextInt(7); i > 0; i--) {
      word.append((char) ('a' + random.nextInt(3)));
    }
    return word.toString();
  }

  @ParameterizedTest
  @CsvSource({"thistle, thistel, 1", "abc, cab, 2", "'', abc, 3", "same, same, 0"})
  void neighboursThatChangedPlacesAreOne(String one, String other, int edits) {
    assertThat(Edits.between(one, other)).isEqualTo(edits);
  }
}
