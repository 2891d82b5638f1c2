package org.abletwine.plan;

import java.nio.file.Path;
import org.abletwine.formats.csv.CsvRows;
import org.abletwine.step.Exceptions;

/** Writes what needs attention to a file, as it is met. */
final class ExceptionFile implements Exceptions, AutoCloseable {
  private final CsvRows rows;

  ExceptionFile(Path target) {
    rows = new CsvRows(target, "step", "kind", "table", "row", "key", "detail");
  }

  @Override
  public void found(String step, String kind, String table, long row, String key, String detail) {
    rows.row(step, kind, table, row == 0 ? "" : Long.toString(row), key, detail);
  }

  long count() {
    return rows.rows();
  }

  void commit() {
    rows.commit();
  }

  @Override
  public void close() {
    rows.close();
  }
}
