package org.abletwine.plan;

import java.math.BigDecimal;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** What the rows of a key come to: how many, and the total of the plan's measure. */
final class Stake {
  private long rows;
  private @Nullable BigDecimal measure;

  /**
   * Adds a row.
   *
   * @param value what it holds of the measure; null for nothing. What is no number is counted with
   *     the totals of the lookup
   */
  void add(@Nullable String value) {
    rows++;
    BigDecimal more = value == null ? null : DecimalText.read(value);
    if (more != null) {
      measure = measure == null ? more : measure.add(more);
    }
  }

  long rows() {
    return rows;
  }

  /** The total; null when nothing was measured. */
  @Nullable BigDecimal measure() {
    return measure;
  }
}
