package org.abletwine.table.batch;

import java.util.BitSet;
import org.jspecify.annotations.Nullable;

/** A table that only its own reader can go through: a piece is what it reads at once. */
public final class BatchPieces implements Pieces {
  private final TableReader reader;
  private final int columns;
  private final @Nullable BitSet wanted;
  private long rows;

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

    OneBatch(Batch batch) {
      this.batch = batch;
    }

    @Override
    public @Nullable Batch read() {
      boolean any = fresh;
      fresh = false;
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
    piece.fresh = read(piece.batch);
    while (piece.fresh && wanted != null && !pick(piece.batch, wanted)) {
      piece.fresh = read(piece.batch);
    }
    return piece.fresh;
  }

  private boolean read(Batch into) {
    boolean any = reader.read(into);
    rows += any ? into.rows() : 0;
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
