package org.abletwine;

import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.TableReader;
import org.jspecify.annotations.Nullable;

/**
 * A table of strings, for tests. Its batches are as small as asked, so that edges are met, and each
 * is filled in another of the ways there are ({@link BatchFilling}), so that every test meets all.
 */
public final class MemoryTable implements BatchTable {
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
  public boolean byColumn() {
    return true;
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return pieces(first, wanted, null);
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted, @Nullable BitSet looked) {
    return new BatchPieces(reader(looked), schema.size(), wanted);
  }

  /** The cells of columns that nobody looks at are null, as those of a table kept by column. */
  private @Nullable String[] shown(@Nullable String[] row, @Nullable BitSet looked) {
    if (looked == null) {
      return row;
    }
    @Nullable String[] shown = new @Nullable String[row.length];
    looked.stream().forEach(column -> shown[column] = row[column]);
    return shown;
  }

  /** Fills each batch in another way: the way of its number, and of this table. */
  public TableReader reader(@Nullable BitSet looked) {
    return new TableReader() {
      private int next;
      private int batches =
          Math.floorMod(name.hashCode() + rows.size(), BatchFilling.values().length);

      @Override
      public boolean read(Batch into) {
        int end = Math.min(rows.size(), next + batchRows);
        BatchFilling.values()[batches++ % BatchFilling.values().length].fill(
            into,
            next + 1,
            rows.subList(next, end).stream().map(row -> shown(row, looked)).toList());
        next = end;
        return into.rows() > 0;
      }

      @Override
      public void close() {}
    };
  }
}
