package org.abletwine.match;

import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/** Builds the index that a rule needs. */
public final class RuleIndexes {
  private RuleIndexes() {}

  /** The number of a row in its file. */
  public interface RowNumber {
    /**
     * @param storeRow the row in the store, 0-based
     * @return its number in the file, 1-based
     */
    long of(int storeRow);
  }

  /**
   * Builds an index.
   *
   * @param rows the rows of the reference
   * @param rule the rule; not equality
   * @param declared what the column holds, when that is stated
   * @param place the reference and column, for messages
   * @param number the rows' numbers in the file, for messages
   * @return the index
   * @throws DataException when a value of the reference cannot be ordered, a band runs backwards,
   *     or a pattern does not compile
   */
  public static RuleIndex build(
      RuleRows rows,
      MatchRule rule,
      @Nullable ColumnType declared,
      String place,
      RowNumber number) {
    if (rule.kind().ordered()) {
      Domain domain = Domains.of(rows, rule, declared, place, number);
      return new SegmentBuilder(rows, rule, domain, place, number).build();
    }
    return rule.kind() == MatchRule.Kind.SIMILAR || rule.oursIsPattern()
        ? new TextSearch(rows, rule)
        : new PatternIndex(rows, rule, place, number);
  }
}
