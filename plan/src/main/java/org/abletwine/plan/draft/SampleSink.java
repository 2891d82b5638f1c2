package org.abletwine.plan.draft;

import java.util.List;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/** Keeps the rows of a run in memory. */
final class SampleSink implements TableSink {
  private final SampleTable table;

  SampleSink(String name) {
    table = SampleTable.empty(name);
  }

  SampleTable table() {
    return table;
  }

  @Override
  public void start(Table source, Schema columns) {
    columns.names().forEach(name -> table.add(new SampleColumn(name)));
  }

  @Override
  public void write(List<@Nullable String> row) {
    for (int column = 0; column < row.size(); column++) {
      table.columns().get(column).add(row.get(column));
    }
  }

  @Override
  public void commit() {
    // nothing is written
  }

  @Override
  public void close() {
    // nothing is open
  }
}
