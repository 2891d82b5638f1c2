package org.abletwine.figures;

import java.util.List;
import org.abletwine.figures.LookupFigures.Share;

/**
 * What computing one column counted.
 *
 * @param column the column
 * @param expression how it is computed
 * @param rows rows that reached the step
 * @param nulls rows in which it came out null
 * @param reasons why: the first input that was null, and why that was; they add up to the nulls
 * @param errors rows that could not be computed and got null, among the nulls
 * @param errorExample the first of them, in words; empty when there is none
 */
public record ComputeFigures(
    String column,
    String expression,
    long rows,
    long nulls,
    List<Share> reasons,
    long errors,
    String errorExample)
    implements StepFigures {

  /** Copies the list. */
  public ComputeFigures {
    reasons = List.copyOf(reasons);
  }

  @Override
  public String name() {
    return column;
  }
}
