package org.abletwine.plan;

import java.nio.file.Path;
import org.abletwine.formats.csv.CsvRows;
import org.abletwine.step.Exceptions;
import org.abletwine.table.output.Output;

/** Writes what needs attention to a file, as it is met. */
final class ExceptionFile implements Exceptions {
  private final CsvRows rows;

  ExceptionFile(Path target) {
    rows = new CsvRows(target, "step", "kind", "table", "row", "key", "detail", "measure");
  }

  @Override
  public void found(Found found) {
    rows.row(
        found.step(),
        found.kind(),
        found.table(),
        found.row() == 0 ? "" : Long.toString(found.row()),
        found.key(),
        found.detail(),
        found.measure() == null ? "" : found.measure());
  }

  long count() {
    return rows.rows();
  }

  Output output() {
    return rows;
  }
}
