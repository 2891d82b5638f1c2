package org.abletwine.table.batch;

import java.util.function.IntPredicate;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;

/** Copies some rows of a table as they are. Stateless. */
public final class RowCopy {
  private RowCopy() {}

  /**
   * Copies rows to a sink and commits it.
   *
   * @param table the table
   * @param wanted which rows, by their number, 1-based
   * @param sink where to
   * @return how many rows were copied
   */
  public static long copy(Table table, IntPredicate wanted, TableSink sink) {
    int[] columns = new int[table.schema().size()];
    for (int column = 0; column < columns.length; column++) {
      columns[column] = column;
    }
    long copied = 0;
    BatchSink into = BatchSink.of(sink);
    into.typed(table.schema().names().stream().map(table::type).toList());
    into.start(table, table.schema());
    try (BatchReader reader = new BatchReader(table)) {
      int[] picked = new int[0];
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        if (picked.length < batch.rows()) {
          picked = new int[batch.rows()];
        }
        int count = 0;
        for (int row = 0; row < batch.rows(); row++) {
          if (wanted.test((int) batch.rowNumber(row))) {
            picked[count++] = row;
          }
        }
        batch.pick(picked, count);
        into.write(batch, columns);
        copied += count;
      }
    }
    into.commit();
    return copied;
  }
}
