package org.abletwine;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;

/** Keeps the rows it is given, for tests. */
public final class ListSink implements BatchSink {
  private final List<List<@Nullable String>> rows = new ArrayList<>();
  private List<String> names = List.of();
  private boolean committed;

  @Override
  public void start(Table source, Schema columns) {
    names = columns.names();
  }

  @Override
  public void write(Batch batch, int[] columns) {
    for (int row = 0; row < batch.rows(); row++) {
      List<@Nullable String> cells = new ArrayList<>();
      for (int column : columns) {
        cells.add(batch.column(column).get(row));
      }
      rows.add(cells);
    }
  }

  public List<List<@Nullable String>> rows() {
    return rows;
  }

  public @Nullable String cell(int row, String column) {
    return rows.get(row).get(names.indexOf(column));
  }

  public List<@Nullable String> column(String column) {
    int at = names.indexOf(column);
    List<@Nullable String> cells = new ArrayList<>();
    rows.forEach(row -> cells.add(row.get(at)));
    return cells;
  }

  public List<String> names() {
    return names;
  }

  public boolean committed() {
    return committed;
  }

  @Override
  public void commit() {
    committed = true;
  }

  @Override
  public void close() {}
}
