package org.abletwine.table.batch;

import java.util.BitSet;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** Reads a table from start to end on the calling thread. Not safe for use by several threads. */
public final class BatchReader implements AutoCloseable {
  private final Pieces pieces;
  private final Pieces.Piece piece;
  private boolean begun;

  /**
   * Starts at the first row.
   *
   * @param table the table
   * @throws DataException when it cannot be read
   */
  public BatchReader(Table table) {
    this(table, table.schema().size(), null);
  }

  /**
   * Starts at the first row, and reads some cells of some rows only.
   *
   * @param table the table
   * @param first how many of the first cells of each row will be looked at, at least 1
   * @param wanted which rows, by their number, 1-based; null for all
   * @throws DataException when it cannot be read
   */
  public BatchReader(Table table, int first, @Nullable BitSet wanted) {
    pieces = BatchTable.of(table).pieces(first, wanted);
    piece = pieces.piece();
  }

  /**
   * Reads the next rows.
   *
   * @return the rows, valid until the next call; null when there are no more
   * @throws DataException when a row cannot be read
   */
  public @Nullable Batch next() {
    Batch batch = begun ? piece.read() : null;
    while (batch == null) {
      begun = true;
      if (!pieces.next(piece)) {
        return null;
      }
      batch = piece.read();
    }
    return batch;
  }

  @Override
  public void close() {
    pieces.close();
  }
}
