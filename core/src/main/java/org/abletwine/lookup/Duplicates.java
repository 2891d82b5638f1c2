package org.abletwine.lookup;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * What a reference does with several rows of one key, before any lookup looks. What is left out is
 * an exception with its row number.
 *
 * @param rule the rule
 * @param column the column that decides, for {@link Rule#NEWEST_BY}; else null
 */
public record Duplicates(Rule rule, @Nullable String column) {
  /** Holds that nothing is missing. */
  public Duplicates {
    Objects.requireNonNull(rule, "rule");
  }

  /** Which row of a key stays. */
  public enum Rule {
    /** All rows stay; the lookup's rule for several decides. The default. */
    KEEP,
    /** A key on several rows ends the run. */
    FAIL,
    /** The first in file order stays. */
    FIRST,
    /** The last in file order stays. */
    LAST,
    /** The one with the greatest value in a column stays; the first of equals. */
    NEWEST_BY,
    /** The one with the fewest nulls stays; the first of equals. */
    FULLEST,
    /** Rows alike in every column count as one; a key with any others ends the run. */
    IDENTICAL
  }

  /** {@return the default: all rows stay} */
  public static Duplicates keep() {
    return new Duplicates(Rule.KEEP, null);
  }

  /** {@return the rule by which a key on several rows ends the run} */
  public static Duplicates fail() {
    return new Duplicates(Rule.FAIL, null);
  }

  /** {@return the rule that keeps the first in file order} */
  public static Duplicates first() {
    return new Duplicates(Rule.FIRST, null);
  }

  /** {@return the rule that keeps the last in file order} */
  public static Duplicates last() {
    return new Duplicates(Rule.LAST, null);
  }

  /** {@return the rule that keeps the row with the fewest nulls} */
  public static Duplicates fullest() {
    return new Duplicates(Rule.FULLEST, null);
  }

  /** {@return the rule by which rows alike count as one, and any others of a key end the run} */
  public static Duplicates identical() {
    return new Duplicates(Rule.IDENTICAL, null);
  }

  /**
   * {@return the rule that keeps the newest row}
   *
   * @param column ordered by its declared type; without one, when all values are numbers, or all
   *     dates of ISO 8601, and else the run ends; null is older than any value
   */
  public static Duplicates newestBy(String column) {
    return new Duplicates(Rule.NEWEST_BY, Objects.requireNonNull(column, "column"));
  }

  /**
   * Reads a rule by which one row of a key stays.
   *
   * @param text the rule as an option writes it, such as {@code first} or {@code newest-by=column}
   * @return the rule
   * @throws SettingException when there is no such rule
   */
  public static Duplicates parse(String text) {
    Objects.requireNonNull(text, "text");
    String word = text.strip();
    String newest = NewestBy.column(word);
    if (newest != null) {
      return newestBy(newest);
    }
    for (Duplicates known : List.of(first(), last(), fullest(), identical())) {
      if (known.toString().equals(word)) {
        return known;
      }
    }
    List<String> words = List.of("first", "last", "fullest", "identical", NewestBy.FORM);
    throw new SettingException(
        "no rule is called \"" + word + "\"; " + NearestName.hint(word, words));
  }

  @Override
  public String toString() {
    String name = rule.name().toLowerCase(Locale.ROOT).replace('_', '-');
    return column == null ? name : name + ": " + column;
  }
}
