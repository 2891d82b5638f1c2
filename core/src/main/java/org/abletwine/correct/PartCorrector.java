package org.abletwine.correct;

import java.util.List;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;

/** Replaces inside values, line after line. */
final class PartCorrector extends Corrector {
  /** Characters of a corrected value at most: lines that feed each other make it grow. */
  private static final int MOST_TEXT = 1_000_000;

  private final Correction correction;
  private final int column;
  private final CorrectionList list;

  PartCorrector(Correction correction, int column, CorrectionList list) {
    super(list);
    this.correction = correction;
    this.column = column;
    this.list = list;
  }

  @Override
  public void apply(Batch batch) {
    rows += batch.rows();
    List<CorrectionList.Line> lines = list.lines();
    CellVector cells = batch.column(column);
    CellVector target = batch.addColumn();
    for (int row = 0; row < batch.rows(); row++) {
      String before = cells.get(row);
      if (before == null) {
        target.appendAsCame(batch, column, row);
        continue;
      }
      String now = before;
      for (int line = 0; line < lines.size(); line++) {
        if (now.contains(lines.get(line).written())) {
          now = now.replace(lines.get(line).written(), lines.get(line).meant());
          if (now.length() > MOST_TEXT) {
            throw new DataException(
                "row "
                    + batch.rowNumber(row)
                    + ", correct "
                    + correction.column()
                    + ": the value would have more than "
                    + MOST_TEXT
                    + " characters after \""
                    + list.shown(lines.get(line).written())
                    + "\" is replaced; look at that line, or at the row");
          }
          uses[line]++;
        }
      }
      if (now.equals(before)) {
        target.appendAsCame(batch, column, row);
      } else {
        changed++;
        target.append(now);
      }
    }
  }
}
