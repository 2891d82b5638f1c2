package org.abletwine.formats.workbook;

import java.util.List;

/** A workbook file, open for reading. */
interface Workbook extends AutoCloseable {

  /**
   * A sheet of cells.
   *
   * @param name its name
   * @param hidden whether it is not shown
   */
  record Sheet(String name, boolean hidden) {}

  /** Returns the sheets that hold cells, in their order. */
  List<Sheet> sheets();

  /** How large a sheet is, in words. */
  String size(int sheet);

  /** Starts reading a sheet at its first row. */
  SheetCells cells(int sheet);

  /** Returns how many packed bytes have been read so far; may be asked from any thread. */
  long taken();

  @Override
  void close();
}
