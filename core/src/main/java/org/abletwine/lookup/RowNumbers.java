package org.abletwine.lookup;

import java.io.Serializable;
import java.util.Arrays;

/**
 * The number of each stored row in its file. Takes memory only when rows were left out, for until
 * then the two are the same.
 */
public final class RowNumbers implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final int SHOWN = 5;

  private int[] numbers = new int[0];
  private int stored;
  private boolean same = true;

  /**
   * Notes the next stored row.
   *
   * @param fileRow its number in the file, 1-based
   */
  public void add(long fileRow) {
    if (same && fileRow != stored + 1) {
      same = false;
      numbers = new int[Math.max(16, stored * 2)];
      for (int row = 0; row < stored; row++) {
        numbers[row] = row + 1;
      }
    }
    if (!same) {
      if (stored == numbers.length) {
        numbers = Arrays.copyOf(numbers, stored + stored / 4);
      }
      numbers[stored] = (int) fileRow;
    }
    stored++;
  }

  /**
   * @param row a stored row, 0-based
   * @return its number in the file, 1-based
   */
  public int of(int row) {
    return same ? row + 1 : numbers[row];
  }

  /** Returns the memory held, in bytes. */
  public long bytes() {
    return 4L * numbers.length;
  }

  /** File rows as a reader is shown them. */
  String list(int[] rows) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < Math.min(SHOWN, rows.length); i++) {
      text.append(i == 0 ? "" : ", ").append(of(rows[i]));
    }
    return rows.length > SHOWN ? text + " and " + (rows.length - SHOWN) + " more" : text.toString();
  }
}
