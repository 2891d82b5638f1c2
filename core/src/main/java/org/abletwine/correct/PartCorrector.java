package org.abletwine.correct;

import java.util.List;
import org.abletwine.figures.CorrectionFigures;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;

/** Replaces inside values, line after line. */
final class PartCorrector implements StepRunner {
  private final Correction correction;
  private final int column;
  private final CorrectionList list;
  private long rows;
  private long changed;

  PartCorrector(Correction correction, int column, CorrectionList list) {
    this.correction = correction;
    this.column = column;
    this.list = list;
  }

  @Override
  public void apply(Batch batch) {
    rows += batch.rows();
    List<CorrectionList.Line> lines = list.lines();
    for (int row = 0; row < batch.rows(); row++) {
      String before = batch.column(column).get(row);
      if (before == null) {
        continue;
      }
      String now = before;
      for (int line = 0; line < lines.size(); line++) {
        if (now.contains(lines.get(line).written())) {
          now = now.replace(lines.get(line).written(), lines.get(line).meant());
          list.used(line);
        }
      }
      if (!now.equals(before)) {
        changed++;
        batch.overwrite(row, column, now);
      }
    }
  }

  @Override
  public CorrectionFigures figures() {
    return list.figures(correction.column(), rows, changed);
  }
}
