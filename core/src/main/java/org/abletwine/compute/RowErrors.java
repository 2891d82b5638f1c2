package org.abletwine.compute;

import java.util.Collection;
import java.util.List;
import org.abletwine.table.carry.Carrier;

/**
 * Rows that could not be computed and got null. Immutable.
 *
 * @param count how many
 * @param row the number of the first of them, 1-based; the greatest number when there is none
 * @param example what is wrong with it, in words; empty when there is none
 */
public record RowErrors(long count, long row, String example) {
  /** None. */
  public static final RowErrors NONE = new RowErrors(0, Long.MAX_VALUE, "");

  /**
   * Carries these, or takes those of another process in their place.
   *
   * @param carrier carries them
   */
  public RowErrors carried(Carrier carrier) {
    return new RowErrors(carrier.number(count), carrier.number(row), carrier.words(example));
  }

  /** Returns these and others together. */
  public RowErrors and(RowErrors other) {
    return sum(List.of(this, other));
  }

  /**
   * Those of several together.
   *
   * @param all what several threads, or several expressions, have met
   * @return the sum, with the first row of all
   */
  public static RowErrors sum(Collection<RowErrors> all) {
    long count = 0;
    RowErrors first = NONE;
    for (RowErrors one : all) {
      count += one.count;
      first = one.row < first.row ? one : first;
    }
    return new RowErrors(count, first.row, first.example);
  }
}
