package org.abletwine.table;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/** A file format, found with {@link java.util.ServiceLoader}. Implementations are stateless. */
public interface TableFormat {

  /**
   * {@return whether this format reads and writes files of that name}
   *
   * @param path a file
   */
  boolean handles(Path path);

  /**
   * {@return whether this format writes files of that name}
   *
   * @param path a file
   */
  default boolean writes(Path path) {
    return handles(path);
  }

  /**
   * {@return whether such a file holds several tables, such as sheets, of which one is stated}
   *
   * @param path a file
   */
  default boolean hasSheets(Path path) {
    return false;
  }

  /**
   * {@return whether files of that name can be written in parts which are one file when they stand
   * one behind the other}
   *
   * @param path a file
   */
  default boolean inParts(Path path) {
    return false;
  }

  /**
   * A table in a file. Nothing is read yet.
   *
   * @param path the file; {@code -} is standard input
   * @param options how to read it
   * @return the table
   */
  Table table(Path path, TableOptions options);

  /**
   * Checks how a file is to be written.
   *
   * @param path the file
   * @param options how to write it
   * @throws SettingException when they do not fit the format
   */
  default void check(Path path, OutputOptions options) {
    if (!options.equals(OutputOptions.NONE)) {
      throw new SettingException(
          path + ": files of this kind are written in one way; state the file alone");
    }
  }

  /**
   * A sink that writes a file: beside its target, and moved into place on commit.
   *
   * @param path the file; {@code -} is standard output
   * @param options how to write it; checked before
   * @param beside a sink of the same run for the same file; null for none
   * @return the sink, to be started
   */
  TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside);
}
