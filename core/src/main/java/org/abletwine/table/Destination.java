package org.abletwine.table;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * Somewhere a table can be written to: a file, a sheet of a workbook, a table of a database.
 * Immutable; its text names it for messages.
 */
public interface Destination {

  /**
   * Makes a sink that writes there.
   *
   * @param beside a sink of the same run that writes another sheet of the same file; null for none
   * @return the sink, to be started
   * @throws SettingException when nothing can be written there
   * @throws DataException when it cannot be reached
   */
  TableSink open(@Nullable TableSink beside);

  /** {@return the file that it is or is in; null when it is none} */
  @Nullable Path file();

  /** {@return whether others may be in the same file, such as other sheets of a workbook} */
  default boolean together() {
    return false;
  }

  /**
   * Another place that is written in the same way, for some of the rows of this one.
   *
   * @param file its file
   * @return the place; null where a table cannot be written in parts that are one table when they
   *     stand one behind the other
   */
  default @Nullable Destination part(Path file) {
    return null;
  }

  /** {@return its name without folders} */
  default String shortName() {
    Path file = file();
    return file == null || file.getFileName() == null ? toString() : file.getFileName().toString();
  }
}
