package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/**
 * Which part of a workbook is a table.
 *
 * @param sheet the sheet's name, or its number from 1 on; null for the only one
 * @param headerRow the row that holds the names, 1-based; 0 for the first that is not blank
 * @param range the area of the table, its names included, such as {@code B4:H200}, {@code B:H} or
 *     {@code B4:H}; null for all of the sheet
 */
public record SheetPart(@Nullable String sheet, int headerRow, @Nullable String range) {
  /** The only sheet, all of it. */
  public static final SheetPart FIRST = new SheetPart(null, 0, null);

  /**
   * Checks the row.
   *
   * @throws SettingException when the row is negative
   */
  public SheetPart {
    if (headerRow < 0) {
      throw new SettingException("header-row: rows are numbered from 1 on, found " + headerRow);
    }
  }
}
