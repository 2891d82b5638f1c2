package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

class DialectFinderTest {
  /** Every character looked at, in turn. */
  private static boolean plainly(String text, char delimiter) {
    int opened = 0;
    int closed = 0;
    for (int i = 0; i < text.length(); i++) {
      char before = i == 0 ? '\n' : text.charAt(i - 1);
      char after = i + 1 == text.length() ? '\n' : text.charAt(i + 1);
      boolean opens = before == delimiter || before == '\n';
      if (text.charAt(i) == '"' && opens) {
        return false;
      }
      if (text.charAt(i) == '\'') {
        opened += opens ? 1 : 0;
        closed += after == delimiter || after == '\n' || after == '\r' ? 1 : 0;
      }
    }
    return opened >= 2 && opened == closed;
  }

  @Test
  void singleQuotesAreFoundAsByLookingAtEachCharacter() {
    Random random = new Random(20261128);
    String characters = "''''\"a,\n\r";
    int found = 0;
    for (int round = 0; round < 200_000; round++) {
      StringBuilder text = new StringBuilder();
      for (int left = random.nextInt(14); left > 0; left--) {
        text.append(characters.charAt(random.nextInt(characters.length())));
      }
      boolean expected = plainly(text.toString(), ',');
      assertThat(DialectFinder.singleQuoted(text.toString(), ','))
          .as("%s", text)
          .isEqualTo(expected);
      found += expected ? 1 : 0;
    }
    assertThat(found).isGreaterThan(5_000);
  }
}
