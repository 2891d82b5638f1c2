package org.abletwine.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Some thousand rows of a table, and the columns that steps have added to them. Reused; not safe
 * for use by several threads at once.
 *
 * <p>Base cells lie row after row in one character buffer, each followed by one separator
 * character, so that any run of neighbouring cells is one contiguous slice: cell {@code k} (row
 * times columns plus column) is {@code text[ends[k] + 1 .. ends[k + 1])}, with {@code ends[0] ==
 * -1}. A quoted cell is held without its quotes and marked. Added columns are {@link CellVector}s
 * numbered after the base columns.
 *
 * <p>Rows can be left out or repeated ({@link #pick}); {@code baseRow} then says where each row's
 * base cells are. Until then it is the identity.
 */
public final class Batch {
  /** Rows a reader puts into one batch. Chosen so that a batch stays within a core's cache. */
  public static final int ROWS = 2048;

  /** Characters after which a batch counts as full, so that long texts do not swell it. */
  private static final int MOST_CHARACTERS = 1 << 22;

  /** Mark of a null cell. */
  public static final byte NULL = 1;

  /** Mark of a cell that stood in quotes. */
  public static final byte QUOTED = 2;

  private final int columns;
  private char[] text;
  private int[] ends;
  private byte[] marks;
  private byte[] rowMarks;
  private int cells;
  private int used;
  private int rowStart;
  private int baseRows;
  private char separator = ',';
  private long firstRow;

  private int rows;
  private int[] baseRow = new int[0];
  private boolean picked;
  private final List<CellVector> added = new ArrayList<>();
  private int addedCount;
  private final CellVector[] views;
  private final boolean[] viewReady;

  /**
   * @param columns how many base columns the table has
   */
  public Batch(int columns) {
    this.columns = columns;
    this.text = new char[ROWS * columns * 8];
    this.ends = new int[ROWS * columns + 1];
    this.marks = new byte[ROWS * columns];
    this.rowMarks = new byte[ROWS];
    this.views = new CellVector[columns];
    this.viewReady = new boolean[columns];
    clear(0, ',');
  }

  private Batch(int columns, int rowsExpected) {
    this.columns = columns;
    this.text = new char[64 * rowsExpected];
    this.ends = new int[rowsExpected * columns + 1];
    this.marks = new byte[rowsExpected * columns];
    this.rowMarks = new byte[rowsExpected];
    this.views = new CellVector[columns];
    this.viewReady = new boolean[columns];
    clear(1, '\0');
  }

  /**
   * A batch of a single row.
   *
   * @param cells its cells; null for a null cell
   * @return the batch
   */
  public static Batch ofOneRow(@Nullable String... cells) {
    Batch batch = new Batch(cells.length, 1);
    byte rowMark = 0;
    for (String cell : cells) {
      byte mark = cell == null ? NULL : 0;
      rowMark |= mark;
      batch.addCell(
          cell == null ? new char[0] : cell.toCharArray(),
          0,
          cell == null ? 0 : cell.length(),
          mark);
    }
    batch.endRow(rowMark);
    return batch;
  }

  /**
   * Empties the batch for refilling.
   *
   * @param firstRow number of the first row to come, 1-based, counted over the table without its
   *     header
   * @param separator the character that stands between cells in the buffer
   */
  public void clear(long firstRow, char separator) {
    this.firstRow = firstRow;
    this.separator = separator;
    cells = 0;
    used = 0;
    rowStart = 0;
    ends[0] = -1;
    baseRows = 0;
    rows = 0;
    picked = false;
    addedCount = 0;
    Arrays.fill(viewReady, false);
  }

  /**
   * Appends the next cell of the row being filled.
   *
   * @param source buffer to copy from
   * @param start first character, 0-based
   * @param length characters
   * @param mark {@link #NULL}, {@link #QUOTED}, both or 0
   */
  public void addCell(char[] source, int start, int length, byte mark) {
    if (used + length + 1 > text.length) {
      text = Arrays.copyOf(text, Math.max(used + length + 1, text.length + text.length / 2));
    }
    if (cells == marks.length) {
      marks = Arrays.copyOf(marks, cells * 2 + 1);
      ends = Arrays.copyOf(ends, cells * 2 + 2);
    }
    char[] target = text;
    int at = used;
    if (length < 12) {
      for (int i = 0; i < length; i++) {
        target[at + i] = source[start + i];
      }
    } else {
      System.arraycopy(source, start, target, at, length);
    }
    at += length;
    marks[cells] = mark;
    ends[++cells] = at;
    target[at] = separator;
    used = at + 1;
  }

  /** Returns how many cells the row being filled has so far. */
  public int cellsInRow() {
    return cells - rowStart;
  }

  /**
   * Ends the row being filled.
   *
   * @param rowMark the marks of its cells, or-ed together
   */
  public void endRow(byte rowMark) {
    assert cells - rowStart == columns : "a row has every column";
    if (baseRows == rowMarks.length) {
      rowMarks = Arrays.copyOf(rowMarks, baseRows * 2 + 1);
    }
    rowMarks[baseRows++] = rowMark;
    rowStart = cells;
    rows = baseRows;
  }

  /** Takes back the cells of the row being filled. */
  public void abandonRow() {
    cells = rowStart;
    used = ends[cells] + 1;
  }

  /** Returns whether a reader should stop filling: enough rows, or enough characters. */
  public boolean full() {
    return baseRows >= ROWS || used >= MOST_CHARACTERS;
  }

  /** Returns how many rows the batch holds now. */
  public int rows() {
    return rows;
  }

  /** Returns how many base columns there are. */
  public int baseColumns() {
    return columns;
  }

  /** Returns the number of the first row read into this batch, 1-based. */
  public long firstRow() {
    return firstRow;
  }

  /** Returns the character between base cells in the buffer. */
  public char separator() {
    return separator;
  }

  /** Returns the buffer of the base cells. */
  public char[] baseText() {
    return text;
  }

  /**
   * @param row a row, 0-based
   * @return where its base cells are: to be used with {@link #baseStart} and the like
   */
  public int baseRow(int row) {
    return picked ? baseRow[row] : row;
  }

  /**
   * @param row a row, 0-based
   * @return its number in the table, 1-based, header not counted
   */
  public long rowNumber(int row) {
    return firstRow + baseRow(row);
  }

  /**
   * @param baseRow what {@link #baseRow} returned
   * @param column a base column, 0-based
   * @return first character of the cell in {@link #baseText()}
   */
  public int baseStart(int baseRow, int column) {
    return ends[baseRow * columns + column] + 1;
  }

  /**
   * @param baseRow what {@link #baseRow} returned
   * @param column a base column, 0-based
   * @return end of the cell in {@link #baseText()}, exclusive
   */
  public int baseEnd(int baseRow, int column) {
    return ends[baseRow * columns + column + 1];
  }

  /**
   * @param baseRow what {@link #baseRow} returned
   * @param column a base column, 0-based
   * @return the marks of the cell
   */
  public byte baseMark(int baseRow, int column) {
    return marks[baseRow * columns + column];
  }

  /**
   * @param baseRow what {@link #baseRow} returned
   * @return the marks of all its cells, or-ed together
   */
  public byte rowMark(int baseRow) {
    return rowMarks[baseRow];
  }

  /**
   * The cells of a column, base or added.
   *
   * @param column column number; added columns follow the base columns
   * @return its cells; valid until the batch is cleared or picked
   */
  public CellVector column(int column) {
    if (column >= columns) {
      return added.get(column - columns);
    }
    CellVector view = views[column];
    if (view == null) {
      view = new CellVector();
      views[column] = view;
    }
    if (!viewReady[column]) {
      fillView(view, column);
      viewReady[column] = true;
    }
    return view;
  }

  /**
   * Fills a vector with the slices of a base column, for a step that changes the slices.
   *
   * @param target the vector to fill
   * @param column column number, base or added
   */
  public void copySlices(CellVector target, int column) {
    if (column < columns) {
      fillView(target, column);
      return;
    }
    CellVector from = added.get(column - columns);
    target.viewOf(from.text, rows);
    System.arraycopy(from.starts, 0, target.starts, 0, rows);
    System.arraycopy(from.ends, 0, target.ends, 0, rows);
  }

  private void fillView(CellVector view, int column) {
    view.viewOf(text, rows);
    int[] viewStarts = view.starts;
    int[] viewEnds = view.ends;
    for (int row = 0; row < rows; row++) {
      int cell = baseRow(row) * columns + column;
      if ((marks[cell] & NULL) != 0) {
        viewStarts[row] = -1;
        viewEnds[row] = -1;
      } else {
        viewStarts[row] = ends[cell] + 1;
        viewEnds[row] = ends[cell + 1];
      }
    }
  }

  /**
   * Adds an empty column for a step to fill with exactly {@link #rows()} cells.
   *
   * @return the vector to fill; its number is {@link #baseColumns()} plus the columns added before
   */
  public CellVector addColumn() {
    if (addedCount == added.size()) {
      added.add(new CellVector());
    }
    CellVector column = added.get(addedCount++);
    column.clear();
    return column;
  }

  /**
   * Keeps only the stated rows, in that order; a row may be named more than once.
   *
   * @param wanted rows to keep, 0-based
   * @param count how many of them
   */
  public void pick(int[] wanted, int count) {
    int[] next = new int[Math.max(count, 1)];
    for (int i = 0; i < count; i++) {
      next[i] = baseRow(wanted[i]);
    }
    for (int i = 0; i < addedCount; i++) {
      added.get(i).pick(wanted, count);
    }
    baseRow = next;
    picked = true;
    rows = count;
    Arrays.fill(viewReady, false);
  }

  @Override
  public String toString() {
    return "Batch[rows " + firstRow + " to " + (firstRow + baseRows - 1) + ", " + rows + " kept]";
  }
}
