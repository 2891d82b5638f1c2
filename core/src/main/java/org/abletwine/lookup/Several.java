package org.abletwine.lookup;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * What to do when a key fits several reference rows that do not agree on every attribute brought.
 * Rows that do agree always count as one.
 *
 * @param rule the rule
 * @param column the column that decides, for {@link Rule#NEWEST_BY}; else null
 */
public record Several(Rule rule, @Nullable String column) {
  /** Holds that nothing is missing. */
  public Several {
    Objects.requireNonNull(rule, "rule");
  }

  /** The rules. */
  public enum Rule {
    /** Bring nothing: the outcome is ambiguous. */
    FLAG,
    /** Take the first in file order, and count it. */
    FIRST,
    /** Take the last in file order, and count it. */
    LAST,
    /** Take the one with the greatest value in a column, and count it; the first of equals. */
    NEWEST_BY,
    /** Take the one with the longest pattern, the most specific; still ambiguous between equals. */
    LONGEST,
    /** Take all of them: the row comes out once for each. */
    EACH
  }

  /** {@return the default: bring nothing} */
  public static Several flag() {
    return new Several(Rule.FLAG, null);
  }

  /** {@return the rule that takes the first in file order} */
  public static Several first() {
    return new Several(Rule.FIRST, null);
  }

  /** {@return the rule that takes the last in file order} */
  public static Several last() {
    return new Several(Rule.LAST, null);
  }

  /** {@return the rule that takes the most specific pattern} */
  public static Several longest() {
    return new Several(Rule.LONGEST, null);
  }

  /** {@return the rule that takes all of them} */
  public static Several each() {
    return new Several(Rule.EACH, null);
  }

  /**
   * {@return the rule that takes the newest}
   *
   * @param column ordered by its declared type; without one, when all values are numbers, or all
   *     dates of ISO 8601, and else the run ends; null is older than any value
   */
  public static Several newestBy(String column) {
    return new Several(Rule.NEWEST_BY, Objects.requireNonNull(column, "column"));
  }

  /**
   * Reads a rule.
   *
   * @param text the rule as an option writes it, such as {@code first} or {@code newest-by=column}
   * @return the rule
   * @throws SettingException when there is no such rule
   */
  public static Several parse(String text) {
    Objects.requireNonNull(text, "text");
    String word = text.strip();
    String newest = NewestBy.column(word);
    if (newest != null) {
      return newestBy(newest);
    }
    for (Several known : List.of(flag(), first(), last(), longest(), each())) {
      if (known.toString().equals(word)) {
        return known;
      }
    }
    throw new SettingException(
        "several: no rule is called \""
            + word
            + "\"; "
            + NearestName.hint(
                word, List.of("flag", "first", "last", "longest", "each", NewestBy.FORM)));
  }

  @Override
  public String toString() {
    String name = rule.name().toLowerCase(Locale.ROOT).replace('_', '-');
    return column == null ? name : name + ": " + column;
  }
}
