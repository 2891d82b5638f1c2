package org.abletwine.lookup;

import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.MatchRule;
import org.abletwine.match.OwnRule;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/**
 * One part of a key.
 *
 * @param ours the column of the transactions, or one an earlier step added
 * @param theirs the column of the reference; the lower end of a band
 * @param theirsTo the column with the upper end of a band; null for every other rule
 * @param normalise steps for this part alone, or null to use the lookup's
 * @param match how the two match
 */
public record KeyPart(
    String ours,
    String theirs,
    @Nullable String theirsTo,
    @Nullable List<NormaliseStep> normalise,
    MatchRule match) {
  /** The name of a rule of others, which has a colon, between two names. */
  private static final Pattern OF_OTHERS = Pattern.compile(" ([a-z][\\w-]*:[\\w:-]+) ");

  /** Copies the list. */
  public KeyPart {
    Objects.requireNonNull(ours, "ours");
    Objects.requireNonNull(theirs, "theirs");
    Objects.requireNonNull(match, "match");
    normalise = normalise == null ? null : List.copyOf(normalise);
  }

  /**
   * A part that matches when both sides are equal.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @param normalise steps for this part alone, or null to use the lookup's
   */
  public KeyPart(String ours, String theirs, @Nullable List<NormaliseStep> normalise) {
    this(ours, theirs, null, normalise, MatchRule.EQUAL);
  }

  /**
   * A part that matches when ours lies in a band of theirs; the lower end belongs to it.
   *
   * @param ours the column of the transactions
   * @param from the column with the lower end; null there is open
   * @param to the column with the upper end; null there is open
   * @return the key part
   */
  public static KeyPart between(String ours, String from, String to) {
    Objects.requireNonNull(to, "to");
    return new KeyPart(ours, from, to, null, MatchRule.of(MatchRule.Kind.BETWEEN));
  }

  /**
   * A part that takes the greatest of theirs that is not above ours: what is in force on a day.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart atOrBelow(String ours, String theirs) {
    return matching(ours, MatchRule.Kind.AT_OR_BELOW, theirs);
  }

  /**
   * A part that takes the least of theirs that is not below ours.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart atOrAbove(String ours, String theirs) {
    return matching(ours, MatchRule.Kind.AT_OR_ABOVE, theirs);
  }

  /**
   * A part that takes the one of theirs with the least distance from ours.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart nearest(String ours, String theirs) {
    return matching(ours, MatchRule.Kind.NEAREST, theirs);
  }

  /**
   * A part that matches when ours starts with theirs.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart startsWith(String ours, String theirs) {
    return matching(ours, MatchRule.Kind.STARTS_WITH, theirs);
  }

  /**
   * A part that matches when theirs stands somewhere in ours.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart contains(String ours, String theirs) {
    return matching(ours, MatchRule.Kind.CONTAINS, theirs);
  }

  /**
   * A part that matches when ours fits the pattern that theirs is, in which {@code *} is any run
   * and {@code ?} any one character.
   *
   * @param ours the column of the transactions
   * @param pattern the column of the reference
   * @return the key part
   */
  public static KeyPart wildcard(String ours, String pattern) {
    return matching(ours, MatchRule.Kind.WILDCARD, pattern);
  }

  /**
   * A part that matches when the regular expression that theirs is is found somewhere in ours.
   *
   * @param ours the column of the transactions
   * @param pattern the column of the reference
   * @return the key part
   */
  public static KeyPart regex(String ours, String pattern) {
    return matching(ours, MatchRule.Kind.REGEX, pattern);
  }

  /**
   * A part that matches when ours is an item of the list, parted by commas, that theirs is.
   *
   * @param ours the column of the transactions
   * @param list the column of the reference
   * @return the key part
   */
  public static KeyPart listed(String ours, String list) {
    return matching(ours, MatchRule.Kind.LISTED, list);
  }

  /**
   * A part that takes the one of theirs that is most similar to ours, by its letters.
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   * @param atLeast how similar it must be, 0 to 1; 0.9 is usual
   * @return the key part
   */
  public static KeyPart similar(String ours, String theirs, double atLeast) {
    return new KeyPart(
        ours,
        theirs,
        null,
        null,
        new MatchRule(MatchRule.Kind.SIMILAR, null, MatchRule.Ends.LOWER, false, atLeast));
  }

  /**
   * {@return the same part, with steps of its own in place of the lookup's}
   *
   * @param steps what both sides go through before they are compared
   */
  public KeyPart normalised(NormaliseStep... steps) {
    Objects.requireNonNull(steps, "steps");
    return new KeyPart(ours, theirs, theirsTo, List.of(steps), match);
  }

  /**
   * {@return the same part for what is not too far away: of {@code atOrBelow}, {@code atOrAbove}
   * and {@code nearest}}
   *
   * @param distance the farthest that still counts, in the unit of the numbers or in days
   * @throws IllegalArgumentException for other rules
   */
  public KeyPart within(BigDecimal distance) {
    Objects.requireNonNull(distance, "distance");
    if (!match.kind().distant()) {
      throw new IllegalArgumentException(this + " has no distance");
    }
    return new KeyPart(
        ours,
        theirs,
        theirsTo,
        normalise,
        new MatchRule(
            match.kind(), distance, match.ends(), match.oursIsPattern(), match.atLeast()));
  }

  /**
   * {@return the same part for what is at most so many days or units away}
   *
   * @param distance how far away it may be, in days or in units; 0 or more
   */
  public KeyPart within(long distance) {
    return within(BigDecimal.valueOf(distance));
  }

  /**
   * A part that matches by a rule of one's own.
   *
   * @param ours the column of the transactions
   * @param rule the rule
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart fitting(String ours, OwnRule rule, String theirs) {
    Objects.requireNonNull(ours, "ours");
    Objects.requireNonNull(theirs, "theirs");
    return new KeyPart(ours, theirs, null, null, MatchRule.own(rule));
  }

  /**
   * A part that matches by a rule with its defaults.
   *
   * @param ours the column of the transactions
   * @param rule any but {@code between}
   * @param theirs the column of the reference
   * @return the key part
   */
  public static KeyPart matching(String ours, MatchRule.Kind rule, String theirs) {
    Objects.requireNonNull(ours, "ours");
    Objects.requireNonNull(rule, "rule");
    Objects.requireNonNull(theirs, "theirs");
    return new KeyPart(ours, theirs, null, null, MatchRule.of(rule));
  }

  /**
   * Reads {@code ours = theirs}, one name for both, or {@code ours RULE theirs} such as {@code day
   * at-or-below effective_from} or {@code pct between from_pct and to_pct}; a rule of a library of
   * others is named as in a plan, such as {@code code code:one-digit-off grower_no}. A name that is
   * not a plain word may stand in double quotes.
   *
   * @param text the part as a plan or option writes it
   * @return the key part
   * @throws org.abletwine.table.SettingException when it has neither form
   */
  public static KeyPart parse(String text) {
    Objects.requireNonNull(text, "text");
    String plain = outsideQuotes(text);
    for (String word : MatchRule.Kind.words()) {
      int at = plain.indexOf(" " + word + " ");
      MatchRule.Kind kind = MatchRule.Kind.valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_'));
      if (at > 0 && kind != MatchRule.Kind.EQUAL) {
        return ruled(text, at, kind);
      }
    }
    Matcher own = OF_OTHERS.matcher(plain);
    if (own.find()) {
      String ours = oneName(text.substring(0, own.start()));
      String theirs = oneName(text.substring(own.end()));
      return new KeyPart(ours, theirs, null, null, MatchRule.named(own.group(1)));
    }
    NameReader names = new NameReader(text, "key");
    String ours = names.name();
    if (names.atEnd()) {
      return new KeyPart(ours, ours, null);
    }
    names.word("=");
    String theirs = names.name();
    names.requireEnd();
    return new KeyPart(ours, theirs, null);
  }

  private static KeyPart ruled(String text, int at, MatchRule.Kind kind) {
    String ours = oneName(text.substring(0, at));
    String theirs = text.substring(at + kind.word().length() + 2);
    if (kind != MatchRule.Kind.BETWEEN) {
      return matching(ours, kind, oneName(theirs));
    }
    int and = outsideQuotes(theirs).indexOf(" and ");
    if (and < 0) {
      throw new SettingException("key: cannot read `" + text + "`: write OURS between FROM and TO");
    }
    return between(ours, oneName(theirs.substring(0, and)), oneName(theirs.substring(and + 5)));
  }

  /** The text with what stands in double quotes blotted out, so that words are found outside. */
  private static String outsideQuotes(String text) {
    StringBuilder plain = new StringBuilder();
    boolean quoted = false;
    for (char c : text.toCharArray()) {
      quoted ^= c == '"';
      plain.append(quoted ? '_' : c);
    }
    return plain.toString();
  }

  private static String oneName(String text) {
    NameReader names = new NameReader(text, "key");
    String name = names.name();
    names.requireEnd();
    return name;
  }

  /** {@return whether both sides must be equal} */
  public boolean equal() {
    return match.kind() == MatchRule.Kind.EQUAL;
  }

  @Override
  public String toString() {
    if (!equal()) {
      return ours
          + " "
          + match.word()
          + " "
          + theirs
          + (theirsTo == null ? "" : " and " + theirsTo);
    }
    return ours.equals(theirs) ? ours : ours + " = " + theirs;
  }
}
