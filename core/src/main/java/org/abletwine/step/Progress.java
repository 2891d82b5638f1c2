package org.abletwine.step;

import java.util.function.LongSupplier;
import org.abletwine.table.Table;

/** Told which table is being read, so that a person can be shown how far it is. */
public interface Progress {
  /** Tells nobody. */
  Progress NONE = (table, bytes, rows) -> () -> {};

  /**
   * Reading of a table begins.
   *
   * @param table the table
   * @param bytes bytes read so far; may be asked from any thread
   * @param rows rows done so far; may be asked from any thread
   * @return to be run once when reading has ended
   */
  Runnable reading(Table table, LongSupplier bytes, LongSupplier rows);
}
