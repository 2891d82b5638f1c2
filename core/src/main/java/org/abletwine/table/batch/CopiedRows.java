package org.abletwine.table.batch;

import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Rows kept until it is their turn to be written, for a sink that takes them one after another. */
final class CopiedRows implements BatchSink.Encoder {
  private final BatchSink sink;
  private Batch held = new Batch(0);
  private int[] own = {};

  CopiedRows(BatchSink sink) {
    this.sink = sink;
  }

  @Override
  public void add(Batch batch, int @Nullable [] rows, int count, int[] columns) {
    if (own.length != columns.length || held.rows() == 0) {
      own = IntStream.range(0, columns.length).toArray();
      held = held.baseColumns() == columns.length ? held : new Batch(columns.length);
      held.clear(count == 0 ? 1 : batch.rowNumber(rows == null ? 0 : rows[0]), '\0');
    }
    CellVector[] cells = new CellVector[columns.length];
    for (int i = 0; i < cells.length; i++) {
      cells[i] = batch.column(columns[i]);
    }
    for (int i = 0; i < count; i++) {
      int row = rows == null ? i : rows[i];
      for (CellVector column : cells) {
        held.addCell(column.get(row));
      }
      held.endRow();
      held.numberRow(batch.rowNumber(row));
    }
  }

  @Override
  public void flush() {
    if (held.rows() > 0) {
      sink.write(held, own);
      held.clear(1, '\0');
    }
  }
}
