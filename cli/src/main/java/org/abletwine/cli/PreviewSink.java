package org.abletwine.cli;

import java.io.PrintStream;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Veil;

/** Keeps the first rows and prints them as tables no wider than a terminal. */
final class PreviewSink implements BatchSink {
  private static final int WIDTH = 116;
  private static final int WIDEST_CELL = 24;

  private final List<String[]> rows = new ArrayList<>();
  private final List<Long> numbers = new ArrayList<>();
  private List<String> names = List.of();
  private Set<String> hidden = Set.of();
  private int sourceColumns;

  @Override
  public void keepPrivate(List<String> columns) {
    hidden = Set.copyOf(columns);
  }

  @Override
  public void start(Table source, Schema columns) {
    names = columns.names();
    sourceColumns = source.schema().size();
  }

  @Override
  public void write(Batch batch, int[] columns) {
    for (int row = 0; row < batch.rows(); row++) {
      String[] cells = new String[columns.length];
      for (int i = 0; i < cells.length; i++) {
        CellVector column = batch.column(columns[i]);
        cells[i] = shown(Veil.over(hidden.contains(names.get(i)), column.get(row)));
      }
      rows.add(cells);
      numbers.add(batch.rowNumber(row));
    }
  }

  private static String shown(@org.jspecify.annotations.Nullable String cell) {
    if (cell == null) {
      return "null";
    }
    String line = cell.replace("\n", "\\n").replace("\r", "\\r");
    return line.length() > WIDEST_CELL ? line.substring(0, WIDEST_CELL - 1) + "…" : line;
  }

  void print(PrintStream out, boolean colour) {
    int from = 0;
    while (from < names.size()) {
      int to = from;
      int width = 8;
      do {
        width += columnWidth(to) + 2;
        to++;
      } while (to < names.size() && width + columnWidth(to) + 2 <= WIDTH);
      print(out, from, to, colour);
      from = to;
    }
  }

  private int columnWidth(int column) {
    return Math.max(
        names.get(column).length(),
        rows.stream().mapToInt(r -> r[column].length()).max().orElse(0));
  }

  private void print(PrintStream out, int from, int to, boolean colour) {
    char[] left = new char[to - from + 1];
    Arrays.fill(left, 'l');
    left[0] = 'r';
    TextTable table = new TextTable(new String(left));
    table.cell("row", Ink.DIM);
    for (int column = from; column < to; column++) {
      table.cell(names.get(column), column < sourceColumns ? Ink.BOLD : Ink.GOOD);
    }
    table.end();
    for (int i = 0; i < rows.size(); i++) {
      table.cell(Long.toString(numbers.get(i)), Ink.DIM);
      for (int column = from; column < to; column++) {
        String cell = rows.get(i)[column];
        table.cell(cell, cell.equals("null") ? Ink.WARN : Ink.PLAIN);
      }
      table.end();
    }
    table.render(colour).forEach(out::println);
    out.println();
  }

  @Override
  public void commit() {
    // nothing to make final: the rows are printed
  }

  @Override
  public void close() {
    // nothing held
  }
}
