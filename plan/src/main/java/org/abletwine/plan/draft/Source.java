package org.abletwine.plan.draft;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.audit.TableProfile;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
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
 * @param forms how columns of dates and numbers are written, as a plan states it
 * @param undecided what a person has to say of columns whose values do not tell
 */
record Source(
    Path file,
    @Nullable String sheet,
    TableOptions options,
    Map<String, String> forms,
    List<String> undecided) {
  private static final int MOST_LOOKED_AT = 50_000;

  private static final Pattern FORM =
      Pattern.compile("\\{ (date|date-time|decimal): \"?(.*?)\"? }");

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
        ? new Source(
            Path.of(name.substring(0, colon)),
            name.substring(colon + 1),
            options,
            Map.of(),
            List.of())
        : new Source(given, null, options, Map.of(), List.of());
  }

  /** Rows of it as they are compared, and how they are read. */
  record Opened(Source source, SampleTable rows) {}

  /**
   * Looks at rows of it, and reads them again where they are written in a form of their own.
   *
   * @param most how many rows at most
   */
  Opened sample(int most) {
    Source formed = formed();
    return new Opened(formed, SampleTable.comparable(formed.open(), most));
  }

  /** The same, with how its dates and numbers are written and the words that stand for null. */
  Source formed() {
    Source nulls = formed(SampleTable.of(open(), MOST_LOOKED_AT));
    boolean more = !nulls.options.nulls().equals(options.nulls());
    // A word for null hides what the others are: they are looked at again without it.
    return more
        ? new Source(file, sheet, with(nulls.options.nulls(), options.types()), Map.of(), List.of())
            .formed(SampleTable.of(nulls.open(), MOST_LOOKED_AT))
        : nulls;
  }

  Table open() {
    TableOptions.Sheet all = options.sheet();
    TableOptions.Sheet part =
        sheet == null
            ? all
            : new TableOptions.Sheet(
                sheet, all == null ? 0 : all.headerRow(), all == null ? null : all.range());
    return Tables.file(file, options.but().sheet(Tables.hasSheets(file) ? part : null).build());
  }

  /**
   * The same, with how its dates and numbers are written, and with the words that stand for null in
   * it, where its values tell.
   *
   * @param sample rows of it
   */
  private Source formed(SampleTable sample) {
    if (sample.count() == 0) {
      return this;
    }
    Map<String, ColumnType> types = new LinkedHashMap<>(options.types());
    Map<String, String> found = new LinkedHashMap<>();
    Set<String> nulls = new LinkedHashSet<>(options.nulls());
    List<String> undecided = new ArrayList<>();
    for (TableProfile.Column column : TableProfile.of(sample).columns()) {
      Matcher form = FORM.matcher(column.written().size() == 1 ? column.written().get(0) : "");
      if (form.matches() && !types.containsKey(column.name())) {
        ColumnType.Kind kind =
            switch (form.group(1)) {
              case "date" -> ColumnType.Kind.DATE;
              case "date-time" -> ColumnType.Kind.DATE_TIME;
              default -> ColumnType.Kind.NUMBER;
            };
        types.put(column.name(), new ColumnType(kind, List.of(form.group(2))));
        found.put(column.name(), column.written().get(0));
      }
      if (column.written().size() > 1) {
        undecided.add(
            column.name()
                + " is written as "
                + String.join(" or ", column.written())
                + ", and its values do not tell: state which under types:");
      }
      column.nullWords().forEach(word -> nulls.add(word.value()));
    }
    TableOptions more = with(List.copyOf(nulls), types);
    return new Source(file, sheet, more, found, undecided);
  }

  private TableOptions with(List<String> nulls, Map<String, ColumnType> types) {
    return new TableOptions(
        options.delimiter(),
        options.quote(),
        options.header(),
        options.encoding(),
        nulls,
        options.pad(),
        types,
        options.nested(),
        options.sheet(),
        options.source(),
        options.hidden());
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
    TableOptions.Sheet part = options.sheet();
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
    if (!forms.isEmpty()) {
      List<String> types = new ArrayList<>();
      forms.forEach((column, form) -> types.add(DraftText.quoted(column) + ": " + form));
      text.append(", types: { ").append(String.join(", ", types)).append(" }");
    }
    return text.toString();
  }

  private static void setting(StringBuilder text, String name, @Nullable String value) {
    if (value != null) {
      boolean number = value.matches("[0-9]{1,6}") && name.equals("header-row");
      text.append(", ").append(name).append(": ").append(number ? value : DraftText.quoted(value));
    }
  }
}
