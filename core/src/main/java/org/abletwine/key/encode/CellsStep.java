package org.abletwine.key.encode;

import java.util.Objects;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.batch.CellVector;

/** A normalise step that takes the cells of a batch at once, as all of our own do. */
public interface CellsStep extends NormaliseStep {

  /**
   * Applies the step to every cell that is not null. The positions may be moved freely; the bytes
   * only after {@link CellVector#takeOwnership()}.
   *
   * @param cells the cells, changed in place
   * @param rows how many
   */
  void apply(CellVector cells, int rows);

  @Override
  default String apply(String value) {
    CellVector one = new CellVector();
    one.clear();
    one.append(value);
    apply(one, 1);
    return Objects.requireNonNull(one.get(0));
  }

  /**
   * Applies a step of any kind to cells.
   *
   * @param step the step
   * @param cells the cells, changed in place
   * @param rows how many
   */
  static void apply(NormaliseStep step, CellVector cells, int rows) {
    if (step instanceof CellsStep whole) {
      whole.apply(cells, rows);
      return;
    }
    cells.takeOwnership();
    for (int row = 0; row < rows; row++) {
      String value = cells.get(row);
      if (value != null) {
        cells.replace(row, step.apply(value));
      }
    }
  }
}
