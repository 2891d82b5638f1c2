package org.abletwine.key;

import org.abletwine.key.encode.Spaces;
import org.abletwine.table.batch.CellVector;

/** Leaves out spaces at both ends, every kind that {@link Spaces} knows. */
final class Trim extends NamedStep {
  private static final long serialVersionUID = 1L;

  Trim() {
    super("trim");
  }

  @Override
  public void apply(CellVector cells, int rows) {
    byte[] text = cells.text;
    int[] starts = cells.starts;
    int[] ends = cells.ends;
    for (int row = 0; row < rows; row++) {
      int start = starts[row];
      int end = ends[row];
      // Whatever is greater than a space, as a signed byte, is ASCII and no space.
      if (start < end && (text[start] <= ' ' || text[end - 1] <= ' ')) {
        trim(cells, row);
      }
    }
  }

  private static void trim(CellVector cells, int row) {
    byte[] text = cells.text;
    int start = cells.starts[row];
    int end = cells.ends[row];
    int space = 1;
    while (start < end && (space = Spaces.length(text, start, end)) > 0) {
      start += space;
    }
    while (start < end && (space = Spaces.lengthBefore(text, start, end)) > 0) {
      end -= space;
    }
    cells.starts[row] = start;
    cells.ends[row] = end;
  }
}
