package org.abletwine.table.batch;

import java.util.Arrays;
import org.abletwine.table.DataException;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * Some thousand rows of a table, and the columns that steps have added to them. Reused; belongs to
 * one thread at a time.
 *
 * <p>Base cells are slices of one buffer of UTF-8 that holds the rows as they stood in the source,
 * separators included: cell {@code k} (row times columns plus column) is {@code text[starts[k] ..
 * ends[k])}, without its quotes. So a run of neighbouring cells is one contiguous slice, from the
 * first one's {@link #rawStart} to the last one's {@link #rawEnd}, as long as no cell of the row is
 * marked {@link #ALTERED}. Added columns are {@link CellVector}s numbered after the base columns.
 *
 * <p>Rows can be left out or repeated ({@link #pick}); {@code baseRow} then says where each row's
 * base cells are. Until then it is the identity.
 */
public final class Batch {
  /** Rows a reader puts into one batch. Chosen so that a batch stays within a core's cache. */
  public static final int ROWS = 2048;

  /** Bytes after which a batch counts as full, so that long texts do not swell it. */
  private static final int MOST_BYTES = 1 << 22;

  /** Rows that there is room for from the beginning; it grows when more of them come. */
  private static final int ROWS_AHEAD = 64;

  /** Cells that there is room for from the beginning, at most. */
  private static final int MOST_CELLS_AHEAD = 1 << 13;

  /** Cells after which a batch counts as full, so that a row of many does not swell it. */
  private static final int MOST_CELLS = 1 << 20;

  /** Mark of a null cell. */
  public static final byte NULL = 1;

  /** Mark of a cell that stood in quotes. */
  public static final byte QUOTED = 2;

  /** Mark of a cell whose text in the buffer is not what stood in the source. */
  public static final byte ALTERED = 4;

  /** Mark of a row of which only the first cells and the end are noted. */
  private static final byte PARTIAL = 8;

  private final int columns;
  private byte[] text;
  private int used;
  private int[] starts;
  private int[] ends;
  private byte[] marks;
  private byte[] rowMarks;
  private int cells;
  private @Nullable UnseenCells unseenCells;
  private int rowStart;

  /** How many cells of each row that is partial are noted: a reader notes as many of each. */
  private int noted;

  /** The marks of cells added to the row being filled, or-ed together. */
  private int addedMarks;

  private int mostRows = ROWS;
  private int baseRows;
  private byte separator = ',';
  private final KeptRows kept = new KeptRows();
  private final BatchColumns vectors;

  /** Makes a batch of rows of a table that has so many columns. */
  public Batch(int columns) {
    this(columns, ROWS_AHEAD, ',');
  }

  Batch(int columns, int rowsAhead, char separator) {
    this.columns = columns;
    int cellsAhead = Math.min(rowsAhead * columns, MOST_CELLS_AHEAD);
    this.text = new byte[8 * cellsAhead + CellVector.SLACK];
    this.starts = new int[cellsAhead];
    this.ends = new int[cellsAhead];
    this.marks = new byte[cellsAhead];
    this.rowMarks = new byte[rowsAhead];
    this.vectors = new BatchColumns(this, columns);
    clear(1, separator);
  }

  /**
   * Empties the batch for refilling.
   *
   * @param firstRow number of the first row to come, 1-based, counted over the table without its
   *     header
   * @param separator the character that stands between cells in the buffer, ASCII
   */
  public void clear(long firstRow, char separator) {
    kept.clear(firstRow);
    this.separator = (byte) separator;
    cells = 0;
    used = 0;
    rowStart = 0;
    addedMarks = 0;
    baseRows = 0;
    vectors.clear();
  }

  /**
   * Appends the next cell of the row being filled, which did not stand in any file: a writer puts
   * it in quotes where that is needed.
   *
   * @param value its text, or null
   * @throws DataException when it holds half of a surrogate pair
   */
  public void addCell(@Nullable CharSequence value) {
    int start = used;
    int end = start;
    room(value == null ? 1 : Utf8.MOST_BYTES * value.length() + 1);
    if (value != null) {
      end = Utf8.write(value, text, start);
    }
    added(start, end, value == null);
  }

  /**
   * Appends the next cell, of text elsewhere.
   *
   * @param from valid UTF-8
   * @param first its first byte, 0-based; one before 0 makes the cell null
   * @param end its end, exclusive
   */
  public void addCell(byte[] from, int first, int end) {
    int start = used;
    int length = first < 0 ? 0 : end - first;
    room(length + 1);
    System.arraycopy(from, Math.max(first, 0), text, start, length);
    added(start, start + length, first < 0);
  }

  private void added(int start, int end, boolean isNull) {
    text[end] = separator;
    used = end + 1;
    int mark = isNull ? NULL : start == end ? QUOTED | ALTERED : ALTERED;
    addedMarks |= mark;
    addSlice(start, end, mark);
  }

  /**
   * Makes room after the text held so far, for a reader that writes there itself.
   *
   * @param more bytes that must fit
   * @return the buffer; write from {@link #used()} on and call {@link #took} afterwards
   */
  public byte[] room(int more) {
    if (used + more + CellVector.SLACK > text.length) {
      int length = text.length + (text.length >> 1);
      text = Arrays.copyOf(text, Math.max(used + more + CellVector.SLACK, length));
    }
    return text;
  }

  /**
   * Takes another buffer in place of its own, for a reader that cuts cells out of text where it
   * lies. To be called right after {@link #clear}.
   *
   * @param rows UTF-8, with {@link CellVector#SLACK} bytes behind what the cells take; not to be
   *     changed while the batch is used, but by that reader
   */
  public void over(byte[] rows) {
    text = rows;
  }

  /** Returns how many bytes of text the rows take; more once rows were picked. */
  public int used() {
    return used;
  }

  /**
   * Takes bytes that a reader has written after {@link #used()}.
   *
   * @param count how many; valid UTF-8
   */
  public void took(int count) {
    used += count;
  }

  /**
   * Appends the next cell of the row being filled, as a slice of the buffer.
   *
   * @param start first byte, 0-based
   * @param end end, exclusive
   * @param mark {@link #NULL}, {@link #QUOTED}, {@link #ALTERED}, or-ed; or 0
   */
  public void addSlice(int start, int end, int mark) {
    if (cells == marks.length) {
      marks = Arrays.copyOf(marks, cells * 2 + 1);
      starts = Arrays.copyOf(starts, cells * 2 + 1);
      ends = Arrays.copyOf(ends, cells * 2 + 1);
    }
    marks[cells] = (byte) mark;
    starts[cells] = start;
    ends[cells++] = end;
  }

  /**
   * Begins a row whose cells a reader notes itself, as slices of the buffer: from the place
   * returned on in {@link #cellStarts}, {@link #cellEnds} and {@link #cellMarks}, where there is
   * room for all of its cells. To be followed by {@link #note}.
   *
   * @return the place of the first cell
   */
  public int beginRow() {
    if (rowStart + columns > marks.length) {
      int length = (rowStart + columns) * 2;
      marks = Arrays.copyOf(marks, length);
      starts = Arrays.copyOf(starts, length);
      ends = Arrays.copyOf(ends, length);
    }
    return rowStart;
  }

  /** Returns where cells begin; until the next row begins. */
  public int[] cellStarts() {
    return starts;
  }

  /** Returns where cells end, exclusive; until the next row begins. */
  public int[] cellEnds() {
    return ends;
  }

  /** Returns how cells are marked, as in {@link #addSlice}; until the next row begins. */
  public byte[] cellMarks() {
    return marks;
  }

  /** Takes so many cells noted in the row begun, which is to be ended then. */
  public void note(int count) {
    cells = rowStart + count;
  }

  /**
   * Ends a row that {@link #beginRow} began, whose other cells were not looked into.
   *
   * @param rowMark the marks of the cells noted, or-ed together; none is {@link #ALTERED}
   * @param start where the first of the other cells begins in the buffer
   * @param end where the row ends in the buffer, exclusive
   * @param unseen notes the other cells; used by {@link #complete}
   */
  public void endPartialRow(int rowMark, int start, int end, UnseenCells unseen) {
    noted = cells - rowStart;
    cells = rowStart + columns;
    starts[cells - 1] = start;
    ends[cells - 1] = end;
    unseenCells = unseen;
    endRow(rowMark | PARTIAL);
  }

  /**
   * Notes the cells of a row that were not, where a reader was told that few will be looked at.
   * Called before any cell but the first ones is asked for.
   *
   * @param row the row, 0-based
   */
  public void complete(int row) {
    int base = baseRow(row);
    if ((rowMarks[base] & PARTIAL) == 0 || unseenCells == null) {
      return;
    }
    int last = (base + 1) * columns - 1;
    int cell = base * columns + noted;
    int any = unseenCells.note(text, starts[last], ends[last], starts, ends, marks, cell);
    rowMarks[base] = (byte) (rowMarks[base] & ~PARTIAL | any);
  }

  /** Returns how many cells the row being filled has so far. */
  public int cellsInRow() {
    return cells - rowStart;
  }

  /**
   * Ends the row being filled.
   *
   * @param rowMark the marks of its cells that were added as slices, or-ed together
   * @throws IllegalStateException when the row has not as many cells as the table has columns
   */
  public void endRow(int rowMark) {
    if (cells - rowStart != columns) {
      throw new IllegalStateException(
          "row %d has %d cells where the table has %d columns"
              .formatted(firstRow() + baseRows, cellsInRow(), columns));
    }
    if (baseRows == rowMarks.length) {
      rowMarks = Arrays.copyOf(rowMarks, baseRows * 2 + 1);
    }
    rowMarks[baseRows++] = (byte) (rowMark | addedMarks);
    addedMarks = 0;
    rowStart = cells;
    kept.all(baseRows);
  }

  /**
   * States the number of the row ended last, for a reader that leaves rows out: then for every row.
   *
   * @param number its number in the table, 1-based
   */
  public void numberRow(long number) {
    kept.number(baseRows - 1, number);
  }

  /** Ends a row whose cells were all added by {@link #addCell}. */
  public void endRow() {
    endRow(0);
  }

  /** Takes back the cells of the row being filled. */
  public void abandonRow() {
    cells = rowStart;
    addedMarks = 0;
  }

  /** Lets the batch take all rows that there are, however many. */
  public void takeAll() {
    mostRows = Integer.MAX_VALUE;
  }

  /** Returns whether a reader should stop filling: enough rows, text or cells. */
  public boolean full() {
    int worth = Math.max(used / (MOST_BYTES / ROWS), cells / (MOST_CELLS / ROWS));
    return Math.max(baseRows, worth) >= mostRows;
  }

  /** States the number of the first row read into this batch, 1-based; the others follow it. */
  void numberFrom(long number) {
    kept.first(number);
  }

  /** Returns how many rows the batch holds now. */
  public int rows() {
    return kept.count();
  }

  /** Returns how many base columns there are. */
  public int baseColumns() {
    return columns;
  }

  /** Returns the number of the first row read into this batch, 1-based. */
  public long firstRow() {
    return kept.first();
  }

  /** Returns the character between base cells in the buffer. */
  public char separator() {
    return (char) separator;
  }

  /** Returns the buffer of the base cells. */
  public byte[] text() {
    return text;
  }

  /** Returns where the base cells of a row are, for {@link #baseStart} and the like. */
  public int baseRow(int row) {
    return kept.place(row);
  }

  /** Returns a row's number in the table, 1-based, header not counted. */
  public long rowNumber(int row) {
    return kept.number(row);
  }

  // Of the following, rows are what baseRow returned, and columns base columns, 0-based.

  /** Returns where in {@link #text()} a cell begins. */
  public int baseStart(int baseRow, int column) {
    return starts[baseRow * columns + column];
  }

  /** Returns where in {@link #text()} a cell ends, exclusive. */
  public int baseEnd(int baseRow, int column) {
    return ends[baseRow * columns + column];
  }

  /** Returns where a cell as it stood in the source begins, its quote included. */
  public int rawStart(int baseRow, int column) {
    return baseStart(baseRow, column) - (baseMark(baseRow, column) >> 1 & 1);
  }

  /** Returns where a cell as it stood in the source ends, its quote included, exclusive. */
  public int rawEnd(int baseRow, int column) {
    return baseEnd(baseRow, column) + (baseMark(baseRow, column) >> 1 & 1);
  }

  /** Returns where a row as it stood in the source ends, exclusive, its line end not included. */
  public int rowEnd(int baseRow) {
    boolean whole = (rowMarks[baseRow] & PARTIAL) == 0;
    return whole ? rawEnd(baseRow, columns - 1) : ends[(baseRow + 1) * columns - 1];
  }

  /** Returns the marks of a cell. */
  public byte baseMark(int baseRow, int column) {
    return marks[baseRow * columns + column];
  }

  /** Returns the marks of all cells of a row, or-ed together. */
  public byte rowMark(int baseRow) {
    return rowMarks[baseRow];
  }

  /**
   * Returns the cells of a column; added ones follow the base columns. Valid until the batch is
   * cleared or picked; not to be changed but by the step that adds the column.
   */
  public CellVector column(int column) {
    return vectors.column(column);
  }

  /** Fills a vector with the slices of a column, base or added, for a step that moves them. */
  public void copySlices(CellVector target, int column) {
    vectors.copySlices(target, column);
  }

  /** Makes a vector show a single cell of a base column, as its cell 0. */
  public void cell(int row, int column, CellVector target) {
    int cell = baseRow(row) * columns + column;
    target.viewOf(text, 1);
    target.starts[0] = (marks[cell] & NULL) != 0 ? -1 : starts[cell];
    target.ends[0] = (marks[cell] & NULL) != 0 ? -1 : ends[cell];
  }

  /** Takes text that is the buffer held so far and more behind it, which cells are moved to. */
  void extended(byte[] more) {
    text = more;
    vectors.clear();
  }

  /** Marks a row whose base cells are not as in the source, as its cells are. */
  void altered(int baseRow) {
    rowMarks[baseRow] |= ALTERED;
  }

  /** Makes a vector show a base column. */
  void show(CellVector view, int column) {
    int rows = rows();
    view.viewOf(text, rows);
    int[] viewStarts = view.starts;
    int[] viewEnds = view.ends;
    for (int row = 0; row < rows; row++) {
      int cell = baseRow(row) * columns + column;
      if ((marks[cell] & NULL) != 0) {
        viewStarts[row] = -1;
        viewEnds[row] = -1;
      } else {
        viewStarts[row] = starts[cell];
        viewEnds[row] = ends[cell];
      }
    }
  }

  /**
   * Adds an empty column for a step to fill with exactly {@link #rows()} cells.
   *
   * @return the vector to fill; its number is {@link #baseColumns()} plus the columns added before
   */
  public CellVector addColumn() {
    return vectors.add();
  }

  /** Returns where the base cells of each row are; null as long as no rows were picked. */
  public int @Nullable [] baseRows() {
    return kept.places();
  }

  /**
   * Forgets the columns that were added, and the rows picked since.
   *
   * @param rowsThen what {@link #baseRows} returned then
   */
  public void asItWas(int @Nullable [] rowsThen) {
    kept.keep(rowsThen, baseRows);
    vectors.clear();
  }

  /**
   * Keeps only the stated rows, in that order; a row may be named more than once.
   *
   * @param wanted rows to keep, 0-based
   * @param count how many of them
   */
  public void pick(int[] wanted, int count) {
    kept.pick(wanted, count);
    vectors.pick(wanted, count);
  }

  @Override
  public String toString() {
    long last = firstRow() + baseRows - 1;
    return "Batch[rows %d to %d, %d kept]".formatted(firstRow(), last, rows());
  }
}
