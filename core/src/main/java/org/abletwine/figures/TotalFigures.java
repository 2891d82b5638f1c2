package org.abletwine.figures;

import java.math.BigDecimal;

/**
 * The exact total of a column at one point of a run.
 *
 * @param column the column
 * @param when where in the run, such as {@code before}
 * @param total the total of its numbers
 * @param nulls rows in which it is null
 * @param notNumbers rows in which it is no number, and so left out of the total
 * @param rows rows
 */
public record TotalFigures(
    String column, String when, BigDecimal total, long nulls, long notNumbers, long rows)
    implements StepFigures {
  /** Where the column is first there. */
  public static final String BEFORE = "before";

  /** At the end. */
  public static final String AFTER = "after";

  @Override
  public String name() {
    return column;
  }
}
