package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import java.util.regex.Pattern;
import org.abletwine.MemoryTable;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.MatchRule;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
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

  /** A piece of a regular expression, and texts that fit it. */
  private record Piece(String regex, String... texts) {}

  private static final List<Piece> PIECES =
      List.of(
          new Piece("oats", "oats"),
          new Piece("a", "a"),
          new Piece("[[:alpha:]]", "a", "Z"),
          new Piece("[[:digit:]]+", "7", "42"),
          new Piece("[^[:space:]]", "x", "]"),
          new Piece("[^]x]", "a", "["),
          new Piece("[]x]", "]", "x"),
          new Piece("[a\\]b]", "]", "b"),
          new Piece("\\101", "A"),
          new Piece("\\x42", "B"),
          new Piece("\\x{43}", "C"),
          new Piece("\\d", "5"),
          new Piece("\\D", "z"),
          new Piece("\\w\\W", "q-"),
          new Piece("\\pL", "é"),
          new Piece("\\p{Lu}", "É"),
          new Piece(".", "?", "ж"),
          new Piece("(ab)", "ab"),
          new Piece("(a|bc)", "a", "bc"),
          new Piece("(?:xy)+", "xy", "xyxy"),
          new Piece("k*", "", "kk"),
          new Piece("k+", "k", "kkk"),
          new Piece("k?", "", "k"),
          new Piece("k{2}", "kk"),
          new Piece("k{0,2}m", "m", "km"),
          new Piece("\\Qa+b\\E", "a+b"),
          new Piece("\\.\\*", ".*"),
          new Piece("([[:upper:]]b)?", "", "Ab"),
          new Piece("(\\Q)\\E|x)", ")", "x"));

  /**
   * Texts made from the pattern fit it, so the filter by literals must let each of them through.
   */
  @Tag("oracle")
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void textsMadeFromAPatternFitIt(long seed) {
    Random random = new Random(seed);
    for (int i = 0; i < 500; i++) {
      StringBuilder regex = new StringBuilder();
      StringBuilder text = new StringBuilder("ab".substring(random.nextInt(3)));
      for (int n = 1 + random.nextInt(5); n > 0; n--) {
        Piece piece = PIECES.get(random.nextInt(PIECES.size()));
        regex.append(piece.regex());
        text.append(piece.texts()[random.nextInt(piece.texts().length)]);
      }
      text.append("ba".substring(random.nextInt(3)));
      String pattern = random.nextInt(8) == 0 ? regex + "|never" : regex.toString();
      Patterns patterns = of(MatchRule.Kind.REGEX, pattern);
      assertThat(patterns.fits(text.toString())).as("%s in %s", pattern, text).isTrue();
      assertThat(text.toString()).as(pattern).contains(patterns.literal());
      if (text.length() > 0) { // empty text is a blank key
        assertThat(found(MatchRule.Kind.REGEX, pattern, text.toString(), "none"))
            .as("%s in %s by the index", pattern, text)
            .isEqualTo(pattern);
      }
    }
  }

  private static @Nullable String found(
      MatchRule.Kind kind, String pattern, String text, String... steps) {
    Lookup lookup =
        Lookup.in(
                new MemoryTable(
                    "patterns", List.of("p"), List.<String[]>of(new String[] {pattern}), 3))
            .normalise(Normalise.parse(List.of(steps)))
            .key(KeyPart.matching("t", kind, "p"))
            .bring("p");
    return lookup.load().find(text).get("p");
  }

  /** What normalising does to a text it must not do to the signs of a pattern. */
  @ParameterizedTest
  @CsvSource({
    "REGEX, '\\D+', ABC, true, trim ignore-case",
    "REGEX, '^\\D+$', 123, false, trim ignore-case",
    "REGEX, ' ^load:\\S+ ', 'LOAD:x', true, trim ignore-case",
    "REGEX, 'Bad[A-C]', 'badb', true, trim ignore-case",
    "REGEX, 'caf\u00c9$', 'Caf\u00e9', true, trim ignore-case",
    "REGEX, 'stra\u00dfe+', 'STRASSEE', true, trim ignore-case",
    "REGEX, 'r\u00e9d', 'red', true, trim ignore-accents",
    "REGEX, 'r[\u00e9x]d', 'r\u00ead', true, trim ignore-accents",
    "REGEX, 'a\\ ', 'xa ', false, trim",
    "REGEX, 'a\\ ', 'a b', true, trim",
    "WILDCARD, '*-end*', 'x-END y', true, trim ignore-case",
    "WILDCARD, '*-*', 'ab', true, trim ignore-punctuation",
    "WILDCARD, 'a?c', 'a-c', false, trim ignore-punctuation",
    "WILDCARD, 'a??c', 'axyc', true, trim ignore-punctuation",
    "WILDCARD, '*a  b?', 'xa b1', true, trim collapse-spaces",
    "WILDCARD, 'n*4', 'no. 5 of 4', true, trim digits-only",
    "STARTS_WITH, ' OATS', 'oats, wet', true, trim ignore-case",
    "CONTAINS, 'B-C', 'abcd', true, trim ignore-case ignore-punctuation"
  })
  void normalisingKeepsWhatAPatternMeans(
      MatchRule.Kind kind, String pattern, String text, boolean fits, String steps) {
    assertThat(found(kind, pattern, text, steps.split(" ")) != null).isEqualTo(fits);
  }

  @ParameterizedTest
  @CsvSource({
    "REGEX, drop-leading-zeros",
    "REGEX, ignore-punctuation",
    "REGEX, collapse-spaces",
    "WILDCARD, first=3",
    "WILDCARD, as-number"
  })
  void stepsThatWouldChangeAPatternAreRefused(MatchRule.Kind kind, String step) {
    assertThatThrownBy(() -> found(kind, "a", "a", "trim", step))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("without changing what it means");
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
