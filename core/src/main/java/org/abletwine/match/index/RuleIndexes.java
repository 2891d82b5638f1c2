package org.abletwine.match.index;

import java.util.BitSet;
import java.util.List;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.MatchRule;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.text.ValueOrder;
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
   * @param folded whether normalising ignores case, which patterns must know of
   * @param declared what the column holds, when that is stated
   * @param place the reference and column, for messages
   * @param number the rows' numbers in the file, for messages
   * @param steps what makes of an item of a list what is compared
   * @return the index
   * @throws DataException when a value of the reference cannot be ordered, a band runs backwards,
   *     or a pattern does not compile
   */
  public static RuleIndex build(
      RuleRows rows,
      MatchRule rule,
      boolean folded,
      @Nullable ColumnType declared,
      String place,
      RowNumber number,
      List<NormaliseStep> steps) {
    if (rule.kind().ordered()) {
      Domain domain = Domains.of(rows, rule, declared, place, number);
      return new SegmentBuilder(rows, rule, domain, place, number).build();
    }
    if (rule.kind() == MatchRule.Kind.LISTED) {
      return new ListedIndex(rows, rule.separator(), steps);
    }
    return rule.kind() == MatchRule.Kind.SIMILAR || rule.own() != null || rule.oursIsPattern()
        ? new TextSearch(rows, rule, folded)
        : new PatternIndex(rows, rule, folded, place, number);
  }

  /**
   * Rows from which no index can be built: values that cannot be ordered, bands that run backwards,
   * patterns that do not compile.
   *
   * @param rows the rows
   * @param rule the rule; not equality
   * @param declared what the column holds, when that is stated
   * @return their numbers in the store
   */
  public static BitSet unusable(RuleRows rows, MatchRule rule, @Nullable ColumnType declared) {
    BitSet unusable = new BitSet();
    ColumnType type = declared == null ? Domains.found(rows) : declared;
    boolean noOrder =
        (rule.kind() == MatchRule.Kind.NEAREST || rule.within() != null)
            && (type.kind() == ColumnType.Kind.TEXT || type.kind() == ColumnType.Kind.BOOLEAN);
    ValueOrder order = ValueOrder.of(type);
    for (int row = 0; row < rows.rows(); row++) {
      String low = rows.value(row, 0);
      String high = rows.value(row, rows.width() - 1);
      boolean usable =
          rule.kind().ordered()
              ? !noOrder && inOrder(order, low, high)
              : rule.kind() != MatchRule.Kind.REGEX
                  || rule.oursIsPattern()
                  || Patterns.of(rule.kind(), String.valueOf(low), false) != null;
      unusable.set(rows.number(row), !usable);
    }
    return unusable;
  }

  /**
   * Rows whose values cannot be ordered because they cannot be read.
   *
   * @param rows the rows
   * @param rule the rule; not equality
   * @param declared what the column holds, when that is stated
   * @return their numbers in the store
   */
  public static BitSet unreadable(RuleRows rows, MatchRule rule, @Nullable ColumnType declared) {
    BitSet unreadable = new BitSet();
    if (rule.kind().ordered()) {
      ValueOrder order = ValueOrder.of(declared == null ? Domains.found(rows) : declared);
      for (int row = 0; row < rows.rows(); row++) {
        for (int v = 0; v < rows.width(); v++) {
          String value = rows.value(row, v);
          if (value != null && !order.fits(value)) {
            unreadable.set(rows.number(row));
          }
        }
      }
    }
    return unreadable;
  }

  private static boolean inOrder(ValueOrder order, @Nullable String low, @Nullable String high) {
    if (low != null && !order.fits(low) || high != null && !order.fits(high)) {
      return false;
    }
    return low == null || high == null || order.compare(low, high) <= 0;
  }
}
