package org.abletwine.plan.draft;

import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.table.DataException;
import org.abletwine.table.SheetPart;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/**
 * A table that a draft is made from: a file, or a sheet of one.
 *
 * @param file the file
 * @param sheet the sheet of a workbook, or the table of a database; null for the only one
 * @param options how to read it
 */
record Source(Path file, @Nullable String sheet, TableOptions options) {

  /**
   * Reads what a person wrote: {@code masters.xlsx:Growers} is a sheet of a file, where there is no
   * file of that very name.
   *
   * @throws DataException when it can be read only once
   */
  static Source of(Path given, TableOptions options) {
    String name = given.toString();
    int colon = name.lastIndexOf(':');
    if (name.equals("-") || Files.exists(given) && !Files.isRegularFile(given)) {
      throw new DataException(
          name
              + " can be read only once, and a draft looks at its tables twice; save it as a file");
    }
    boolean part =
        colon > 0 && !Files.exists(given) && Files.exists(Path.of(name.substring(0, colon)));
    return part
        ? new Source(Path.of(name.substring(0, colon)), name.substring(colon + 1), options)
        : new Source(given, null, options);
  }

  Table open() {
    SheetPart all = options.sheet();
    SheetPart part =
        sheet == null
            ? all
            : new SheetPart(
                sheet, all == null ? 0 : all.headerRow(), all == null ? null : all.range());
    return Tables.file(file, options.withSheet(Tables.hasSheets(file) ? part : null));
  }

  /** The name of the table: the sheet's, else the file's, without its ending. */
  String name() {
    String name = sheet == null ? String.valueOf(file.getFileName()) : sheet;
    int dot = name.indexOf('.');
    return sheet == null && dot > 0 ? name.substring(0, dot) : name;
  }

  /** How it is read, as a plan states it after the file; empty for nothing. */
  String settings() {
    StringBuilder text = new StringBuilder();
    SheetPart part = options.sheet();
    String which = sheet == null && part != null ? part.sheet() : sheet;
    boolean sheets = Tables.hasSheets(file);
    setting(text, "sheet", sheets ? which : null);
    if (sheets && part != null) {
      setting(text, "header-row", part.headerRow() == 0 ? null : "" + part.headerRow());
      setting(text, "range", part.range());
    }
    Character delimiter = options.delimiter();
    setting(text, "delimiter", delimiter == null ? null : delimiter.toString());
    Boolean header = options.header();
    if (header != null) {
      text.append(", header: ").append(header);
    }
    setting(text, "encoding", options.encoding());
    if (!options.nulls().isEmpty()) {
      text.append(", nulls: [")
          .append(String.join(", ", options.nulls().stream().map(DraftText::quoted).toList()))
          .append(']');
    }
    text.append(options.pad() ? ", ragged: pad" : "");
    text.append(options.nested() ? ", nested: columns" : "");
    setting(text, "source", options.source());
    return text.toString();
  }

  private static void setting(StringBuilder text, String name, @Nullable String value) {
    if (value != null) {
      boolean number = value.matches("[0-9]{1,6}") && name.equals("header-row");
      text.append(", ").append(name).append(": ").append(number ? value : DraftText.quoted(value));
    }
  }
}
