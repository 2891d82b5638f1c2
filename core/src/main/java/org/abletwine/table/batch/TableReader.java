package org.abletwine.table.batch;

import org.abletwine.table.DataException;

/**
 * Reads a table that cannot be cut, a batch at a time. Not safe for use by several threads at once.
 */
public interface TableReader extends AutoCloseable {

  /**
   * Reads the next rows.
   *
   * @param into the batch to fill; what it held before is gone
   * @return false when there was nothing left to read
   * @throws DataException when the data cannot be read; the message names file, line and column
   */
  boolean read(Batch into);

  /** Returns the bytes read so far; may be asked from another thread. */
  default long bytesRead() {
    return 0;
  }

  @Override
  void close();
}
