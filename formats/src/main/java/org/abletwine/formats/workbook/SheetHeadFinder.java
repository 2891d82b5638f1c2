package org.abletwine.formats.workbook;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.abletwine.formats.workbook.Workbook.Sheet;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/** Finds the table in a workbook: the sheet, the row of names, and what the first rows hold. */
final class SheetHeadFinder {
  /** Rows that are looked at for what columns hold. */
  private static final int SAMPLE = 500;

  private final Workbook book;
  private final String file;
  private final TableOptions options;
  private final TableOptions.Sheet part;

  SheetHeadFinder(Workbook book, String file, TableOptions options) {
    this.book = book;
    this.file = file;
    this.options = options;
    this.part = options.sheet() == null ? TableOptions.Sheet.FIRST : options.sheet();
  }

  SheetHead find() {
    int sheet = sheet();
    String place = file + " sheet " + book.sheets().get(sheet).name();
    CellArea area = area();
    try (SheetCells cells = book.cells(sheet)) {
      SheetRow row = new SheetRow();
      int first = part.headerRow() > 0 ? part.headerRow() - 1 : area.firstRow();
      int last = part.headerRow() > 0 ? first : area.lastRow();
      if (first < area.firstRow() || first > area.lastRow()) {
        throw new SettingException(
            "header-row: row " + part.headerRow() + " is not within the range " + part.range());
      }
      boolean found = false;
      while (!found && cells.next(row)) {
        found = row.row() >= first && filled(row, area);
      }
      if (!found || row.row() > last) {
        throw new DataException(
            place
                + (part.headerRow() > 0
                    ? ": row " + part.headerRow() + " holds no names; state another header-row"
                    : part.range() != null
                        ? ": nothing stands in the range " + part.range() + "; state another"
                        : " is empty; choose another with sheet: NAME"));
      }
      boolean named = !Boolean.FALSE.equals(options.header());
      CellArea columns = columns(row, area, part.range() != null);
      List<String> names = names(row, columns, named, place);
      int headerRow = named ? row.row() : -1;
      int firstRow = named ? row.row() + 1 : row.row();
      Kinds[] kinds =
          IntStream.range(0, names.size()).mapToObj(i -> new Kinds()).toArray(Kinds[]::new);
      for (int rows = 0; rows < SAMPLE && cells.next(row); rows++) {
        for (int cell = 0; cell < row.count(); cell++) {
          if (columns.hasColumn(row.column(cell))) {
            kinds[row.column(cell) - columns.firstColumn()].met(row, cell);
          }
        }
      }
      List<@Nullable ColumnType> likely = new ArrayList<>();
      for (Kinds kind : kinds) {
        likely.add(kind.type());
      }
      return new SheetHead(
          sheet,
          place,
          book.sheets().get(sheet).hidden(),
          headerRow,
          firstRow,
          columns,
          part.range() != null,
          names,
          likely);
    }
  }

  /** What cells of a column are. */
  private static final class Kinds {
    private int met;
    private boolean mixed;

    void met(SheetRow row, int cell) {
      byte kind = row.kind(cell);
      int is =
          switch (kind) {
            case SheetRow.NUMBER -> 1;
            case SheetRow.TRUTH -> 2;
            case SheetRow.TIME -> row.end(cell) - row.start(cell) == 10 ? 3 : 4;
            case SheetRow.ERROR -> 0;
            default -> 5;
          };
      mixed |= is > 0 && met > 0 && met != is;
      met = is > 0 ? is : met;
    }

    @Nullable ColumnType type() {
      return mixed
          ? null
          : switch (met) {
            case 1 -> ColumnType.of(ColumnType.Kind.NUMBER);
            case 2 -> ColumnType.of(ColumnType.Kind.BOOLEAN);
            case 3 -> ColumnType.of(ColumnType.Kind.DATE);
            case 4 -> ColumnType.of(ColumnType.Kind.DATE_TIME);
            default -> null;
          };
    }
  }

  private CellArea area() {
    String range = part.range();
    CellArea area = range == null ? CellArea.ALL : CellArea.parse(range);
    if (area == null) {
      throw new SettingException(
          "range: expected an area such as B4:H200, or B:H, found \"" + range + "\"");
    }
    return area;
  }

  private int sheet() {
    List<Sheet> sheets = book.sheets();
    if (sheets.isEmpty()) {
      throw new DataException(file + " has no sheet of cells; check what was saved");
    }
    String wanted = part.sheet();
    if (wanted == null) {
      if (sheets.size() == 1) {
        return 0;
      }
      throw new SettingException(
          file + " has several sheets; state one with sheet: NAME, of " + listed());
    }
    for (int i = 0; i < sheets.size(); i++) {
      if (sheets.get(i).name().equals(wanted)) {
        return i;
      }
    }
    for (int i = 0; i < sheets.size(); i++) {
      if (sheets.get(i).name().equalsIgnoreCase(wanted)) {
        return i;
      }
    }
    if (wanted.matches("[1-9]\\d{0,3}") && Integer.parseInt(wanted) <= sheets.size()) {
      return Integer.parseInt(wanted) - 1;
    }
    throw new SettingException(
        file
            + " has no sheet \""
            + wanted
            + "\"; "
            + NearestName.of(wanted, sheets.stream().map(Sheet::name).toList())
                .map(near -> "did you mean \"" + near + "\"? ")
                .orElse("")
            + "It has "
            + listed());
  }

  private String listed() {
    return IntStream.range(0, book.sheets().size())
        .mapToObj(
            i ->
                book.sheets().get(i).name()
                    + " ("
                    + book.size(i)
                    + (book.sheets().get(i).hidden() ? ", hidden" : "")
                    + ")")
        .collect(Collectors.joining(", "));
  }

  private static boolean filled(SheetRow row, CellArea area) {
    for (int cell = 0; cell < row.count(); cell++) {
      if (area.hasColumn(row.column(cell)) && row.end(cell) > row.start(cell)) {
        return true;
      }
    }
    return false;
  }

  /** The columns of the table: those that were stated, or from the first name to the last. */
  private static CellArea columns(SheetRow head, CellArea area, boolean stated) {
    int first = -1;
    int last = -1;
    for (int cell = 0; cell < head.count(); cell++) {
      if (area.hasColumn(head.column(cell)) && head.end(cell) > head.start(cell)) {
        first = first < 0 ? head.column(cell) : first;
        last = head.column(cell);
      }
    }
    boolean all = stated && area.lastColumn() < CellArea.MOST_COLUMNS - 1;
    return new CellArea(
        all ? area.firstColumn() : first,
        head.row(),
        all ? area.lastColumn() : last,
        area.lastRow());
  }

  private static List<String> names(SheetRow head, CellArea area, boolean named, String place) {
    int count = area.lastColumn() - area.firstColumn() + 1;
    List<String> names = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      names.add("column " + (i + 1));
    }
    if (!named) {
      return names;
    }
    Map<String, Integer> seen = new HashMap<>();
    for (int cell = 0; cell < head.count(); cell++) {
      String name = head.string(cell).strip();
      if (area.hasColumn(head.column(cell)) && !name.isEmpty()) {
        names.set(head.column(cell) - area.firstColumn(), name);
      }
    }
    for (int i = 0; i < count; i++) {
      Integer before = seen.put(names.get(i), i);
      if (before != null) {
        throw new DataException(
            place
                + " row "
                + (head.row() + 1)
                + ": the header names \""
                + names.get(i)
                + "\" twice, in columns "
                + CellArea.letters(area.firstColumn() + before)
                + " and "
                + CellArea.letters(area.firstColumn() + i)
                + "; rename one of them, or state header-row or range");
      }
    }
    return names;
  }
}
