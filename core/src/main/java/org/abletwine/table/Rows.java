package org.abletwine.table;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** The rows of a table, one after another. Not safe for use by several threads at once. */
public interface Rows extends AutoCloseable {

  /**
   * Goes on to the next row.
   *
   * @return its cells in the order of the columns, null for null; null when there are no more rows
   * @throws DataException when the row cannot be read
   */
  @Nullable List<@Nullable String> next();

  @Override
  void close();
}
