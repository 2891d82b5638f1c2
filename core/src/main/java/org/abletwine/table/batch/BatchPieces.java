package org.abletwine.table.batch;

import java.util.BitSet;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * A table that only its own reader can go through: a piece is what it reads at once. Where a row
 * cannot be read, those before it are a piece too, and what is wrong is told behind them.
 */
public final class BatchPieces implements Pieces {
  private final TableReader reader;
  private final int columns;
  private final @Nullable BitSet wanted;
  private long rows;
  private boolean failed;

  /**
   * @param reader reads the table; closed here
   * @param columns how many columns it has
   * @param wanted which rows to give, by their number, 1-based; null for all
   */
  public BatchPieces(TableReader reader, int columns, @Nullable BitSet wanted) {
    this.reader = reader;
    this.columns = columns;
    this.wanted = wanted;
  }

  private static final class OneBatch implements Piece {
    private final Batch batch;
    private boolean fresh;
    private @Nullable DataException failure;

    OneBatch(Batch batch) {
      this.batch = batch;
    }

    @Override
    public @Nullable Batch read() {
      boolean any = fresh;
      fresh = false;
      DataException failed = failure;
      if (any && failed != null) {
        throw failed;
      }
      return any ? batch : null;
    }

    @Override
    public Batch batch() {
      return batch;
    }

    @Override
    public void atOnce() {
      // it is one batch anyway
    }
  }

  @Override
  public Piece piece() {
    return new OneBatch(new Batch(columns));
  }

  @Override
  public boolean next(Piece into) {
    OneBatch piece = (OneBatch) into;
    do {
      piece.fresh = !failed && read(piece);
    } while (piece.fresh && wanted != null && !pick(piece.batch, wanted) && !failed);
    return piece.fresh;
  }

  private boolean read(OneBatch into) {
    Batch batch = into.batch;
    batch.clear(rows + 1, '\0'); // whoever fails before the first row leaves none of before
    boolean any;
    try {
      any = reader.read(batch);
    } catch (DataException e) {
      batch.abandonRow();
      into.failure = e;
      failed = true;
      any = true;
    }
    rows += any ? batch.rows() : 0;
    return any;
  }

  @Override
  public long rows() {
    return rows;
  }

  /** Leaves the wanted rows of a batch; returns whether there are any. */
  static boolean pick(Batch batch, BitSet wanted) {
    int[] picked = new int[batch.rows()];
    int count = 0;
    for (int row = 0; row < picked.length; row++) {
      if (wanted.get((int) batch.rowNumber(row))) {
        picked[count++] = row;
      }
    }
    batch.pick(picked, count);
    return count > 0;
  }

  @Override
  public long bytesRead() {
    return reader.bytesRead();
  }

  @Override
  public void close() {
    reader.close();
  }
}
