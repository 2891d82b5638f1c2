package org.abletwine.figures;

import java.util.List;

/**
 * What one correction counted. Each row whose value was replaced adds one to {@code changed}; each
 * line of the table that took part in a row adds one to that line.
 *
 * @param column the column corrected
 * @param table the correction table
 * @param rows rows that reached the step
 * @param changed rows whose value was replaced
 * @param lines lines of the table that counted
 * @param unused lines that no row needed
 * @param uses the lines used and for how many rows, at most 50
 * @param unusedExamples lines never used, at most 50
 */
public record CorrectionFigures(
    String column,
    String table,
    long rows,
    long changed,
    long lines,
    long unused,
    List<LookupFigures.Share> uses,
    List<String> unusedExamples)
    implements StepFigures {

  /** Copies the lists. */
  public CorrectionFigures {
    uses = List.copyOf(uses);
    unusedExamples = List.copyOf(unusedExamples);
  }

  @Override
  public String name() {
    return "correct " + column;
  }
}
