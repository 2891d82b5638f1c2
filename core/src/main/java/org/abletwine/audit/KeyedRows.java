package org.abletwine.audit;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.Workers;
import org.jspecify.annotations.Nullable;

/**
 * One worker's part of reading a table by its keys: makes the keys of the rows it has parsed, which
 * are then taken in order. Belongs to one thread.
 */
final class KeyedRows implements Workers.Worker {
  private final KeyEncoder encoder;
  private final Action action;
  private final EncodedKeys encoded = new EncodedKeys();
  private @Nullable Batch parsed;

  /** Takes rows and their keys, in order; no two threads do so at once. */
  interface Action {
    /** {@return whether to go on} */
    boolean take(Batch batch, EncodedKeys encoded);
  }

  private KeyedRows(KeyEncoder encoder, Action action) {
    this.encoder = encoder;
    this.action = action;
  }

  /**
   * Reads a table.
   *
   * @param columns the key's columns
   * @param steps for each of them the steps to apply
   * @param first how many of the first cells of each row are looked at, beside the key's
   * @param wanted which rows, by their number, 1-based; null for all
   */
  static void each(
      Table table,
      int[] columns,
      List<List<NormaliseStep>> steps,
      int first,
      @Nullable BitSet wanted,
      Action action) {
    int key = Arrays.stream(columns).max().orElse(0) + 1;
    BitSet looked = new BitSet();
    looked.set(0, first);
    Arrays.stream(columns).forEach(looked::set);
    Workers.each(
        table,
        Math.max(first, key),
        wanted,
        looked,
        () -> new KeyedRows(new KeyEncoder(columns, steps), action));
  }

  @Override
  public void work(Batch batch) {
    encoder.encode(batch, encoded);
    parsed = batch;
  }

  @Override
  public boolean inOrder() {
    Batch batch = parsed;
    parsed = null;
    return batch == null || action.take(batch, encoded);
  }
}
