package org.abletwine.figures;

import java.util.List;
import org.abletwine.figures.LookupFigures.Share;

/**
 * What taking the first of several columns counted: {@code taken + filled + nulls == rows}.
 *
 * @param column the column added
 * @param rows rows that reached the step
 * @param taken for each column, rows that took their value from it
 * @param filled rows that got the stated value
 * @param nulls rows left null
 */
public record CoalesceFigures(String column, long rows, List<Share> taken, long filled, long nulls)
    implements StepFigures {

  /** Copies the list. */
  public CoalesceFigures {
    taken = List.copyOf(taken);
  }

  @Override
  public String name() {
    return column;
  }
}
