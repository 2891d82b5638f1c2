package org.abletwine.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.jspecify.annotations.Nullable;

/** Writes what needs attention to a file, as it is met. */
final class ExceptionFile implements ExceptionList {
  private final ListedRows rows;
  private final Output output;
  private final int carried;

  /**
   * @param sink takes the rows; not started yet
   * @param carry columns of the transactions that go with each of their rows
   */
  ExceptionFile(BatchSink sink, List<String> carry) {
    List<String> names = new ArrayList<>(List.of("step", "kind", "table", "row"));
    names.addAll(carry);
    names.addAll(List.of("key", "detail", "measure"));
    List<@Nullable ColumnType> types = new ArrayList<>();
    for (int i = 0; i < names.size(); i++) {
      boolean number = i == 3 || i == names.size() - 1;
      types.add(number ? ColumnType.of(ColumnType.Kind.NUMBER) : null);
    }
    carried = carry.size();
    rows = new ListedRows(sink, types, names);
    output = rows.output();
  }

  @Override
  public void found(Found found) {
    List<@Nullable String> cells = new ArrayList<>();
    cells.add(cell(found.step()));
    cells.add(cell(found.kind()));
    cells.add(cell(found.table()));
    cells.add(found.row() == 0 ? null : Long.toString(found.row()));
    for (int i = 0; i < carried; i++) {
      cells.add(i < found.carried().size() ? found.carried().get(i) : null);
    }
    cells.add(cell(found.key()));
    cells.add(cell(found.detail()));
    cells.add(found.measure());
    rows.row(cells.toArray(new @Nullable String[0]));
  }

  /** What is empty is nothing. */
  static @Nullable String cell(String text) {
    return text.isEmpty() ? null : text;
  }

  @Override
  public void finish(Set<String> hidden) {
    // each row was written as it was met
  }

  @Override
  public long rows() {
    return rows.rows();
  }

  @Override
  public String told() {
    return rows.rows() + " exceptions";
  }

  @Override
  public Output output() {
    return output;
  }
}
