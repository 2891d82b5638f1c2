package org.abletwine.table.batch;

import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * A table cut into pieces of whole rows, for several workers to parse. {@link #next} is the part
 * that goes through the table from its start to its end: it is used by one thread at a time. A
 * piece belongs to the worker that has it.
 */
public interface Pieces extends AutoCloseable {

  /** Some rows of the table, in their order. */
  interface Piece {

    /**
     * Parses the next rows of the piece.
     *
     * @return the rows, valid until the next call; null when there are no more
     * @throws DataException when a row cannot be read; the rows before it are in {@link #batch}
     */
    @Nullable Batch read();

    /** Returns the batch that rows are parsed into. */
    Batch batch();

    /** From now on parses all rows of the piece at once. */
    void atOnce();
  }

  /** Returns room for a piece, to be filled again and again by the one worker that asked for it. */
  Piece piece();

  /**
   * Goes on to the next piece.
   *
   * @param into takes it; one that {@link #piece} returned. What it held is gone
   * @return false when there was nothing left
   * @throws DataException when the table cannot be read further
   */
  boolean next(Piece into);

  /** Returns how many rows have been gone past so far, by whoever goes on to the next piece. */
  long rows();

  /** Returns the bytes read so far; may be asked from any thread. */
  long bytesRead();

  @Override
  void close();
}
