package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Patterns with two signs, against one that tries every way. */
class TextPatternTest {
  private static final String[] LETTERS = {"a", "b", "a", "b", "\uD83C\uDF3E", "!"};
  private static final String[] SIGNS = {"a", "b", "a", "\uD83C\uDF3E", "%", "_", "%", "!%", "!!"};

  private static String some(Random random, String[] of, int most) {
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(most + 1); i > 0; i--) {
      text.append(of[random.nextInt(of.length)]);
    }
    return text.toString();
  }

  /** The pattern as a regular expression, which goes back as often as it has to. */
  private static Pattern regex(String pattern) {
    StringBuilder regex = new StringBuilder();
    int[] points = pattern.codePoints().toArray();
    for (int i = 0; i < points.length; i++) {
      switch (points[i]) {
        case '%' -> regex.append(".*");
        case '_' -> regex.append('.');
        case '!' -> regex.append(Pattern.quote(Character.toString(points[++i])));
        default -> regex.append(Pattern.quote(Character.toString(points[i])));
      }
    }
    return Pattern.compile(regex.toString(), Pattern.DOTALL);
  }

  @Test
  void fitsWhatTryingEveryWayFits() {
    Random random = new Random(5);
    int fits = 0;
    for (int i = 0; i < 60_000; i++) {
      String pattern = some(random, SIGNS, 9);
      String text = some(random, LETTERS, 9);
      boolean wanted = regex(pattern).matcher(text).matches();
      assertThat(TextPattern.of(pattern, '%', '_', '!').fits(text))
          .as("\"%s\" like \"%s\"", text, pattern)
          .isEqualTo(wanted);
      fits += wanted ? 1 : 0;
    }
    assertThat(fits).isGreaterThan(4_000);
  }

  /** Pieces that begin again within themselves, which is where going on after a mismatch errs. */
  @Test
  void findsPiecesThatOverlapThemselves() {
    Random random = new Random(6);
    String[] two = {"a", "b"};
    for (int i = 0; i < 40_000; i++) {
      String piece = some(random, two, 8);
      String text = some(random, two, 30);
      assertThat(TextPattern.of("%" + piece + "%", '%', '_', -1).fits(text))
          .as("%s in %s", piece, text)
          .isEqualTo(text.contains(piece));
    }
  }

  @Test
  void theEscapeCharacterStandsBeforeSignsAndItselfOnly() {
    assertThat(TextPattern.of("!%!_!!", '%', '_', '!').fits("%_!")).isTrue();
    assertThat(TextPattern.of("!", '%', '_', -1).fits("!")).as("without one").isTrue();
    for (String pattern : new String[] {"!", "a!", "!a", "!!!"}) {
      assertThatThrownBy(() -> TextPattern.of(pattern, '%', '_', '!'))
          .isInstanceOf(IllegalArgumentException.class)
          .hasMessageContaining("must stand before %, _ or itself");
    }
    assertThat(TextPattern.of("a%b%c", '%', '_', -1)).hasToString("TextPattern[3 pieces]");
  }
}
