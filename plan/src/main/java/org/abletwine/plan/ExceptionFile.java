package org.abletwine.plan;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.step.Exceptions;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.jspecify.annotations.Nullable;

/** Writes what needs attention to a file, as it is met. */
final class ExceptionFile implements Exceptions {
  private static final List<String> NAMES =
      List.of("step", "kind", "table", "row", "key", "detail", "measure");

  private final ListedRows rows;
  private final Output output;

  ExceptionFile(BatchSink sink) {
    List<@Nullable ColumnType> types = new ArrayList<>();
    for (String name : NAMES) {
      boolean number = name.equals("row") || name.equals("measure");
      types.add(number ? ColumnType.of(ColumnType.Kind.NUMBER) : null);
    }
    rows = new ListedRows(sink, types, NAMES);
    output = rows.output();
  }

  @Override
  public void found(Found found) {
    rows.row(
        cell(found.step()),
        cell(found.kind()),
        cell(found.table()),
        found.row() == 0 ? null : Long.toString(found.row()),
        cell(found.key()),
        cell(found.detail()),
        found.measure());
  }

  /** What is empty is nothing. */
  private static @Nullable String cell(String text) {
    return text.isEmpty() ? null : text;
  }

  long count() {
    return rows.rows();
  }

  Output output() {
    return output;
  }
}
