package org.abletwine.match;

import java.io.Serializable;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.ServiceLoader;
import org.abletwine.table.text.ByOwnName;
import org.jspecify.annotations.Nullable;

/**
 * How a key part matches. Immutable.
 *
 * @param kind the rule
 * @param within for {@link Kind#NEAREST}, {@link Kind#AT_OR_BELOW} and {@link Kind#AT_OR_ABOVE},
 *     the farthest that still counts, in the unit of the numbers or in days; null for any distance
 * @param ends for {@link Kind#BETWEEN}, which ends belong to the band
 * @param oursIsPattern for text rules, whether our column holds the pattern and theirs the text
 * @param atLeast for {@link Kind#SIMILAR}, the least similarity, 0 to 1
 * @param by for {@link Kind#SIMILAR}, what is compared
 * @param separator for {@link Kind#LISTED}, what stands between two items of a list, not empty
 * @param own for {@link Kind#OWN}, the rule; else null
 */
public record MatchRule(
    Kind kind,
    @Nullable BigDecimal within,
    Ends ends,
    boolean oursIsPattern,
    double atLeast,
    By by,
    String separator,
    @Nullable OwnRule own)
    implements Serializable {
  private static final double USUAL_SIMILARITY = 0.9;
  private static final double USUAL_LIKENESS = 0.8;

  /** What stands between two items of a list, unless stated. */
  public static final String USUAL_SEPARATOR = ",";

  /** The rules. */
  public enum Kind {
    /** Equal, once normalised. */
    EQUAL,
    /** The greatest of theirs that is not above ours. */
    AT_OR_BELOW,
    /** The least of theirs that is not below ours. */
    AT_OR_ABOVE,
    /** The one of theirs with the least distance from ours. */
    NEAREST,
    /** Ours lies in the band from one column of theirs to another. */
    BETWEEN,
    /** The text starts with the pattern. */
    STARTS_WITH,
    /** The text has the pattern somewhere in it. */
    CONTAINS,
    /** The whole text fits a pattern in which * is any run and ? any one character. */
    WILDCARD,
    /** A regular expression is found somewhere in the text; linear time (re2j). */
    REGEX,
    /** Ours is an item of the list that theirs is. */
    LISTED,
    /** Theirs is the most similar to ours, and similar enough. */
    SIMILAR,
    /** As a {@linkplain OwnRule rule of one's own} says. */
    OWN;

    /** {@return the rule as a plan writes it} */
    public String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** {@return whether the rule orders values, as numbers, dates or text} */
    public boolean ordered() {
      return this == AT_OR_BELOW || this == AT_OR_ABOVE || this == NEAREST || this == BETWEEN;
    }

    /** {@return whether what fits may be too far away to count} */
    public boolean distant() {
      return this == AT_OR_BELOW || this == AT_OR_ABOVE || this == NEAREST;
    }

    /** {@return whether one side is a pattern and the other a text} */
    public boolean pattern() {
      return this == STARTS_WITH || this == CONTAINS || this == WILDCARD || this == REGEX;
    }

    /** {@return all rules but those of one's own, as a plan writes them} */
    public static List<String> words() {
      return Arrays.stream(values()).filter(kind -> kind != OWN).map(Kind::word).toList();
    }
  }

  /** What similar texts are compared by. */
  public enum By {
    /** Their letters as written, by Jaro-Winkler. */
    LETTERS,
    /** Their words, as near misses are: without case, accents and punctuation, by their rarity. */
    WORDS;

    /** {@return the least similarity where none is stated} */
    public double usualAtLeast() {
      return this == WORDS ? USUAL_LIKENESS : USUAL_SIMILARITY;
    }
  }

  /** Which ends of a band belong to it. */
  public enum Ends {
    /** The lower end does, the upper one does not: bands that follow each other never overlap. */
    LOWER,
    /** Both do. */
    BOTH,
    /** The upper end does, the lower one does not. */
    UPPER,
    /** Neither does. */
    NEITHER;

    /** {@return whether the lower end belongs to the band} */
    public boolean lowerIn() {
      return this == LOWER || this == BOTH;
    }

    /** {@return whether the upper end does} */
    public boolean upperIn() {
      return this == UPPER || this == BOTH;
    }
  }

  /** Refuses a separator that parts nothing. */
  public MatchRule {
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(ends, "ends");
    Objects.requireNonNull(by, "by");
    Objects.requireNonNull(separator, "separator");
    if (separator.isEmpty()) {
      throw new IllegalArgumentException("the separator of a list is empty");
    }
    if ((kind == Kind.OWN) != (own != null)) {
      throw new IllegalArgumentException(
          "a rule of one's own is stated for that kind, and no other");
    }
  }

  /**
   * A rule that compares similar texts by their letters.
   *
   * @param kind the kind of rule
   * @param within how far away a value may be, in days or in units; null for any distance
   * @param ends which ends of a band belong to it
   * @param oursIsPattern whether the transactions hold the pattern
   * @param atLeast the least likeness, from 0 to 1
   */
  public MatchRule(
      Kind kind, @Nullable BigDecimal within, Ends ends, boolean oursIsPattern, double atLeast) {
    this(kind, within, ends, oursIsPattern, atLeast, By.LETTERS, USUAL_SEPARATOR, null);
  }

  /** Equality. */
  public static final MatchRule EQUAL = of(Kind.EQUAL);

  /**
   * {@return a rule with its defaults: any distance, lower end in, theirs is the pattern,
   * similarity at least 0.9}
   *
   * @param kind the rule
   */
  public static MatchRule of(Kind kind) {
    return new MatchRule(kind, null, Ends.LOWER, false, USUAL_SIMILARITY);
  }

  /**
   * {@return a rule of one's own}
   *
   * @param rule the rule
   */
  public static MatchRule own(OwnRule rule) {
    Objects.requireNonNull(rule, "rule");
    return new MatchRule(
        Kind.OWN, null, Ends.LOWER, false, USUAL_SIMILARITY, By.LETTERS, USUAL_SEPARATOR, rule);
  }

  /**
   * {@return the rule of that name that a library brings, found by {@link ServiceLoader}}
   *
   * @param name its name, with a colon
   * @throws org.abletwine.table.SettingException when no library here has it
   */
  public static MatchRule named(String name) {
    Objects.requireNonNull(name, "name");
    return own(
        ByOwnName.find(ServiceLoader.load(OwnRule.class), OwnRule::name, name, "match", "rule"));
  }

  /** {@return the rule as a plan names it} */
  public String word() {
    return own == null ? kind.word() : own.name();
  }

  @Override
  public String toString() {
    return word()
        + (within == null ? "" : " within " + within.toPlainString())
        + (kind == Kind.BETWEEN && ends != Ends.LOWER
            ? " ends " + ends.name().toLowerCase(Locale.ROOT)
            : "")
        + (oursIsPattern ? " pattern ours" : "")
        + (kind == Kind.LISTED && !separator.equals(USUAL_SEPARATOR)
            ? " separator \"" + separator + "\""
            : "")
        + (kind == Kind.SIMILAR
            ? (by == By.WORDS ? " by words" : "") + " at least " + atLeast
            : "");
  }
}
