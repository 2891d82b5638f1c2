package org.abletwine.table.batch;

import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** Where rows go of a plan that writes only what is made of them, such as totals. */
public final class NoRows implements BatchSink {
  private static final Encoder NONE =
      new Encoder() {
        @Override
        public void add(Batch batch, int @Nullable [] rows, int count, int[] columns) {
          // nobody wants them
        }

        @Override
        public void flush() {
          // nothing was taken
        }
      };

  @Override
  public void start(Table source, Schema columns) {
    // nothing is begun
  }

  @Override
  public void write(Batch batch, int[] columns) {
    // nobody wants them
  }

  @Override
  public Encoder encoder() {
    return NONE;
  }

  /** No cell is needed that no step looks at. */
  @Override
  public boolean copiesText() {
    return true;
  }

  @Override
  public void commit() {
    // nothing to show
  }

  @Override
  public void close() {
    // nothing is held
  }
}
