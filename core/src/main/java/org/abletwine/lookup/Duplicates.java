package org.abletwine.lookup;

import org.jspecify.annotations.Nullable;

/**
 * What a reference does with several rows of one key, before any lookup looks. What is left out is
 * an exception with its row number.
 *
 * @param rule the rule
 * @param column the column that decides, for {@link Rule#NEWEST_BY}; else null
 */
public record Duplicates(Rule rule, @Nullable String column) {
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

  /** Returns the default: all rows stay. */
  public static Duplicates keep() {
    return new Duplicates(Rule.KEEP, null);
  }

  /**
   * Returns the rule of that name, for rules that need no column.
   *
   * @param rule any but {@link Rule#NEWEST_BY}
   */
  public static Duplicates of(Rule rule) {
    return new Duplicates(rule, null);
  }

  /**
   * Returns the rule that keeps the newest row.
   *
   * @param column compared as numbers when all its values are, else as text, which suits ISO 8601
   *     dates
   */
  public static Duplicates newestBy(String column) {
    return new Duplicates(Rule.NEWEST_BY, column);
  }

  @Override
  public String toString() {
    String name = rule.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
    return column == null ? name : name + ": " + column;
  }
}
