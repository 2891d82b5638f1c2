package org.abletwine.table.batch;

import java.util.BitSet;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Rows;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** A table that is read in batches, as all of our own are. */
public interface BatchTable extends Table {

  /**
   * Starts reading at the first row.
   *
   * @param first how many of the first cells of each row will be looked at, at least 1: the others
   *     need not be found. Who wants all cells of a row calls {@link Batch#complete} first
   * @param wanted which rows to give, by their number, 1-based; not to be changed meanwhile; null
   *     for all
   * @throws DataException when the table cannot be read
   */
  Pieces pieces(int first, @Nullable BitSet wanted);

  /**
   * Starts reading at the first row, for someone who looks at some columns only: a table that is
   * kept by column leaves the others alone, and gives null for their cells.
   *
   * @param first as above
   * @param wanted as above
   * @param looked the columns that are looked at, 0-based; null for all
   * @throws DataException when the table cannot be read
   */
  default Pieces pieces(int first, @Nullable BitSet wanted, @Nullable BitSet looked) {
    return pieces(first, wanted);
  }

  /**
   * Whether cells of columns that nobody looks at are left alone, and null: then a row cannot be
   * completed ({@link Batch#complete}) that was read for few of its columns, but must be read
   * again.
   */
  default boolean byColumn() {
    return false;
  }

  /**
   * What a column holds, as far as the first rows tell, for a sink that writes values by their
   * kind: cells that do not fit are written as texts.
   *
   * @param column its name
   * @return its type, or null when it is not known or mixed
   */
  default @Nullable ColumnType likely(String column) {
    return type(column);
  }

  @Override
  default Rows rows() {
    return new BatchRows(this);
  }

  /**
   * A table in batches.
   *
   * @param table any table
   * @return itself when it is read in batches, else one that fills batches from its rows
   */
  static BatchTable of(Table table) {
    return table instanceof BatchTable batches ? batches : new RowsTable(table);
  }
}
