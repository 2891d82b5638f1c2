package org.abletwine.table;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The cells of one column for the rows of a batch, as slices of a shared character buffer. Row
 * positions are 0-based. Reused from batch to batch; not safe for use by several threads at once.
 *
 * <p>Fetched attributes are held as bytes first, one a character, because most of them go from the
 * reference to the output without anyone looking at their characters: then {@link #narrow()} is
 * true and the slices point into {@link #bytes} until {@link #toText()}. Computed numbers are held
 * as numbers first, because most of them go from the expression to the output, which writes them
 * where they shall stand: then {@link #inNumbers()} is true until {@link #toBytes()}, and {@link
 * #starts} tells only which cells are null.
 *
 * <p>Invariant: for a row that is not null, {@code 0 <= starts[row] <= ends[row] <= text.length};
 * for a null cell {@code starts[row] == ends[row] == -1}.
 */
public final class CellVector {
  private static final char[] NO_TEXT = new char[0];
  private static final byte[] NO_BYTES = new byte[0];

  /** The characters all slices point into. */
  public char[] text = NO_TEXT;

  /** Start of each cell, 0-based, or -1 for null. */
  public int[] starts = new int[0];

  /** End of each cell, exclusive, or -1 for null. */
  public int[] ends = new int[0];

  /** The characters of a narrow vector, one byte each; those of a view where {@link #inBytes}. */
  public byte[] bytes = NO_BYTES;

  /** For each cell of a narrow vector: not 0 when it may need quotes or is not plain ASCII. */
  public byte[] special = new byte[0];

  /** The digits of a vector in numbers. */
  public long[] digits = new long[0];

  /** How many of the digits are decimal places, in a vector in numbers. */
  public byte[] scales = new byte[0];

  private boolean numbers;
  private byte[] reasons = new byte[0];
  private boolean reasoned;
  private boolean[] asCame = new boolean[0];

  /** The base column that cells marked in {@link #asCame} are copies of, or -1. */
  private int origin = -1;

  private boolean narrow;
  private @Nullable Batch shown;
  private int rows;
  private char[] own = NO_TEXT;
  private int used;

  /**
   * Notes why the last cell appended is null.
   *
   * @param reason a reason's number, 1 to 127
   */
  public void because(int reason) {
    because(rows - 1, reason);
  }

  /**
   * Notes why a cell is null.
   *
   * @param row the row, 0-based
   * @param reason a reason's number, 1 to 127
   */
  public void because(int row, int reason) {
    if (!reasoned) {
      reasoned = true;
      Arrays.fill(reasons, (byte) 0);
    }
    if (reasons.length < rows) {
      reasons = Arrays.copyOf(reasons, Math.max(rows, starts.length));
    }
    reasons[row] = (byte) reason;
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

  /** Empties the vector and lets appended cells go to a buffer of its own. */
  public void clear() {
    if (shown != null) {
      shown = null;
      bytes = NO_BYTES;
    }
    rows = 0;
    used = 0;
    text = own;
    narrow = false;
    numbers = false;
    reasoned = false;
    origin = -1;
  }

  /** Empties the vector and lets appended cells be held as bytes for as long as they can be. */
  public void clearNarrow() {
    clear();
    narrow = true;
  }

  /** Returns whether the cells are held as bytes. */
  public boolean narrow() {
    return narrow;
  }

  /** Returns whether the cells are held as numbers, not yet as text. */
  public boolean inNumbers() {
    return numbers;
  }

  /**
   * Empties the vector and takes numbers, copied, as its cells.
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
      ends[row] = start;
      nulls -= start;
    }
    return nulls;
  }

  /** Turns cells held as numbers into bytes; does nothing when they are not. */
  public void toBytes() {
    if (!numbers) {
      return;
    }
    int count = rows;
    boolean wasReasoned = reasoned;
    clearNarrow();
    reasoned = wasReasoned;
    for (int row = 0; row < count; row++) {
      if (starts[row] < 0) {
        appendNull();
      } else {
        int at = claimNarrow(DecimalText.MOST_BYTES);
        finishNarrow(at, DecimalText.write(digits[row], scales[row], bytes, at));
      }
    }
  }

  /** Turns cells held as bytes or numbers into characters, unless they are that already. */
  public void toText() {
    toBytes();
    if (!narrow) {
      return;
    }
    narrow = false;
    if (own.length < used) {
      own = new char[Math.max(used, 1024)];
    }
    for (int i = 0; i < used; i++) {
      own[i] = (char) (bytes[i] & 0xFF);
    }
    text = own;
  }

  /**
   * Makes this a view of cells in another buffer, positions still to be set.
   *
   * @param shared the buffer the slices will point into
   * @param count how many cells
   */
  public void viewOf(char[] shared, int count) {
    ensureRows(count);
    rows = count;
    text = shared;
    narrow = false;
    numbers = false;
    shown = null;
  }

  /** Lets the cells of a view be read from the batch's bytes too, where it has them. */
  void showBytes(Batch of) {
    shown = of;
    bytes = of.textBytes();
  }

  /**
   * Whether a cell that is not null can be read from {@link #bytes}, one byte a character (U+0000
   * to U+00FF), at the same place as from {@link #text}. For a view that spares touching memory
   * that only the reader has touched.
   *
   * @param row the row, 0-based
   */
  public boolean inBytes(int row) {
    Batch of = shown;
    return of == null ? narrow : of.hasBytes(starts[row], ends[row]);
  }

  /** Appends a null cell. */
  public void appendNull() {
    ensureRows(rows + 1);
    starts[rows] = -1;
    ends[rows++] = -1;
  }

  /**
   * Appends a cell.
   *
   * @param value its text, or null
   */
  public void append(@Nullable String value) {
    if (value == null) {
      appendNull();
      return;
    }
    if (narrow && appendPlain(value)) {
      return;
    }
    toText();
    int at = claim(value.length());
    value.getChars(0, value.length(), text, at);
    finish(at, at + value.length());
  }

  private boolean appendPlain(String value) {
    byte[] ascii = value.getBytes(StandardCharsets.ISO_8859_1);
    for (int i = 0; i < ascii.length; i++) {
      if (value.charAt(i) >= 0x80) {
        return false;
      }
    }
    appendNarrow(ascii, 0, ascii.length, true);
    return true;
  }

  /**
   * Appends a copy of a slice.
   *
   * @param source the buffer to copy from
   * @param start first character, 0-based
   * @param end end, exclusive
   */
  public void append(char[] source, int start, int end) {
    toText();
    int at = claim(end - start);
    System.arraycopy(source, start, text, at, end - start);
    finish(at, at + end - start);
  }

  /**
   * Appends a copy of another vector's cell, null included.
   *
   * @param other the vector to copy from
   * @param row its row, 0-based
   */
  public void append(CellVector other, int row) {
    other.toText();
    if (other.starts[row] < 0) {
      appendNull();
    } else {
      append(other.text, other.starts[row], other.ends[row]);
    }
  }

  /**
   * Appends a cell of a column that this one takes the place of, unchanged: the reason of a null
   * goes along, and a base cell leaves as it stood in the source.
   *
   * @param batch the rows
   * @param column the column, base or added
   * @param row the row, 0-based: the next of this vector
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
   * Appends a cell whose characters are given as one byte each (U+0000 to U+00FF).
   *
   * @param source the bytes
   * @param from first byte, 0-based
   * @param length bytes, and characters
   * @param mayNeedQuotes whether it may need quotes or is not plain ASCII
   */
  public void appendNarrow(byte[] source, int from, int length, boolean mayNeedQuotes) {
    if (!narrow) {
      int at = claim(length);
      for (int i = 0; i < length; i++) {
        own[at + i] = (char) (source[from + i] & 0xFF);
      }
      finish(at, at + length);
      return;
    }
    int at = used;
    if (at + length > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(at + length, Math.max(1024, bytes.length * 2)));
    }
    System.arraycopy(source, from, bytes, at, length);
    if (rows == starts.length) {
      ensureRows(rows + 1);
    }
    if (rows >= special.length) {
      special = Arrays.copyOf(special, starts.length);
    }
    special[rows] = (byte) (mayNeedQuotes ? 1 : 0);
    starts[rows] = at;
    ends[rows++] = at + length;
    used = at + length;
  }

  /**
   * Makes room for a cell of plain ASCII that needs no quotes, for a caller that writes it itself.
   * The vector holds bytes afterwards only if it did before and no other text was appended.
   *
   * @param most bytes at most
   * @return where to write in {@link #bytes}; call {@link #finishNarrow} afterwards
   */
  public int claimNarrow(int most) {
    int at = narrow ? used : 0;
    if (at + most > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(at + most, Math.max(1024, bytes.length * 2)));
    }
    return at;
  }

  /**
   * Ends a cell begun with {@link #claimNarrow}.
   *
   * @param start what it returned
   * @param end end of what was written, exclusive
   */
  public void finishNarrow(int start, int end) {
    if (!narrow) {
      appendNarrow(bytes, start, end - start, false);
      return;
    }
    if (rows == starts.length) {
      ensureRows(rows + 1);
    }
    if (rows >= special.length) {
      special = Arrays.copyOf(special, starts.length);
    }
    special[rows] = 0;
    starts[rows] = start;
    ends[rows++] = end;
    used = end;
  }

  /**
   * Appends a cell whose characters are given as two bytes each, high byte first.
   *
   * @param source the bytes
   * @param from first byte, 0-based
   * @param length bytes: twice the characters
   */
  public void appendWide(byte[] source, int from, int length) {
    toText();
    int at = claim(length >> 1);
    char[] target = own;
    for (int i = 0; i < length; i += 2) {
      target[at + (i >> 1)] = (char) (source[from + i] << 8 | source[from + i + 1] & 0xFF);
    }
    finish(at, at + (length >> 1));
  }

  /**
   * Makes room in the own buffer for a cell that the caller writes itself.
   *
   * @param length characters at most
   * @return where to write in {@link #text}; call {@link #finish} afterwards
   */
  public int claim(int length) {
    if (used + length > own.length) {
      own = Arrays.copyOf(own, Math.max(used + length, Math.max(1024, own.length * 2)));
    }
    text = own;
    return used;
  }

  /**
   * Ends a cell begun with {@link #claim}.
   *
   * @param start what claim returned
   * @param end end of what was written, exclusive
   */
  public void finish(int start, int end) {
    if (rows == starts.length) {
      ensureRows(rows + 1);
    }
    starts[rows] = start;
    ends[rows++] = end;
    used = end;
  }

  /** Copies all slices into a buffer of its own, so that they may be changed in place. */
  public void takeOwnership() {
    toText();
    if (text == own) {
      return;
    }
    shown = null;
    char[] shared = text;
    int total = 0;
    for (int row = 0; row < rows; row++) {
      total += ends[row] - starts[row];
    }
    if (own.length < total) {
      own = new char[Math.max(total, own.length * 2)];
    }
    int at = 0;
    for (int row = 0; row < rows; row++) {
      int start = starts[row];
      if (start >= 0) {
        int length = ends[row] - start;
        System.arraycopy(shared, start, own, at, length);
        starts[row] = at;
        at += length;
        ends[row] = at;
      }
    }
    used = at;
    text = own;
  }

  /**
   * Replaces one cell by other text, for a vector that owns its buffer.
   *
   * @param row the row, 0-based
   * @param value the new text
   */
  public void replace(int row, CharSequence value) {
    int length = value.length();
    int at = claim(length);
    for (int i = 0; i < length; i++) {
      text[at + i] = value.charAt(i);
    }
    starts[row] = at;
    ends[row] = at + length;
    used = at + length;
  }

  /**
   * @param row the row, 0-based
   * @return whether the cell is null
   */
  public boolean isNull(int row) {
    return starts[row] < 0;
  }

  /**
   * @param row the row, 0-based
   * @return the cell as a string, or null
   */
  public @Nullable String get(int row) {
    toText();
    return starts[row] < 0 ? null : new String(text, starts[row], ends[row] - starts[row]);
  }

  /**
   * Keeps only the stated rows, in that order; a row may be named more than once.
   *
   * @param picked rows to keep, 0-based
   * @param count how many of them
   */
  void pick(int[] picked, int count) {
    int[] newStarts = new int[Math.max(count, starts.length)];
    int[] newEnds = new int[newStarts.length];
    for (int i = 0; i < count; i++) {
      newStarts[i] = starts[picked[i]];
      newEnds[i] = ends[picked[i]];
    }
    if (narrow) {
      byte[] newSpecial = new byte[newStarts.length];
      for (int i = 0; i < count; i++) {
        // Nulls at the end have no mark.
        newSpecial[i] = picked[i] < special.length ? special[picked[i]] : 0;
      }
      special = newSpecial;
    }
    if (numbers) {
      long[] newDigits = new long[newStarts.length];
      byte[] newScales = new byte[newStarts.length];
      for (int i = 0; i < count; i++) {
        newDigits[i] = digits[picked[i]];
        newScales[i] = scales[picked[i]];
      }
      digits = newDigits;
      scales = newScales;
    }
    if (origin >= 0) {
      boolean[] newAsCame = new boolean[newStarts.length];
      for (int i = 0; i < count; i++) {
        newAsCame[i] = cameFrom(picked[i]) >= 0;
      }
      asCame = newAsCame;
    }
    if (reasoned) {
      byte[] newReasons = new byte[newStarts.length];
      for (int i = 0; i < count; i++) {
        newReasons[i] = (byte) reason(picked[i]);
      }
      reasons = newReasons;
    }
    starts = newStarts;
    ends = newEnds;
    rows = count;
  }

  private void ensureRows(int wanted) {
    if (wanted > starts.length) {
      int length = Math.max(wanted, Math.max(16, starts.length * 2));
      starts = Arrays.copyOf(starts, length);
      ends = Arrays.copyOf(ends, length);
    }
  }

  @Override
  public String toString() {
    return "CellVector[" + rows + " rows]";
  }
}
