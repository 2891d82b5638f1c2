package org.abletwine.cli;

import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.formats.database.Drivers;
import org.abletwine.plan.Delimiters;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.text.NearestName;
import picocli.CommandLine.Option;

/** How to read tables, where it is not to be found from the data. */
final class ReadingOptions {
  @Option(
      names = "--delimiter",
      paramLabel = "NAME",
      description = "comma, semicolon, tab, pipe or a character. Default: found from the data.")
  private String delimiter;

  @Option(
      names = "--encoding",
      paramLabel = "NAME",
      description = "Such as windows-1252. Default: what the byte-order mark says, else utf-8.")
  private String encoding;

  @Option(
      names = "--header",
      paramLabel = "yes|no",
      description = "Whether the first row holds the names. Default: found from the data.")
  private String header;

  @Option(
      names = "--nulls",
      paramLabel = "WORDS",
      split = ",",
      description = "Words that stand for null, beside the empty cell.")
  private List<String> nulls = List.of();

  @Option(
      names = "--ragged",
      paramLabel = "fail|pad",
      defaultValue = "fail",
      description = "For rows with too few cells. Default: ${DEFAULT-VALUE}.")
  private String ragged;

  @Option(
      names = "--nested",
      paramLabel = "text|columns",
      defaultValue = "text",
      description =
          "In JSON, what an object within an object becomes: one column of text, or a"
              + " column for each member. Default: ${DEFAULT-VALUE}.")
  private String nested;

  @Option(
      names = {"--sheet", "--table"},
      paramLabel = "NAME",
      description =
          "The sheet of a workbook, by name or number; the table of a database. Default: the only"
              + " one.")
  private String sheet;

  @Option(
      names = "--header-row",
      paramLabel = "N",
      description = "The row of a sheet that holds the names. Default: the first not blank.")
  private int headerRow;

  @Option(
      names = "--range",
      paramLabel = "B4:H200",
      description = "The area of the table in a sheet, names included. Default: all of it.")
  private String range;

  @Option(
      names = "--driver-path",
      paramLabel = "FILE",
      description = "A library with a JDBC driver, beside those for SQLite and PostgreSQL.")
  private List<Path> drivers = List.of();

  @Option(
      names = "--source",
      paramLabel = "COLUMN",
      description = "Adds a column with the name of the file each row is of.")
  private String source;

  @Option(
      names = "--private",
      paramLabel = "COLUMNS",
      split = ",",
      description =
          "Columns whose values are shown nowhere but in rows that are written; a short digest"
              + " stands for each.")
  private List<String> hidden = List.of();

  /** How to read one of two tables: a sheet is for those that have any. */
  TableOptions of(Path file) {
    TableOptions all = options();
    boolean sheets = Tables.matching(file).stream().allMatch(Tables::hasSheets);
    return sheets ? all : all.but().sheet(null).build();
  }

  TableOptions options() {
    drivers.forEach(Drivers::add);
    drivers = List.of();
    Character character = delimiter == null ? null : Delimiters.parse(delimiter);
    if (delimiter != null && character == null) {
      throw new SettingException("--delimiter: " + Delimiters.expected(delimiter));
    }
    if (header != null && !List.of("yes", "no").contains(header)) {
      throw new SettingException("--header: expected yes or no, found \"" + header + "\"");
    }
    if (!List.of("fail", "pad").contains(ragged)) {
      throw new SettingException("--ragged: expected fail or pad, found \"" + ragged + "\"");
    }
    if (!List.of("text", "columns").contains(nested)) {
      throw new SettingException("--nested: expected text or columns, found \"" + nested + "\"");
    }
    return new TableOptions(
        character,
        null,
        header == null ? null : header.equals("yes"),
        encoding,
        nulls,
        ragged.equals("pad"),
        Map.of(),
        nested.equals("columns"),
        sheet == null && headerRow == 0 && range == null
            ? null
            : new TableOptions.Sheet(sheet, headerRow, range),
        source,
        Set.copyOf(hidden));
  }

  /** Returns the columns that are kept private. */
  Set<String> hidden() {
    return Set.copyOf(hidden);
  }

  /**
   * Holds that the columns kept private are there: a slip would keep nothing private.
   *
   * @param tables the tables
   */
  void checkPrivate(Table... tables) {
    Set<String> known = new LinkedHashSet<>();
    for (Table table : tables) {
      known.addAll(table.schema().names());
    }
    for (String name : hidden) {
      if (!known.contains(name)) {
        throw new SettingException(
            "--private: there is no column \"" + name + "\"; " + NearestName.hint(name, known));
      }
    }
  }
}
