package org.abletwine.table.batch;

import java.util.List;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Stretch.Looked;
import org.abletwine.table.batch.Stretch.Range;

/** A table that can be read from the middle on, so that several processes may read it together. */
public interface RangedTable extends BatchTable {

  /**
   * Cuts the table into stretches, without looking at its rows.
   *
   * @param bytes how many each should have, about; 1 at least
   * @return the stretches, in their order; one for a table that can only be read as a whole
   * @throws DataException when the table cannot be read
   */
  List<Stretch> stretches(long bytes);

  /**
   * Looks at one stretch.
   *
   * @param stretch one of those into which the table was cut
   * @throws DataException when the table cannot be read
   */
  Looked look(Stretch stretch);

  /**
   * Some rows of the table, as a table of their own, in which they have the numbers that they have
   * here.
   *
   * @param range which rows
   */
  BatchTable rows(Range range);

  /**
   * A table that can be read from the middle on.
   *
   * @param table any table
   * @return itself when it can, else one that consists of a single stretch
   */
  static RangedTable of(Table table) {
    return table instanceof RangedTable ranged ? ranged : new WholeTable(BatchTable.of(table));
  }
}
