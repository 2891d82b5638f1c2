package org.abletwine.formats.workbook;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.TableReader;
import org.abletwine.table.text.Veil;

/**
 * Reads the rows of the table in a sheet. Blank rows between others are rows of nulls, so that rows
 * keep their distance from the head; blank rows at the end are none. Used by one thread.
 */
final class SheetReader implements TableReader {
  /** Blank rows one after another beyond which a row is taken for one that strayed. */
  private static final int MOST_BLANK = 1000;

  /** Characters of a cell that a message shows. */
  private static final int SHOWN = 40;

  private final SheetTable table;
  private final Workbook book;
  private final SheetHead head;
  private final Set<String> nulls;
  private final SheetCells cells;
  private final SheetRow row = new SheetRow();
  private final ColumnCells[] columns;
  private final Map<String, Long> errors = new TreeMap<>();
  private long rows;
  private int blanks;
  private int left;
  private int next;
  private long hidden;
  private long blank;
  private int firstBlank;
  private boolean ended;

  SheetReader(SheetTable table, Workbook book, SheetHead head, Set<String> nulls) {
    this.table = table;
    this.book = book;
    this.head = head;
    this.nulls = nulls;
    this.cells = book.cells(head.sheet());
    this.next = head.firstRow();
    this.columns = new ColumnCells[head.columns()];
    for (int i = 0; i < columns.length; i++) {
      columns[i] = new ColumnCells();
    }
  }

  @Override
  public boolean read(Batch into) {
    into.clear(rows + 1, '\0');
    while (!into.full() && readRow(into)) {
      into.endRow();
      rows++;
    }
    return into.rows() > 0;
  }

  private boolean readRow(Batch into) {
    if (blanks == 0 && left == 0 && !advance()) {
      return false;
    }
    if (blanks > 0) {
      blanks--;
      for (int i = 0; i < columns.length; i++) {
        into.addCell(null);
      }
    } else {
      left--;
      cells(into);
    }
    return true;
  }

  /** Goes on to the next row that is not blank. */
  private boolean advance() {
    while (!ended) {
      if (!cells.next(row)) {
        ended = true;
        table.readWhole(remarks());
        return false;
      }
      int first = Math.max(row.row(), next);
      int end = Math.min(row.row() + row.times(), head.area().lastRow() + 1);
      if (first < end && filled()) {
        blanks = first - next;
        if (blanks > MOST_BLANK) {
          throw new DataException(
              head.place()
                  + ": rows "
                  + (next + 1)
                  + " to "
                  + first
                  + " are blank, and row "
                  + (first + 1)
                  + " is not; state the range of the table, such as "
                  + new CellArea(
                      head.area().firstColumn(),
                      head.area().firstRow(),
                      head.area().lastColumn(),
                      next - 1)
                  + ", or clear that row");
        }
        if (blanks > 0 && blank == 0) {
          firstBlank = next;
        }
        blank += blanks;
        left = end - first;
        next = end;
        hidden += row.hidden() ? left : 0;
        return true;
      }
    }
    return false;
  }

  private boolean filled() {
    boolean any = false;
    for (int cell = 0; cell < row.count(); cell++) {
      if (row.end(cell) > row.start(cell)) {
        if (head.area().hasColumn(row.column(cell))) {
          any = true;
        } else if (!head.stated()) {
          throw new DataException(
              head.place()
                  + " cell "
                  + CellArea.name(row.row(), row.column(cell))
                  + " holds \""
                  + Veil.over(table.hidesAny(), shown(row.string(cell)))
                  + "\", beside the table, whose names go from "
                  + CellArea.letters(head.area().firstColumn())
                  + " to "
                  + CellArea.letters(head.area().lastColumn())
                  + "; name the column, or state range: "
                  + CellArea.letters(head.area().firstColumn())
                  + ":"
                  + CellArea.letters(head.area().lastColumn()));
        }
      }
    }
    return any;
  }

  private static String shown(String text) {
    return text.length() <= SHOWN ? text : text.substring(0, SHOWN) + "…";
  }

  private void cells(Batch into) {
    int cell = 0;
    int from = head.area().firstColumn();
    while (cell < row.count() && row.column(cell) < from) {
      cell++;
    }
    for (int column = 0; column < columns.length; column++) {
      if (cell >= row.count() || row.column(cell) != from + column) {
        into.addCell(null);
        continue;
      }
      cell(into, column, cell);
      cell++;
    }
  }

  private void cell(Batch into, int column, int cell) {
    byte kind = row.kind(cell);
    if (kind == SheetRow.ERROR) {
      errors.merge(row.string(cell), 1L, Long::sum);
      into.addCell(null);
      return;
    }
    columns[column].met(row, cell);
    if (!nulls.isEmpty() && nulls.contains(row.string(cell))) {
      into.addCell(null);
    } else {
      into.addCell(row.text(), row.start(cell), row.end(cell));
    }
  }

  /** What a person should know of what was read. */
  private List<String> remarks() {
    List<String> remarks = new ArrayList<>();
    if (head.hidden()) {
      remarks.add("the sheet is hidden; it was read");
    }
    if (hidden > 0) {
      remarks.add(hidden + (hidden == 1 ? " row is" : " rows are") + " hidden, and read as others");
    }
    if (blank > 0) {
      remarks.add(
          blank
              + (blank == 1 ? " blank row" : " blank rows")
              + " between others, such as row "
              + (firstBlank + 1)
              + ", read as nulls");
    }
    errors.forEach(
        (error, count) ->
            remarks.add(
                count + (count == 1 ? " cell holds " : " cells hold ") + error + ", read as null"));
    for (CellArea area : head.headerRow() < 0 ? List.<CellArea>of() : merged()) {
      remarks.add(
          "the header cell "
              + area
              + " is merged: it names column "
              + CellArea.letters(area.firstColumn())
              + " alone");
    }
    for (int i = 0; i < columns.length; i++) {
      remarks.addAll(columns[i].remarks(head.names().get(i), table.isPrivate(head.names().get(i))));
    }
    return remarks;
  }

  private List<CellArea> merged() {
    return cells.merged(head.headerRow()).stream()
        .filter(area -> head.area().hasColumn(area.firstColumn()))
        .toList();
  }

  @Override
  public long bytesRead() {
    return book.taken();
  }

  @Override
  public void close() {
    cells.close();
    book.close();
  }
}
