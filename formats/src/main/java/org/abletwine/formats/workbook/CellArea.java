package org.abletwine.formats.workbook;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A part of a sheet, as spreadsheets write it: {@code B4:H200}, {@code B:H}, {@code B4:H}. Rows and
 * columns are 0-based, ends inclusive.
 *
 * @param firstColumn its first column
 * @param firstRow its first row
 * @param lastColumn its last column
 * @param lastRow its last row
 */
record CellArea(int firstColumn, int firstRow, int lastColumn, int lastRow) {
  /** Rows that a sheet has at most. */
  static final int MOST_ROWS = 1 << 20;

  /** Columns that a sheet has at most. */
  static final int MOST_COLUMNS = 1 << 14;

  static final CellArea ALL = new CellArea(0, 0, MOST_COLUMNS - 1, MOST_ROWS - 1);

  private static final Pattern FORM =
      Pattern.compile("\\$?([A-Z]{1,3})\\$?(\\d{0,7})(?::\\$?([A-Z]{1,3})\\$?(\\d{0,7}))?");

  /**
   * Reads an area.
   *
   * @param text such as {@code B4:H200}
   * @return null when it is none
   */
  static @Nullable CellArea parse(String text) {
    Matcher form = FORM.matcher(text.strip().toUpperCase(Locale.ROOT));
    if (!form.matches()) {
      return null;
    }
    int column = column(form.group(1));
    int row = form.group(2).isEmpty() ? 0 : Integer.parseInt(form.group(2)) - 1;
    boolean one = form.group(3) == null;
    int lastColumn = one ? column : column(form.group(3));
    String last = one ? form.group(2) : form.group(4);
    int lastRow = last.isEmpty() ? MOST_ROWS - 1 : Integer.parseInt(last) - 1;
    boolean right =
        row >= 0
            && column <= lastColumn
            && row <= lastRow
            && lastColumn < MOST_COLUMNS
            && lastRow < MOST_ROWS;
    return right ? new CellArea(column, row, lastColumn, lastRow) : null;
  }

  private static int column(String letters) {
    int column = 0;
    for (int i = 0; i < letters.length(); i++) {
      column = column * 26 + letters.charAt(i) - 'A' + 1;
    }
    return column - 1;
  }

  /**
   * The letters of a column.
   *
   * @param column 0-based
   */
  static String letters(int column) {
    StringBuilder letters = new StringBuilder();
    for (int left = column + 1; left > 0; left = (left - 1) / 26) {
      letters.insert(0, (char) ('A' + (left - 1) % 26));
    }
    return letters.toString();
  }

  /**
   * The name of a cell.
   *
   * @param row 0-based
   * @param column 0-based
   */
  static String name(int row, int column) {
    return letters(column) + (row + 1);
  }

  /** Returns whether a column, 0-based, is in the area. */
  boolean hasColumn(int column) {
    return column >= firstColumn && column <= lastColumn;
  }

  @Override
  public String toString() {
    return name(firstRow, firstColumn) + ":" + name(lastRow, lastColumn);
  }
}
