package org.abletwine.formats.workbook;

/** Goes through the rows of a sheet. Used by one thread. */
interface SheetCells extends AutoCloseable {

  /**
   * Reads the next row that the file tells of, which may be blank.
   *
   * @param into takes it; rows come in the order of their numbers
   * @return false when there is none left
   * @throws org.abletwine.table.DataException when it cannot be read
   */
  boolean next(SheetRow into);

  /**
   * The cells of one row that were merged with cells beside them, such as {@code B1:D1}; known once
   * the sheet was read to its end.
   *
   * @param row the row, 0-based
   */
  java.util.List<CellArea> merged(int row);

  @Override
  void close();
}
