package org.abletwine.table;

import java.nio.file.Path;

/** A file format, found with {@link java.util.ServiceLoader}. Implementations are stateless. */
public interface TableFormat {

  /**
   * @param path a file
   * @return whether this format reads and writes files of that name
   */
  boolean handles(Path path);

  /**
   * A table in a file. Nothing is read yet.
   *
   * @param path the file; {@code -} is standard input
   * @param options how to read it
   */
  Table table(Path path, TableOptions options);

  /**
   * A sink that writes a file: beside its target, and moved into place on commit.
   *
   * @param path the file; {@code -} is standard output
   */
  TableSink sink(Path path);
}
