package org.abletwine.table;

import java.io.IOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.ServiceLoader;
import org.abletwine.table.batch.FormedTable;
import org.abletwine.table.batch.ManyTables;
import org.jspecify.annotations.Nullable;

/** Opens tables and sinks by file name, with the formats on the class path. */
public final class Tables {
  private Tables() {}

  /**
   * A table of rows that a program holds.
   *
   * @param columns the names of its columns
   * @param rows its rows, in order; each has a cell for each column, null for null. They are not
   *     copied, and must not change while the table is read
   * @return the table
   * @throws SettingException when a name stands twice
   */
  public static Table of(List<String> columns, List<? extends List<@Nullable String>> rows) {
    Objects.requireNonNull(columns, "columns");
    Objects.requireNonNull(rows, "rows");
    return of("rows", columns, rows);
  }

  /**
   * A table of rows that a program holds.
   *
   * @param name what messages call it
   * @param columns the names of its columns
   * @param rows its rows, in order; each has a cell for each column, null for null. They are not
   *     copied, and must not change while the table is read
   * @return the table
   * @throws SettingException when a name stands twice
   */
  public static Table of(
      String name, List<String> columns, List<? extends List<@Nullable String>> rows) {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(columns, "columns");
    Objects.requireNonNull(rows, "rows");
    try {
      return new HeldTable<List<@Nullable String>>(
          name, new Schema(columns), Map.of(), rows, row -> row);
    } catch (IllegalArgumentException e) {
      throw new SettingException(name + ": " + e.getMessage());
    }
  }

  /**
   * A table of records, or of beans: a column for each component of the record, or for each getter
   * of the bean in the order of its fields, with its type. Texts, numbers, truth values, dates,
   * times and constants of an enum become cells; null and an empty {@code Optional} become null.
   *
   * @param <T> what the records are
   * @param records the objects, of one class, at least one; not copied
   * @return the table
   * @throws SettingException when there is none, which would tell the columns, or the class has
   *     neither components nor getters, or cannot be looked into
   */
  public static <T> Table records(List<T> records) {
    Objects.requireNonNull(records, "records");
    if (records.isEmpty()) {
      throw new SettingException("no records, so that no columns are known: state their class");
    }
    return records(records.get(0).getClass(), records);
  }

  /**
   * A table of records or beans of a stated class, of which there may be none.
   *
   * @param type their class
   * @param records the objects; not copied
   * @return the table
   * @throws SettingException when the class has neither components nor getters, or cannot be looked
   *     into
   */
  public static Table records(Class<?> type, List<?> records) {
    Objects.requireNonNull(type, "type");
    Objects.requireNonNull(records, "records");
    ObjectColumns columns = ObjectColumns.of(type);
    return new HeldTable<Object>(
        type.getSimpleName(), columns.schema(), columns.types(), records, columns::cells);
  }

  /**
   * A table in a file, all about its form found from the data. Nothing is read yet.
   *
   * @param path the file; {@code -} is standard input
   * @return the table
   * @throws SettingException when no format handles the file
   */
  public static Table file(Path path) {
    Objects.requireNonNull(path, "path");
    return file(path, TableOptions.NONE);
  }

  /**
   * A table in a file. Nothing is read yet.
   *
   * @param path the file; {@code -} is standard input
   * @param options how to read it
   * @return the table
   * @throws SettingException when no format handles the file
   */
  public static Table file(Path path, TableOptions options) {
    Objects.requireNonNull(path, "path");
    Objects.requireNonNull(options, "options");
    List<Path> files = matching(path);
    requireSheets(files, options);
    return files.equals(List.of(path)) && options.source() == null
        ? FormedTable.of(format(path).table(path, options), options)
        : together(path.getFileName() + "", files, options);
  }

  /**
   * Several files as one table, read in this order: rows are numbered on, columns are matched by
   * name. A name with {@code *} or {@code ?} stands for all files that it fits, in the order of
   * their names.
   *
   * @param paths the files
   * @param options how to read each of them
   * @return the table
   * @throws SettingException when there are none, or no format handles one
   */
  public static Table files(List<Path> paths, TableOptions options) {
    Objects.requireNonNull(paths, "paths");
    Objects.requireNonNull(options, "options");
    if (paths.size() == 1) {
      return file(paths.get(0), options);
    }
    List<Path> all = new ArrayList<>();
    paths.forEach(path -> all.addAll(matching(path)));
    requireSheets(all, options);
    if (all.isEmpty()) {
      throw new SettingException("no file is named; name at least one");
    }
    return together(all.get(0).getFileName() + " and " + (all.size() - 1) + " more", all, options);
  }

  private static void requireSheets(List<Path> files, TableOptions options) {
    for (Path file : files) {
      if (options.sheet() != null && !hasSheets(file)) {
        throw new SettingException(
            file + " is no workbook: leave out sheet, header-row and range, or name one");
      }
    }
  }

  /**
   * Whether a file holds several tables, of which one is stated: a workbook, or a database.
   *
   * @param path the file
   * @return whether it has
   */
  public static boolean hasSheets(Path path) {
    Objects.requireNonNull(path, "path");
    for (TableFormat format : ServiceLoader.load(TableFormat.class)) {
      if (format.handles(path)) {
        return format.hasSheets(path);
      }
    }
    return false;
  }

  private static Table together(String name, List<Path> files, TableOptions options) {
    List<Table> tables = new ArrayList<>();
    files.forEach(file -> tables.add(format(file).table(file, options)));
    return FormedTable.of(new ManyTables(name, tables, options.source(), options.pad()), options);
  }

  /**
   * The files that a path stands for: itself, or all that fit it when it holds {@code *} or {@code
   * ?} and there is no file of that very name.
   *
   * @param path the path
   * @return the files, in the order of their names
   * @throws SettingException when it fits none
   */
  public static List<Path> matching(Path path) {
    Objects.requireNonNull(path, "path");
    String name = path.getFileName() == null ? "" : path.getFileName().toString();
    boolean address = path.toString().startsWith("jdbc:"); // whose settings follow a question mark
    if (name.indexOf('*') < 0 && name.indexOf('?') < 0 || address || Files.exists(path)) {
      return List.of(path);
    }
    Path parent = path.getParent();
    List<Path> found = new ArrayList<>();
    try (DirectoryStream<Path> files =
        Files.newDirectoryStream(
            parent == null ? Path.of("") : parent, name.replaceAll("[\\\\\\[\\]{}]", "\\\\$0"))) {
      files.forEach(found::add);
    } catch (IOException | DirectoryIteratorException e) {
      throw new SettingException(path + ": the folder cannot be read; check its name");
    }
    found.removeIf(Files::isDirectory);
    if (found.isEmpty()) {
      throw new SettingException(
          path + " fits no file; check the name and the folder, and quote it for the shell");
    }
    Collections.sort(found);
    return found;
  }

  /**
   * A sink that writes a file: beside its target, and moved into place on commit.
   *
   * @param path the file; {@code -} is standard output
   * @return the sink, to be started
   * @throws SettingException when no format handles the file
   */
  public static TableSink sink(Path path) {
    Objects.requireNonNull(path, "path");
    return destination(path, OutputOptions.NONE).open(null);
  }

  /**
   * A file to write a table to. Nothing is written before it is opened.
   *
   * @param path the file; {@code -} is standard output
   * @param options how to write it
   * @return the destination
   * @throws SettingException when no format writes such a file, or not in that way
   */
  public static Destination destination(Path path, OutputOptions options) {
    Objects.requireNonNull(path, "path");
    Objects.requireNonNull(options, "options");
    TableFormat format = writer(path);
    format.check(path, options);
    return new FileDestination(path, format, options);
  }

  /** A file, or a sheet of one. */
  private record FileDestination(Path file, TableFormat format, OutputOptions options)
      implements Destination {
    @Override
    public TableSink open(@Nullable TableSink beside) {
      return format.sink(file, options, beside);
    }

    @Override
    public @Nullable Destination part(Path other) {
      Objects.requireNonNull(other, "other");
      return format.inParts(file) ? new FileDestination(other, format, options) : null;
    }

    @Override
    public String shortName() {
      return file.getFileName() + sheet();
    }

    @Override
    public boolean together() {
      return options.sheet() != null;
    }

    @Override
    public boolean equals(@Nullable Object other) {
      return other instanceof FileDestination same
          && same.file.equals(file)
          && same.options.equals(options);
    }

    @Override
    public int hashCode() {
      return file.hashCode();
    }

    private String sheet() {
      return options.sheet() == null ? "" : " sheet " + options.sheet();
    }

    @Override
    public String toString() {
      return file + sheet();
    }
  }

  private static TableFormat writer(Path path) {
    for (TableFormat format : ServiceLoader.load(TableFormat.class)) {
      if (format.writes(path)) {
        return format;
      }
    }
    throw new SettingException(
        path
            + ": no table is written to a file of that ending; give one of .csv, .tsv, .txt, .json,"
            + " .jsonl (each also packed, as .gz, .zst or .zip), .xlsx, .ods, .parquet");
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
