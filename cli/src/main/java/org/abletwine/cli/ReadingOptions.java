package org.abletwine.cli;

import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.plan.Delimiters;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.text.NearestName;

/** How to read tables, where it is not to be found from the data. */
final class ReadingOptions {
  private final Given<String> delimiter;
  private final Given<String> encoding;
  private final Given<String> header;
  private final Given<List<String>> nulls;
  private final Given<String> ragged;
  private final Given<String> nested;
  private final Given<String> sheet;
  private final Given<Integer> headerRow;
  private final Given<String> range;
  private final DriverOption drivers;
  private final Given<String> source;
  private final Given<List<String>> hidden;

  ReadingOptions(Usage usage) {
    delimiter =
        usage.option(
            "--delimiter",
            "NAME",
            "comma, semicolon, tab, pipe or a character. Default: found from the data.");
    encoding =
        usage.option(
            "--encoding",
            "NAME",
            "Such as windows-1252. Default: what the byte-order mark says, else utf-8.");
    header =
        usage.option(
            "--header",
            "yes|no",
            "Whether the first row holds the names. Default: found from the data.");
    nulls =
        usage
            .options("--nulls", "WORDS", "Words that stand for null, beside the empty cell.")
            .parted();
    ragged =
        usage
            .option(
                "--ragged", "fail|pad", "For rows with too few cells. Default: ${DEFAULT-VALUE}.")
            .usually("fail");
    nested =
        usage
            .option(
                "--nested",
                "text|columns",
                "In JSON, what an object within an object becomes: one column of text, or a"
                    + " column for each member. Default: ${DEFAULT-VALUE}.")
            .usually("text");
    sheet =
        usage
            .option(
                "--sheet",
                "NAME",
                "The sheet of a workbook, by name or number; the table of a database. Default: the only"
                    + " one.")
            .orCalled("--table");
    headerRow =
        usage
            .option(
                "--header-row",
                "N",
                Integer.class,
                "The row of a sheet that holds the names. Default: the first not blank.")
            .otherwise(0);
    range =
        usage.option(
            "--range",
            "B4:H200",
            "The area of the table in a sheet, names included. Default: all of it.");
    drivers = new DriverOption(usage);
    source =
        usage.option(
            "--source", "COLUMN", "Adds a column with the name of the file each row is of.");
    hidden =
        usage
            .options(
                "--private",
                "COLUMNS",
                "Columns whose values are shown nowhere but in rows that are written; a short digest"
                    + " stands for each.")
            .parted();
  }

  /** How to read one of two tables: a sheet is for those that have any. */
  TableOptions of(Path file) {
    TableOptions all = options();
    boolean sheets = Tables.matching(file).stream().allMatch(Tables::hasSheets);
    return sheets ? all : all.but().sheet(null).build();
  }

  TableOptions options() {
    drivers.add();
    Character character = delimiter.orNull() == null ? null : Delimiters.parse(delimiter.orNull());
    if (delimiter.orNull() != null && character == null) {
      throw new SettingException("--delimiter: " + Delimiters.expected(delimiter.orNull()));
    }
    if (header.orNull() != null && !List.of("yes", "no").contains(header.orNull())) {
      throw new SettingException("--header: expected yes or no, found \"" + header.orNull() + "\"");
    }
    if (!List.of("fail", "pad").contains(ragged.get())) {
      throw new SettingException("--ragged: expected fail or pad, found \"" + ragged.get() + "\"");
    }
    if (!List.of("text", "columns").contains(nested.get())) {
      throw new SettingException(
          "--nested: expected text or columns, found \"" + nested.get() + "\"");
    }
    return new TableOptions(
        character,
        null,
        header.orNull() == null ? null : header.orNull().equals("yes"),
        encoding.orNull(),
        nulls.get(),
        ragged.get().equals("pad"),
        Map.of(),
        nested.get().equals("columns"),
        sheet.orNull() == null && headerRow.get() == 0 && range.orNull() == null
            ? null
            : new TableOptions.Sheet(sheet.orNull(), headerRow.get(), range.orNull()),
        source.orNull(),
        Set.copyOf(hidden.get()));
  }

  /** Returns the columns that are kept private. */
  Set<String> hidden() {
    return Set.copyOf(hidden.get());
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
    for (String name : hidden.get()) {
      if (!known.contains(name)) {
        throw new SettingException(
            "--private: there is no column \"" + name + "\"; " + NearestName.hint(name, known));
      }
    }
  }
}
