package org.abletwine.key;

import java.util.Objects;
import org.abletwine.table.batch.CellVector;

/**
 * A step that looks at one cell at a time. Cells that a quick test shows to be in their final form
 * are passed over, so a step costs little where there is nothing for it to do; for the others
 * characters are made.
 */
abstract class CellStep extends NamedStep {
  private static final long serialVersionUID = 1L;

  CellStep(String name) {
    super(name);
  }

  /** Whether the cell can change at all; must be cheap. */
  abstract boolean concerns(byte[] text, int start, int end);

  /** The cell's new text. */
  abstract CharSequence changed(String cell);

  @Override
  public final void apply(CellVector cells, int rows) {
    boolean owned = false;
    for (int row = 0; row < rows; row++) {
      int start = cells.starts[row];
      if (start >= 0 && concerns(cells.text, start, cells.ends[row])) {
        if (!owned) {
          cells.takeOwnership();
          owned = true;
        }
        String before = Objects.requireNonNull(cells.get(row));
        CharSequence after = changed(before);
        if (!before.contentEquals(after)) {
          cells.replace(row, after);
        }
      }
    }
  }
}
