package org.abletwine.table.spill;

import java.util.BitSet;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.TableReader;
import org.abletwine.table.output.StoredBytes;
import org.jspecify.annotations.Nullable;

/** Some rows of a table, kept in a file with their numbers. Safe to share between threads. */
public final class SpilledTable implements BatchTable {
  private final StoredBytes file;
  private final long rows;
  private final Table origin;
  private final int[] kept;

  /**
   * @param rows of each its number, and then its cells
   * @param origin the table that they are of: its name, columns and types are those of this one
   * @param kept which columns the file has, ascending; the others are null
   */
  public SpilledTable(Stored rows, Table origin, int[] kept) {
    this.file = rows.bytes();
    this.rows = rows.rows();
    this.origin = origin;
    this.kept = kept.clone();
  }

  @Override
  public String name() {
    return origin.name();
  }

  @Override
  public Schema schema() {
    return origin.schema();
  }

  @Override
  public long sizeInBytes() {
    return file.size();
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return origin.type(column);
  }

  @Override
  public boolean isPrivate(String column) {
    return origin.isPrivate(column);
  }

  @Override
  public @Nullable ColumnType likely(String column) {
    return origin instanceof BatchTable batches ? batches.likely(column) : type(column);
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return new BatchPieces(new Reader(), schema().size(), wanted);
  }

  private final class Reader implements TableReader {
    private final ByteCursor cursor = new ByteCursor(file);
    private final int columns = schema().size();
    private long left = rows;

    @Override
    public boolean read(Batch into) {
      boolean first = true;
      while (left > 0 && (first || !into.full())) {
        long number = cursor.number();
        if (first) {
          into.clear(number, '\0');
          first = false;
        }
        int next = 0;
        for (int column = 0; column < columns; column++) {
          if (next == kept.length || kept[next] != column) {
            into.addCell(null);
            continue;
          }
          next++;
          int start = cursor.cell();
          into.addCell(cursor.bytes(), start, start + cursor.length());
        }
        into.endRow();
        into.numberRow(number);
        left--;
      }
      return !first;
    }

    @Override
    public long bytesRead() {
      return cursor.place();
    }

    @Override
    public void close() {
      // the file belongs to the run
    }
  }

  @Override
  public String toString() {
    return "SpilledTable[" + rows + " rows of " + origin.name() + "]";
  }
}
