package org.abletwine.formats.workbook;

import java.util.Arrays;
import org.abletwine.table.text.CharSlice;
import org.abletwine.table.text.Utf8;

/**
 * A row of a sheet: its cells that hold something, in the order of their columns. Filled again and
 * again; used by one thread.
 */
final class SheetRow {
  /** What a cell is. */
  static final byte TEXT = 0;

  static final byte NUMBER = 1;
  static final byte TRUTH = 2;
  static final byte TIME = 3;
  static final byte ERROR = 4;

  private int row;
  private boolean hidden;
  private int times;
  private int count;
  private int[] columns = new int[16];
  private int[] starts = new int[16];
  private int[] ends = new int[16];
  private byte[] kinds = new byte[16];
  private byte[] text = new byte[1 << 10];
  private int used;
  private final CharSlice chars = new CharSlice();

  /**
   * Empties the row.
   *
   * @param at its number in the sheet, 0-based
   */
  void begin(int at) {
    row = at;
    hidden = false;
    times = 1;
    count = 0;
    used = 0;
  }

  void hide() {
    hidden = true;
  }

  /** States that the same row stands so many times. */
  void times(int howOften) {
    times = howOften;
  }

  /** Begins a cell, to be filled by {@link #append}. */
  void cell(int column) {
    if (count == columns.length) {
      columns = Arrays.copyOf(columns, 2 * count);
      starts = Arrays.copyOf(starts, 2 * count);
      ends = Arrays.copyOf(ends, 2 * count);
      kinds = Arrays.copyOf(kinds, 2 * count);
    }
    columns[count] = column;
    starts[count] = used;
  }

  private void room(int more) {
    if (used + more > text.length) {
      text = Arrays.copyOf(text, Math.max(used + more, 2 * text.length));
    }
  }

  void append(char[] from, int start, int length) {
    append(chars.over(from, start, length));
  }

  void append(CharSequence more) {
    room(Utf8.MOST_BYTES * more.length());
    used = Utf8.write(more, text, used);
  }

  void append(byte[] from, int start, int end) {
    room(end - start);
    System.arraycopy(from, start, text, used, end - start);
    used += end - start;
  }

  /** Returns where the text of the cell being filled begins in {@link #text}. */
  int cellStart() {
    return starts[count];
  }

  /** Returns where the text of the cell being filled ends so far, exclusive. */
  int cellEnd() {
    return used;
  }

  /** Ends the cell that was begun. */
  void endCell(byte kind) {
    ends[count] = used;
    kinds[count++] = kind;
  }

  /** Ends the cell that was begun, with another text in place of what was appended. */
  void endCell(byte kind, CharSequence instead) {
    used = starts[count];
    append(instead);
    endCell(kind);
  }

  /** Cuts the text of the cell ended last to so many bytes. */
  void shorten(int length) {
    used = starts[count - 1] + length;
    ends[count - 1] = used;
  }

  /** Gives up the cell that was begun. */
  void noCell() {
    used = starts[count];
  }

  /** Repeats the cell ended last in the next column. */
  void again() {
    int before = count - 1;
    cell(columns[before] + 1);
    starts[count] = starts[before];
    ends[count] = ends[before];
    kinds[count] = kinds[before];
    count++;
  }

  int row() {
    return row;
  }

  boolean hidden() {
    return hidden;
  }

  int times() {
    return times;
  }

  int count() {
    return count;
  }

  int column(int cell) {
    return columns[cell];
  }

  byte kind(int cell) {
    return kinds[cell];
  }

  byte[] text() {
    return text;
  }

  int start(int cell) {
    return starts[cell];
  }

  int end(int cell) {
    return ends[cell];
  }

  String string(int cell) {
    return Utf8.text(text, starts[cell], ends[cell]);
  }
}
