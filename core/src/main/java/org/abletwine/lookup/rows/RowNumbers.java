package org.abletwine.lookup.rows;

import java.io.Serializable;
import java.util.Arrays;
import org.abletwine.table.DataException;

/**
 * The number of each stored row in its file. Takes memory only when rows were left out, for until
 * then the two are the same.
 */
public final class RowNumbers implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final int SHOWN = 5;

  private static final int CHUNK_BITS = 14;
  private static final int CHUNK = 1 << CHUNK_BITS;

  private int[][] numbers = new int[0][];
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
      for (int row = 0; row < stored; row++) {
        note(row, row + 1);
      }
    }
    if (!same) {
      note(stored, number(fileRow));
    }
    stored++;
  }

  private static int number(long fileRow) {
    if (fileRow > Integer.MAX_VALUE) {
      throw new DataException(
          "a table of more than "
              + Integer.MAX_VALUE
              + " rows, whose rows are to be remembered; leave out rows, or divide the table");
    }
    return (int) fileRow;
  }

  private void note(int row, int number) {
    int chunk = row >>> CHUNK_BITS;
    if ((row & CHUNK - 1) == 0) {
      if (chunk == numbers.length) {
        numbers = Arrays.copyOf(numbers, Math.max(4, chunk * 2));
      }
      numbers[chunk] = new int[CHUNK];
    }
    numbers[chunk][row & CHUNK - 1] = number;
  }

  /**
   * @param row a stored row, 0-based
   * @return its number in the file, 1-based
   */
  public int of(int row) {
    return same ? row + 1 : numbers[row >>> CHUNK_BITS][row & CHUNK - 1];
  }

  /** Returns the memory held, in bytes. */
  public long bytes() {
    return same ? 0 : 4L * ((stored - 1 >>> CHUNK_BITS) + 1 << CHUNK_BITS);
  }

  /**
   * File rows as a reader is shown them.
   *
   * @param rows stored rows, 0-based
   * @return the first few numbers, and how many more there are
   */
  public String list(int[] rows) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < Math.min(SHOWN, rows.length); i++) {
      text.append(i == 0 ? "" : ", ").append(of(rows[i]));
    }
    return rows.length > SHOWN ? text + " and " + (rows.length - SHOWN) + " more" : text.toString();
  }
}
