package org.abletwine.match;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Patterns alone: whether they fit, and the literal without which they cannot. */
class PatternsTest {
  private static Patterns of(MatchRule.Kind kind, String text) {
    Patterns patterns = Patterns.of(kind, text, false);
    assertThat(patterns).as(text).isNotNull();
    return patterns;
  }

  @ParameterizedTest
  @CsvSource({
    "a*c, abc, true",
    "a*c, ac, true",
    "a*c, abcd, false",
    "*, '', true",
    "'?', '', false",
    "a?c, a\uD83C\uDF3Ec, true",
    "*b*, abc, true",
    "a**c, abbc, true",
    "*ab*ab, abab, true",
    "*aab, aaab, true",
    "a.c, abc, false"
  })
  void aWildcardFitsTheWholeText(String pattern, String text, boolean fits) {
    assertThat(of(MatchRule.Kind.WILDCARD, pattern).fits(text)).isEqualTo(fits);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5})
  void wildcardsAgreeWithRegularExpressions(long seed) {
    Random random = new Random(seed);
    for (int i = 0; i < 3_000; i++) {
      String pattern = word(random, "ab*?", 6);
      String text = word(random, "ab", 7);
      String regex = pattern.replace("*", ".*").replace("?", ".");
      Patterns wildcard = of(MatchRule.Kind.WILDCARD, pattern);
      boolean fits = Pattern.matches(regex, text);
      assertThat(wildcard.fits(text)).as("%s in %s", pattern, text).isEqualTo(fits);
      if (fits) {
        assertThat(text).contains(wildcard.literal());
      }
    }
  }

  private static String word(Random random, String letters, int most) {
    StringBuilder word = new StringBuilder();
    for (int i = random.nextInt(most + 1); i > 0; i--) {
      word.append(letters.charAt(random.nextInt(letters.length())));
    }
    return word.toString();
  }

  /** What the filter by literals would lose, no later look could find again. */
  @ParameterizedTest
  @ValueSource(longs = {11, 12, 13, 14, 15, 16})
  void noTextThatFitsLacksTheRequiredLiteral(long seed) {
    Random random = new Random(seed);
    String[] pieces = {
      "a", "b", "ab", "a*", "b+", "a?", "[ab]", "[^a]b", "(ab)", "(a|b)", "(ab)*", "a{0,2}", ".",
      "\\.", "^", "$", "\\d", "a|b", "(?i)a", "\\x61", "[]a]", "\\(", "b{2}"
    };
    int fitting = 0;
    for (int i = 0; i < 4_000; i++) {
      StringBuilder regex = new StringBuilder();
      for (int n = 1 + random.nextInt(4); n > 0; n--) {
        regex.append(pieces[random.nextInt(pieces.length)]);
      }
      Patterns patterns = Patterns.of(MatchRule.Kind.REGEX, regex.toString(), false);
      if (patterns == null) {
        continue; // such as ^* : not a regular expression
      }
      String text = word(random, "abAB.1(", 8);
      if (patterns.fits(text)) {
        fitting++;
        assertThat(text).as("%s in %s", regex, text).contains(patterns.literal());
      }
    }
    assertThat(fitting).as("the test means something").isGreaterThan(500);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "damp|wet; ''",
        "needs drying; needs drying",
        "^load:[0-9]+$; load:",
        "ab*cd; cd",
        "a(bc)?def; def",
        "a\\.bc; a.bc",
        "(?i)damp; ''",
        "x\\Qa+\\E; ''",
        "a[bc]dd; dd"
      })
  void theRequiredLiteralIsTheLongestRun(String regex, String literal) {
    assertThat(of(MatchRule.Kind.REGEX, regex).literal()).isEqualTo(literal);
  }

  @Test
  void specificityCountsWhatIsLiteral() {
    assertThat(of(MatchRule.Kind.WILDCARD, "*da?mp*").specificity()).isEqualTo(4);
    assertThat(of(MatchRule.Kind.CONTAINS, "\uD83C\uDF3Ea").specificity()).isEqualTo(2);
    assertThat(of(MatchRule.Kind.STARTS_WITH, "ab").fits("abc")).isTrue();
    assertThat(of(MatchRule.Kind.STARTS_WITH, "ab").fits("cab")).isFalse();
    assertThat(Patterns.of(MatchRule.Kind.REGEX, "a(b", false)).as("does not compile").isNull();
  }
}
