package org.abletwine.formats.workbook;

import java.util.List;
import org.abletwine.table.ColumnType;
import org.jspecify.annotations.Nullable;

/**
 * Where the table in a sheet is.
 *
 * @param sheet the sheet, 0-based
 * @param place the sheet's name for messages, the file's before it
 * @param hidden whether the sheet is not shown
 * @param headerRow the row of names, 0-based; -1 for none
 * @param firstRow the first row of data, 0-based
 * @param area the columns of the table, and its last row
 * @param stated whether the area was stated, so that what lies beside it is left alone
 * @param names the columns' names
 * @param likely what the columns hold, judged by the first rows; null for texts, and where it is
 *     mixed
 */
record SheetHead(
    int sheet,
    String place,
    boolean hidden,
    int headerRow,
    int firstRow,
    CellArea area,
    boolean stated,
    List<String> names,
    List<@Nullable ColumnType> likely) {

  /** Returns how many columns the table has. */
  int columns() {
    return names.size();
  }
}
