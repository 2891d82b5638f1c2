package org.abletwine.table;

import java.util.BitSet;

/** A forward reader of one table. Not safe for use by several threads at once. */
public interface TableReader extends AutoCloseable {

  /**
   * Reads the next rows.
   *
   * @param into the batch to fill; what it held before is gone
   * @return false when there was nothing left to read
   * @throws DataException when the data cannot be read; the message names file, line and column
   */
  boolean read(Batch into);

  /**
   * Reads the next of some rows, for a second look at few of very many. The batch tells their
   * numbers, which need not follow each other.
   *
   * @param into the batch to fill; what it held before is gone
   * @param wanted which rows, by their number, 1-based; the same at every call
   * @return false when there was none left
   * @throws DataException when the data cannot be read
   */
  default boolean read(Batch into, BitSet wanted) {
    while (read(into)) {
      int[] picked = new int[into.rows()];
      int count = 0;
      for (int row = 0; row < picked.length; row++) {
        if (wanted.get((int) into.rowNumber(row))) {
          picked[count++] = row;
        }
      }
      into.pick(picked, count);
      if (count > 0) {
        return true;
      }
    }
    return false;
  }

  /**
   * Says that of most rows only the first cells will be looked at, so that a reader need not find
   * the others. Who wants all cells of a row calls {@link Batch#complete} first. To be called
   * before anything is read; a reader that finds all cells anyway does nothing.
   *
   * @param count how many cells of each row, at least 1
   */
  default void noteFirst(int count) {}

  /** Returns the bytes read so far; may be asked from another thread. */
  default long bytesRead() {
    return 0;
  }

  @Override
  void close();
}
