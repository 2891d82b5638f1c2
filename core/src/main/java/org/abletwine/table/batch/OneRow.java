package org.abletwine.table.batch;

import org.jspecify.annotations.Nullable;

/** Batches of a single row, for what comes one at a time. Stateless. */
public final class OneRow {
  private OneRow() {}

  /**
   * {@return a batch of a single row}
   *
   * @param cells its cells; null stands for a null cell
   */
  public static Batch of(@Nullable String... cells) {
    Batch batch = new Batch(cells.length, 1, '\0');
    fill(batch, cells);
    return batch;
  }

  /**
   * Makes a batch one of a single row.
   *
   * @param batch the batch; what is in it goes
   * @param cells the cells; null stands for a null cell
   */
  public static void fill(Batch batch, @Nullable String... cells) {
    batch.clear(1, '\0');
    for (String cell : cells) {
      batch.addCell(cell);
    }
    batch.endRow(Batch.ALTERED);
  }
}
