package org.abletwine.table.batch;

import java.util.BitSet;
import java.util.List;
import java.util.Map;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * Batches filled from a table that gives rows.
 *
 * @param table the table
 */
record RowsTable(Table table) implements BatchTable {
  private static final int ROWS_AT_ONCE = 1000;

  @Override
  public String name() {
    return table.name();
  }

  @Override
  public Schema schema() {
    return table.schema();
  }

  @Override
  public void readAgain() {
    table.readAgain();
  }

  @Override
  public long sizeInBytes() {
    return table.sizeInBytes();
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return table.type(column);
  }

  @Override
  public boolean isPrivate(String column) {
    return table.isPrivate(column);
  }

  @Override
  public List<String> remarks() {
    return table.remarks();
  }

  @Override
  public Map<String, String> traits() {
    return table.traits();
  }

  @Override
  public Rows rows() {
    return table.rows();
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return new BatchPieces(new Reader(table), schema().size(), wanted);
  }

  private static final class Reader implements TableReader {
    private final Table table;
    private final Rows rows;
    private final int columns;
    private long read;

    Reader(Table table) {
      this.table = table;
      this.columns = table.schema().size();
      this.rows = table.rows();
    }

    @Override
    public boolean read(Batch into) {
      into.clear(read + 1, '\0');
      while (into.rows() < ROWS_AT_ONCE) {
        List<@Nullable String> row = rows.next();
        if (row == null) {
          break;
        }
        read++;
        if (row.size() != columns) {
          throw new DataException(
              table.name()
                  + ", row "
                  + read
                  + ": "
                  + row.size()
                  + " cells, but there are "
                  + columns
                  + " columns; give one cell for each, null where there is no value",
              table.name(),
              read,
              null);
        }
        row.forEach(into::addCell);
        into.endRow();
      }
      return into.rows() > 0;
    }

    @Override
    public void close() {
      rows.close();
    }
  }
}
