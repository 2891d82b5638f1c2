package org.abletwine.table.batch;

import java.math.BigDecimal;
import java.util.Arrays;
import org.abletwine.table.DataException;
import org.abletwine.table.text.ByteHash;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.ShortCopy;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * The cells of one column for the rows of a batch: slices of UTF-8, or numbers that nobody has
 * written out yet. Row positions are 0-based. Reused from batch to batch; belongs to one thread at
 * a time.
 *
 * <p>{@link #get} and {@link #append} are the way to a cell's text for everybody but the engine's
 * inner loops, which look at the slices themselves. Those first ask for a column {@link #asText in
 * text}: computed numbers are held as numbers, because most of them go from the expression to the
 * output, which writes them where they shall stand, and they stay numbers whoever reads them.
 *
 * <p>Invariant: for a row that is not null, {@code 0 <= starts[row] <= ends[row] <= text.length};
 * for a null cell {@code starts[row] == ends[row] == -1}. While the column is in numbers there is
 * no text, and {@code starts} tells only which cells are null.
 */
public final class CellVector {
  /** Bytes behind the text held that reading by words may touch. */
  public static final int SLACK = 16;

  private static final byte[] NO_TEXT = new byte[0];

  /** The UTF-8 all slices point into. */
  public byte[] text = NO_TEXT;

  /** Start of each cell, 0-based, or -1 for null. */
  public int[] starts = new int[0];

  /** End of each cell, exclusive, or -1 for null. */
  public int[] ends = new int[0];

  /** The digits of a column in numbers. */
  public long[] digits = new long[0];

  /** How many of the digits are decimal places, in a column in numbers. */
  public byte[] scales = new byte[0];

  private boolean numbers;

  /** In a column in numbers: the places that all of them have, or -1 when nobody looked. */
  private int sharedPlaces = -1;

  /** With shared places: no digits are greater, nor less than its opposite. */
  private long greatest;

  /** For each cell of text of its own, 1 when it is known to need no quotes anywhere. */
  private byte[] plain = new byte[0];

  private short[] reasons = new short[0];
  private boolean reasoned;
  private boolean[] asCame = new boolean[0];

  /** The base column that cells marked in {@link #asCame} are copies of, or -1. */
  private int origin = -1;

  private int rows;
  private byte[] own = NO_TEXT;
  private int used;

  /**
   * Notes why the last cell appended is null.
   *
   * @param reason a reason's number, 1 to 32,767
   */
  public void because(int reason) {
    because(rows - 1, reason);
  }

  /**
   * Notes why a cell is null.
   *
   * @param row the row, 0-based
   * @param reason a reason's number, 1 to 32,767
   */
  public void because(int row, int reason) {
    if (!reasoned) {
      reasoned = true;
      Arrays.fill(reasons, (short) 0);
    }
    if (reasons.length < rows) {
      reasons = Arrays.copyOf(reasons, Math.max(rows, starts.length));
    }
    reasons[row] = (short) reason;
  }

  /**
   * Why a cell is null.
   *
   * @param row the row, 0-based
   * @return the reason's number, or 0 when none was noted
   */
  public int reason(int row) {
    return reasoned && row < reasons.length ? reasons[row] : 0;
  }

  /** Returns how many cells there are. */
  public int rows() {
    return rows;
  }

  /** Empties the column and lets appended cells go to a buffer of its own. */
  public void clear() {
    rows = 0;
    used = 0;
    text = own;
    numbers = false;
    sharedPlaces = -1;
    reasoned = false;
    origin = -1;
  }

  /** Returns whether the cells are held as numbers, not as text. */
  public boolean inNumbers() {
    return numbers;
  }

  /**
   * Empties the column and takes numbers, copied, as its cells.
   *
   * @param known which cells are not null
   * @param unscaled the digits
   * @param places how many of them are decimal places, 0 to 18
   * @param count how many cells
   * @return how many of them are null
   */
  public int takeNumbers(boolean[] known, long[] unscaled, byte[] places, int count) {
    clear();
    ensureRows(count);
    rows = count;
    numbers = true;
    text = NO_TEXT;
    if (digits.length < count) {
      digits = new long[count];
      scales = new byte[count];
    }
    System.arraycopy(unscaled, 0, digits, 0, count);
    System.arraycopy(places, 0, scales, 0, count);
    int nulls = 0;
    for (int row = 0; row < count; row++) {
      int start = known[row] ? 0 : -1;
      starts[row] = start;
      ends[row] = start < 0 ? -1 : 1; // who takes it for a slice of text finds none
      nulls -= start;
    }
    return nulls;
  }

  /**
   * States what all numbers have in common, so that who computes with them need not look.
   *
   * @param places the decimal places that each has which is not null
   * @param most no digits are greater, nor less than its opposite
   */
  public void share(int places, long most) {
    sharedPlaces = places;
    greatest = most;
  }

  /** Returns the places that all numbers have; -1 when they differ or nobody looked. */
  public int sharedPlaces() {
    return sharedPlaces;
  }

  /** Returns what no digits are greater than, nor less than its opposite; with shared places. */
  public long greatest() {
    return greatest;
  }

  /**
   * The column with its numbers written out.
   *
   * @param scratch takes the text where the column is in numbers; what it held is gone then
   * @return this column where it is in text, else the scratch
   */
  public CellVector asText(CellVector scratch) {
    if (!numbers) {
      return this;
    }
    scratch.clear();
    for (int row = 0; row < rows; row++) {
      scratch.append(this, row);
      if (starts[row] < 0 && reason(row) != 0) {
        scratch.because(reason(row));
      }
    }
    return scratch;
  }

  /**
   * Makes this a view of cells in another buffer, positions still to be set.
   *
   * @param shared the buffer the slices will point into
   * @param count how many cells
   */
  public void viewOf(byte[] shared, int count) {
    clear();
    ensureRows(count);
    rows = count;
    text = shared;
  }

  /** Appends a null cell. */
  public void appendNull() {
    slice(-1, -1, 0);
  }

  /**
   * Appends a cell.
   *
   * @param value its text, or null
   * @throws DataException when it holds half of a surrogate pair
   */
  public void append(@Nullable String value) {
    if (value == null) {
      appendNull();
      return;
    }
    int at = room(Utf8.MOST_BYTES * value.length());
    took(at, Utf8.write(value, text, at));
  }

  /**
   * Appends a copy of a slice.
   *
   * @param source the buffer to copy from, UTF-8
   * @param start first byte, 0-based
   * @param end end, exclusive
   */
  public void append(byte[] source, int start, int end) {
    append(source, start, end, false);
  }

  /**
   * Appends a copy of a slice.
   *
   * @param source the buffer to copy from, UTF-8
   * @param start first byte, 0-based
   * @param end end, exclusive
   * @param needsNoQuotes whether it is known to need no quotes in any usual form
   */
  public void append(byte[] source, int start, int end, boolean needsNoQuotes) {
    int length = end - start;
    int at = room(length);
    ShortCopy.copy(source, start, length, own, at);
    slice(at, at + length, needsNoQuotes ? 1 : 0);
    used = at + length;
  }

  /**
   * Appends a copy of another column's cell, null included.
   *
   * @param other the column to copy from
   * @param row its row, 0-based
   */
  public void append(CellVector other, int row) {
    if (other.starts[row] < 0) {
      appendNull();
    } else if (other.numbers) {
      int at = room(DecimalText.MOST_BYTES);
      int end = DecimalText.write(other.digits[row], other.scales[row], text, at);
      slice(at, end, 1);
      used = end;
    } else {
      append(other.text, other.starts[row], other.ends[row], other.needsNoQuotes(row));
    }
  }

  /**
   * Appends a cell of a column that this one takes the place of, unchanged: the reason of a null
   * goes along, and a base cell leaves as it stood in the source.
   *
   * @param batch the rows
   * @param column the column, base or added
   * @param row the row, 0-based: the next of this column
   */
  public void appendAsCame(Batch batch, int column, int row) {
    CellVector from = batch.column(column);
    append(from, row);
    if (from.reason(row) != 0) {
      because(from.reason(row));
    }
    int base = column < batch.baseColumns() ? column : from.cameFrom(row);
    if (base >= 0) {
      if (origin < 0) {
        Arrays.fill(asCame, false);
      }
      if (asCame.length < rows) {
        asCame = Arrays.copyOf(asCame, Math.max(rows, starts.length));
      }
      origin = base;
      asCame[row] = true;
    }
  }

  /**
   * The base column whose cell this one is, unchanged.
   *
   * @param row the row, 0-based
   * @return the column, 0-based; -1 when the cell is one of its own
   */
  public int cameFrom(int row) {
    return origin >= 0 && row < asCame.length && asCame[row] ? origin : -1;
  }

  /**
   * Whether a cell is text of its own that is known to need no quotes in any usual form; false
   * where nobody looked.
   *
   * @param row the row, 0-based
   */
  public boolean needsNoQuotes(int row) {
    return text == own && !numbers && plain[row] != 0;
  }

  /**
   * Makes room in the own buffer for a cell that the caller writes itself.
   *
   * @param most bytes at most
   * @return where to write in {@link #text}; call {@link #took} afterwards
   */
  public int room(int most) {
    if (used + most + SLACK > own.length) {
      own = Arrays.copyOf(own, Math.max(used + most + SLACK, Math.max(1024, own.length * 2)));
    }
    text = own;
    return used;
  }

  /**
   * Ends a cell begun with {@link #room}.
   *
   * @param start what it returned
   * @param end end of what was written, exclusive
   */
  public void took(int start, int end) {
    slice(start, end, 0);
    used = end;
  }

  private void slice(int start, int end, int needsNoQuotes) {
    if (rows == starts.length) {
      ensureRows(rows + 1);
    }
    plain[rows] = (byte) needsNoQuotes;
    starts[rows] = start;
    ends[rows++] = end;
  }

  /** Copies all slices into a buffer of its own, so that they may be changed in place. */
  public void takeOwnership() {
    if (text == own) {
      return;
    }
    byte[] shared = text;
    int total = 0;
    for (int row = 0; row < rows; row++) {
      total += ends[row] - starts[row];
    }
    used = 0;
    int at = room(total);
    for (int row = 0; row < rows; row++) {
      int start = starts[row];
      plain[row] = 0;
      if (start >= 0) {
        int length = ends[row] - start;
        System.arraycopy(shared, start, own, at, length);
        starts[row] = at;
        at += length;
        ends[row] = at;
      }
    }
    used = at;
  }

  /**
   * Replaces one cell by other text, for a column that owns its buffer.
   *
   * @param row the row, 0-based
   * @param value the new text
   */
  public void replace(int row, CharSequence value) {
    int at = room(Utf8.MOST_BYTES * value.length());
    used = Utf8.write(value, text, at);
    starts[row] = at;
    ends[row] = used;
    plain[row] = 0;
  }

  /**
   * @param row the row, 0-based
   * @return whether the cell is null
   */
  public boolean isNull(int row) {
    return starts[row] < 0;
  }

  /**
   * Whether there is nothing in a cell of a column in text.
   *
   * @param row the row, 0-based
   * @return whether it is null or empty
   */
  public boolean isBlank(int row) {
    return starts[row] >= ends[row];
  }

  /**
   * Whether two cells of columns in text are equal; null equals nothing.
   *
   * @param row the row, 0-based
   * @param other the other column
   * @param otherRow its row, 0-based
   */
  public boolean equal(int row, CellVector other, int otherRow) {
    return starts[row] >= 0
        && other.starts[otherRow] >= 0
        && Arrays.equals(
            text, starts[row], ends[row], other.text, other.starts[otherRow], other.ends[otherRow]);
  }

  /**
   * @param row the row, 0-based, not null, of a column in text
   * @return a hash of the cell
   */
  public long hash(int row) {
    return ByteHash.of(text, starts[row], ends[row]);
  }

  /**
   * @param row the row, 0-based
   * @return the cell as a string, or null
   */
  public @Nullable String get(int row) {
    if (starts[row] < 0) {
      return null;
    }
    return numbers
        ? BigDecimal.valueOf(digits[row], scales[row]).toPlainString()
        : Utf8.text(text, starts[row], ends[row]);
  }

  /**
   * Keeps only the stated rows, in that order; a row may be named more than once.
   *
   * @param picked rows to keep, 0-based
   * @param count how many of them
   */
  void pick(int[] picked, int count) {
    int length = Math.max(count, starts.length);
    starts = Picked.of(starts, picked, count, length);
    ends = Picked.of(ends, picked, count, length);
    plain = Picked.of(plain, picked, count, length);
    if (numbers) {
      digits = Picked.of(digits, picked, count, length);
      scales = Picked.of(scales, picked, count, length);
    }
    if (origin >= 0) {
      boolean[] newAsCame = new boolean[length];
      for (int i = 0; i < count; i++) {
        newAsCame[i] = cameFrom(picked[i]) >= 0;
      }
      asCame = newAsCame;
    }
    if (reasoned) {
      short[] newReasons = new short[length];
      for (int i = 0; i < count; i++) {
        newReasons[i] = (short) reason(picked[i]);
      }
      reasons = newReasons;
    }
    rows = count;
  }

  private void ensureRows(int wanted) {
    if (wanted > starts.length) {
      int length = Math.max(wanted, Math.max(16, starts.length * 2));
      starts = Arrays.copyOf(starts, length);
      ends = Arrays.copyOf(ends, length);
      plain = Arrays.copyOf(plain, length);
    }
  }

  @Override
  public String toString() {
    return "CellVector[" + rows + " rows]";
  }
}
