package org.abletwine.enrich;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.Consumer;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Row;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;

/** Gives the rows that come out to a program, in order, by one thread at a time. */
final class RowsTaken implements BatchSink {
  private final Consumer<? super Row> taker;
  private List<@Nullable ColumnType> types = List.of();
  private @Nullable Schema schema;
  private String name = "";
  private long rows;

  RowsTaken(Consumer<? super Row> taker) {
    this.taker = taker;
  }

  @Override
  public void typed(List<@Nullable ColumnType> stated) {
    types = Collections.unmodifiableList(new ArrayList<>(stated));
  }

  @Override
  public void start(Table source, Schema columns) {
    schema = columns;
    name = source.name();
  }

  @Override
  public void write(Batch batch, int[] columns) {
    Schema of = schema;
    if (of == null) {
      throw new IllegalStateException("not started");
    }
    List<@Nullable String> cells = new ArrayList<>(columns.length);
    for (int row = 0; row < batch.rows(); row++) {
      cells.clear();
      for (int column : columns) {
        cells.add(batch.column(column).get(row));
      }
      rows++;
      taker.accept(new Row(name, of, types, rows, cells));
    }
  }

  @Override
  public boolean takesRowsBeforeAFailure() {
    return true;
  }

  @Override
  public void commit() {
    // all were given
  }

  @Override
  public void close() {
    // nothing is held
  }
}
