package org.abletwine.key;

import org.abletwine.table.CellVector;

/** Leaves out spaces at both ends, every kind that {@link Spaces} knows. */
final class Trim extends NamedStep {
  private static final long serialVersionUID = 1L;

  Trim() {
    super("trim");
  }

  @Override
  public void apply(CellVector cells, int rows) {
    char[] text = cells.text;
    int[] starts = cells.starts;
    int[] ends = cells.ends;
    for (int row = 0; row < rows; row++) {
      int start = starts[row];
      int end = ends[row];
      while (start < end && Spaces.isSpace(text[start])) {
        start++;
      }
      while (start < end && Spaces.isSpace(text[end - 1])) {
        end--;
      }
      starts[row] = start;
      ends[row] = end;
    }
  }
}
