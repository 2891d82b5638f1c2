package org.abletwine.table;

import java.nio.file.Path;
import java.util.ServiceLoader;

/** Opens tables and sinks by file name, with the formats on the class path. */
public final class Tables {
  private Tables() {}

  /**
   * A table in a file, all about its form found from the data. Nothing is read yet.
   *
   * @param path the file; {@code -} is standard input
   * @throws SettingException when no format handles the file
   */
  public static Table file(Path path) {
    return file(path, TableOptions.NONE);
  }

  /**
   * A table in a file. Nothing is read yet.
   *
   * @param path the file; {@code -} is standard input
   * @param options how to read it
   * @throws SettingException when no format handles the file
   */
  public static Table file(Path path, TableOptions options) {
    return format(path).table(path, options);
  }

  /**
   * A sink that writes a file: beside its target, and moved into place on commit.
   *
   * @param path the file; {@code -} is standard output
   * @throws SettingException when no format handles the file
   */
  public static TableSink sink(Path path) {
    return format(path).sink(path);
  }

  /**
   * Checks that a file can be written in the form that its name says.
   *
   * @param path the file; {@code -} is standard output
   * @throws SettingException when no format handles the file
   */
  public static void requireSink(Path path) {
    format(path);
  }

  private static TableFormat format(Path path) {
    for (TableFormat format : ServiceLoader.load(TableFormat.class)) {
      if (format.handles(path)) {
        return format;
      }
    }
    throw new SettingException(
        path + ": no reader for this kind of file; give a delimited text file such as .csv");
  }
}
