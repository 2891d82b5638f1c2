package org.abletwine;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.table.Batch;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableReader;
import org.jspecify.annotations.Nullable;

/** A table of strings, for tests; its batches are as small as asked, so that edges are met. */
public final class MemoryTable implements Table {
  private final String name;
  private final Schema schema;
  private final List<@Nullable String[]> rows;
  private final int batchRows;
  private final Map<String, ColumnType> types = new HashMap<>();

  public MemoryTable(
      String name, List<String> columns, List<@Nullable String[]> rows, int batchRows) {
    this.name = name;
    this.schema = new Schema(columns);
    this.rows = rows;
    this.batchRows = batchRows;
  }

  /**
   * A table from a header and rows written as text: cells parted by commas, an empty one is null.
   */
  public static MemoryTable of(String name, String header, String... rows) {
    return new MemoryTable(
        name,
        List.of(header.split(",")),
        Arrays.stream(rows)
            .map(
                row ->
                    Arrays.stream(row.split(",", -1))
                        .map(cell -> cell.isEmpty() ? null : cell)
                        .toArray(String[]::new))
            .toList(),
        3);
  }

  /** States the type of a column. */
  public MemoryTable typed(String column, ColumnType.Kind kind, String... patterns) {
    types.put(column, new ColumnType(kind, List.of(patterns)));
    return this;
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return types.get(column);
  }

  public @Nullable String cell(int row, int column) {
    return rows.get(row)[column];
  }

  public int rowCount() {
    return rows.size();
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public Schema schema() {
    return schema;
  }

  @Override
  public TableReader open() {
    return new TableReader() {
      private int next;

      @Override
      public boolean read(Batch into) {
        into.clear(next + 1, ',');
        for (int i = 0; i < batchRows && next < rows.size(); i++, next++) {
          int marks = 0;
          for (String cell : rows.get(next)) {
            into.addCell(cell);
            marks |= cell == null ? Batch.NULL : 0;
          }
          into.endRow(marks | Batch.ALTERED);
        }
        return into.rows() > 0;
      }

      @Override
      public void close() {}
    };
  }
}
