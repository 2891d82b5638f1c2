package org.abletwine.formats.workbook;

import java.util.List;
import org.abletwine.table.text.Veil;

/**
 * What the cells of a column were: a number among texts that begin with a zero is likely one that
 * has lost its own.
 */
final class ColumnCells {
  private long numbers;
  private long zeros;
  private int row;
  private int column;
  private String number = "";
  private String text = "";

  void met(SheetRow cells, int cell) {
    byte kind = cells.kind(cell);
    if (kind == SheetRow.NUMBER) {
      if (numbers++ == 0) {
        row = cells.row();
        column = cells.column(cell);
        number = cells.string(cell);
      }
    } else if (kind == SheetRow.TEXT) {
      int start = cells.start(cell);
      byte[] bytes = cells.text();
      boolean zero =
          cells.end(cell) > start + 1
              && bytes[start] == '0'
              && bytes[start + 1] >= '0'
              && bytes[start + 1] <= '9';
      if (zero && zeros++ == 0) {
        text = cells.string(cell);
      }
    }
  }

  /**
   * What is said of the column.
   *
   * @param name its name
   * @param hidden whether its values are private
   */
  List<String> remarks(String name, boolean hidden) {
    return numbers == 0 || zeros == 0
        ? List.of()
        : List.of(
            name
                + ": "
                + numbers
                + (numbers == 1 ? " cell is a number" : " cells are numbers")
                + " among texts such as "
                + Veil.over(hidden, text)
                + ": likely lost zeros, such as "
                + Veil.over(hidden, number)
                + " in "
                + CellArea.name(row, column)
                + "; compare with drop-leading-zeros");
  }
}
