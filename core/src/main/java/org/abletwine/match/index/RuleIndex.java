package org.abletwine.match.index;

import java.io.Serializable;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowSets;
import org.abletwine.table.batch.CellVector;

/**
 * Finds the rows that fit a value by a rule, within a partition: the rows whose equal key parts are
 * the same. Immutable once built, but for sets found while looking; safe to share between threads.
 */
public sealed interface RuleIndex extends Serializable
    permits SegmentIndex, PatternIndex, ListedIndex, TextSearch {
  /** No row, and nothing more to say. */
  int ABSENT = HashIndex.ABSENT;

  /** No row: the value is below the lowest. */
  int BELOW = ABSENT + 1;

  /** No row: the value is above the highest. */
  int ABOVE = ABSENT + 2;

  /** No row: the value falls between two bands. */
  int GAP = ABSENT + 3;

  /** No row: what would fit is farther away than counts. */
  int FAR = ABSENT + 4;

  /** The value cannot be compared: it is no number, or no date. */
  int UNFIT = ABSENT + 5;

  /** The last of the results that mean no row. */
  int LAST_MISS = UNFIT;

  /**
   * Looks up values.
   *
   * @param partitions the partition of each row, or negative for none
   * @param values our values, normalised; null cells give {@link #ABSENT}
   * @param rows how many
   * @param found for each row: the place of the row that fits, the complement of a set's number
   *     when several do, or one of the misses
   */
  void probe(int[] partitions, CellVector values, int rows, int[] found);

  /** Returns the sets that {@link #probe} names. */
  RowSets sets();

  /**
   * How specific a row's pattern is.
   *
   * @param row a row of the store, 0-based
   * @return literal characters of its pattern; 0 for rules without patterns
   */
  default int specificity(int row) {
    return 0;
  }

  /**
   * Says in words how a value missed.
   *
   * @param partition its partition, not negative
   * @param value the value
   * @return such as {@code 0.5 below the lowest, 8.0}; empty when there is nothing to say
   */
  default String describeMiss(int partition, String value) {
    return "";
  }
}
