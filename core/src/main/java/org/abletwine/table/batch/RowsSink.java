package org.abletwine.table.batch;

import java.util.Arrays;
import java.util.List;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/**
 * Gives the rows of batches to a sink that takes rows.
 *
 * @param sink the sink
 */
record RowsSink(TableSink sink) implements BatchSink {

  @Override
  public void start(Table source, Schema columns) {
    sink.start(source, columns);
  }

  @Override
  public void write(Batch batch, int[] columns) {
    @Nullable String[] cells = new @Nullable String[columns.length];
    List<@Nullable String> row = Arrays.asList(cells);
    for (int at = 0; at < batch.rows(); at++) {
      for (int i = 0; i < columns.length; i++) {
        cells[i] = batch.column(columns[i]).get(at);
      }
      sink.write(row);
    }
  }

  @Override
  public void write(List<@Nullable String> row) {
    sink.write(row);
  }

  @Override
  public void commit() {
    sink.commit();
  }

  @Override
  public void close() {
    sink.close();
  }
}
