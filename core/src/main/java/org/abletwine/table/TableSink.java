package org.abletwine.table;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Takes enriched rows, in order. What was written counts only once {@link #commit()} has returned:
 * a sink closed without it leaves no trace. Not safe for use by several threads at once, nor is it
 * used so.
 */
public interface TableSink extends AutoCloseable {

  /**
   * Called once, before any row.
   *
   * @param source the table the rows come from, so that its way of writing can be kept
   * @param columns the columns to write
   */
  void start(Table source, Schema columns);

  /**
   * Takes a row.
   *
   * @param row its cells in the order of the columns, null for null; valid only during the call
   */
  void write(List<@Nullable String> row);

  /**
   * Shows what was written in its place.
   *
   * @throws DataException when that fails
   */
  void commit();

  /** Gives up what was written, unless it was committed. */
  @Override
  void close();
}
