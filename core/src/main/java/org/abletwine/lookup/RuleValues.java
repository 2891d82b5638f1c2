package org.abletwine.lookup;

import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;

/**
 * The values of a reference's rows that rules compare, normalised: of each rule one, or the two
 * ends of a band. Belongs to one thread.
 */
final class RuleValues {
  private final NormaliseStep[][] steps;
  private final int[][] columns;

  /** For each rule its value, or the two ends of a band, of the last batch. */
  final CellVector[][] cells;

  /**
   * @param keyColumns the reference's columns of the key, as {@link KeyLayout#theirs} has them
   */
  RuleValues(Lookup lookup, KeyLayout layout, int[] keyColumns) {
    steps = layout.ruleSteps(lookup, false);
    columns = new int[steps.length][];
    cells = new CellVector[steps.length][];
    int next = layout.equal().length;
    for (int rule = 0; rule < cells.length; rule++) {
      int width = lookup.key.get(layout.rules()[rule]).theirsTo() == null ? 1 : 2;
      cells[rule] = new CellVector[width];
      columns[rule] = new int[width];
      for (int v = 0; v < width; v++) {
        cells[rule][v] = new CellVector();
        columns[rule][v] = keyColumns[next++];
      }
    }
  }

  /** Takes the values of a batch. */
  void take(Batch batch) {
    for (int rule = 0; rule < cells.length; rule++) {
      for (int v = 0; v < cells[rule].length; v++) {
        batch.copySlices(cells[rule][v], columns[rule][v]);
        for (NormaliseStep step : steps[rule]) {
          CellsStep.apply(step, cells[rule][v], batch.rows());
        }
      }
    }
  }

  /** Whether any key can find a row by the rules: the ends of a band may be null, nothing else. */
  static boolean findable(CellVector[][] cells, int row) {
    for (CellVector[] values : cells) {
      if (values.length == 1 && values[0].isBlank(row)) {
        return false;
      }
    }
    return true;
  }
}
