package org.abletwine.table.batch;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.Rows;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** The rows of a table that is read in batches. */
final class BatchRows implements Rows {
  private final BatchReader reader;
  private final int columns;
  private @Nullable Batch batch;
  private int row;

  BatchRows(Table table) {
    reader = new BatchReader(table);
    columns = table.schema().size();
  }

  @Override
  public @Nullable List<@Nullable String> next() {
    Batch held = batch;
    while (held == null || row == held.rows()) {
      held = reader.next();
      batch = held;
      row = 0;
      if (held == null) {
        return null;
      }
    }
    List<@Nullable String> cells = new ArrayList<>(columns);
    for (int column = 0; column < columns; column++) {
      cells.add(held.column(column).get(row));
    }
    row++;
    return cells;
  }

  @Override
  public void close() {
    reader.close();
  }
}
