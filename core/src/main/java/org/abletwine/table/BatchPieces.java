package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/** A table that only its own reader can go through: a piece is what it reads at once. */
final class BatchPieces implements Pieces {
  private final TableReader reader;
  private final int columns;

  BatchPieces(Table table) {
    columns = table.schema().size();
    reader = table.open();
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
    piece.fresh = reader.read(piece.batch);
    return piece.fresh;
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
