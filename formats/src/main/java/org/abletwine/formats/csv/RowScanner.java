package org.abletwine.formats.csv;

import java.util.BitSet;
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.jspecify.annotations.Nullable;

/**
 * Finds cells and rows in delimited text that was decoded straight into a batch, and notes them
 * there as slices: no character is copied and nothing is called per cell from outside. The form is
 * that of RFC 4180, any of LF, CR LF and CR ending a row; a quote inside a cell that does not begin
 * with one is a character like any other.
 *
 * <p>Text arrives in pieces that may end anywhere, so every position and state that {@link #scan}
 * needs to go on is a field.
 */
final class RowScanner {
  /** Longest cell, in bytes. Longer ones mostly come of a quote that nobody closed. */
  static final int LONGEST = 1 << 24;

  /** Bytes after which a batch of few rows counts as full. */
  private static final int MOST_SPARSE = 1 << 18;

  private enum At {
    CELL_START,
    PLAIN,
    QUOTED,
    /** After a quote inside a quoted cell: it closes the cell unless another follows. */
    QUOTE
  }

  private final String name;
  private final Schema schema;
  private final int columns;
  private final boolean pad;
  private final byte delimiter;
  private final byte quote;
  private final NullWords nulls;
  private final ByteSearch search;

  private Batch batch = new Batch(0);
  private At state = At.CELL_START;
  private int at;
  private int cellStart;
  private int unescaped;
  private boolean altered;
  private boolean afterReturn;
  private boolean header;
  private @Nullable BitSet wanted;

  /** How many cells of each row to note; 0 for all. */
  private int first;

  /** Whether the row begun is the header, or not wanted. */
  private boolean skipping;

  private long row = 1;
  private int recordEnd;
  private int fields;
  private int rowMark;
  private long line = 1;
  private long openedOn;
  private int lineBreaks;
  private byte[] rest = new byte[0];
  private int restLength;

  RowScanner(String name, Dialect dialect, Schema schema, TableOptions options) {
    this.name = name;
    this.schema = schema;
    this.columns = schema.size();
    this.pad = options.pad();
    this.delimiter = (byte) dialect.delimiter();
    this.quote = (byte) dialect.quote();
    this.nulls = new NullWords(options.nulls());
    this.search = new ByteSearch(delimiter, quote);
    this.header = dialect.header();
    this.skipping = header;
  }

  /** From now on leaves out rows whose number is not among these. */
  void only(BitSet rows) {
    wanted = rows;
    choose();
  }

  /** From now on notes only the first cells of rows that are plain, where that leaves out any. */
  void noteFirst(int count) {
    first = count < columns ? count : 0;
  }

  /**
   * How many rows may be passed over unread: those before the next that is wanted, when the text
   * held is used up and the next row begins what comes.
   */
  int unwanted() {
    BitSet rows = wanted;
    boolean between = fields == 0 && state == At.CELL_START && !afterReturn && !header;
    if (rows == null || !between || at < batch.used()) {
      return 0;
    }
    int next = rows.nextSetBit((int) row);
    return next < 0 ? Integer.MAX_VALUE : (int) (next - row);
  }

  /** Rows of a line each were passed over. */
  void passedOver(int rows) {
    row += rows;
    line += rows;
    choose();
  }

  /** Whether no row to come is wanted. */
  boolean pastLast() {
    return wanted != null && wanted.nextSetBit((int) row) < 0;
  }

  /** Returns the number of the next row, 1-based. */
  long nextRow() {
    return row;
  }

  private void choose() {
    if (fields == 0 && state == At.CELL_START) {
      skipping = header || wanted != null && !wanted.get((int) row);
    }
  }

  /** Begins a batch with the text carried over from the one before. */
  void begin(Batch target) {
    batch = target;
    System.arraycopy(rest, 0, target.room(restLength), 0, restLength);
    target.took(restLength);
    at = 0;
    recordEnd = 0;
  }

  /** Keeps the text after the batch's last row, before the batch is handed on. */
  void end() {
    int used = batch.used();
    restLength = used - recordEnd;
    if (rest.length < restLength) {
      rest = new byte[restLength];
    }
    System.arraycopy(batch.text(), recordEnd, rest, 0, restLength);
  }

  /** Returns whether the batch is full and its last row whole. */
  boolean done() {
    boolean between = fields == 0 && state == At.CELL_START;
    return between && (batch.full() || wanted != null && batch.used() > MOST_SPARSE);
  }

  /** Goes on until the batch is done or its text used up. */
  void scan() {
    byte[] text = batch.text();
    int used = batch.used();
    while (true) {
      if (state == At.CELL_START) {
        if (done()) {
          return;
        }
        if (first > 0 && !skipping && fields <= first) {
          plainStarts(used);
        } else if (!skipping) {
          plainCells(used);
          if (first > 0 && fields == 0 && at < used && !done()) {
            continue;
          }
        }
        if (!startCell(text, used)) {
          return;
        }
      }
      int stop = state == At.PLAIN ? plainEnd(text, used) : quotedEnd(text, used);
      if (stop == used) {
        if (used - cellStart > LONGEST) {
          throw tooWide();
        }
        return;
      }
      endCell(text);
      byte c = text[at++];
      state = At.CELL_START;
      if (c != delimiter) {
        afterReturn = c == '\r';
        endRecord();
      }
    }
  }

  /** Ends the last row when its line end is missing; there is no more text. */
  void finish() {
    if (state == At.QUOTED) {
      throw unclosed();
    }
    if (state == At.CELL_START && fields == 0) {
      return;
    }
    if (state == At.CELL_START) {
      state = At.PLAIN;
      cellStart = at;
    }
    endCell(batch.text());
    state = At.CELL_START;
    endRecord();
  }

  /**
   * The short way for most text: cells without quotes, in rows of the right length, that end within
   * the text held. Stops before the first cell that is anything else.
   */
  private void plainCells(int used) {
    byte[] bytes = batch.text();
    byte separator = delimiter;
    ByteSearch finds = search;
    int start = at;
    for (int base = start; base + Long.BYTES <= used; base += Long.BYTES) {
      long ends = finds.ends(ByteSearch.word(bytes, base));
      while (ends != 0) {
        int end = base + (Long.numberOfTrailingZeros(ends) >>> 3);
        ends &= ends - 1;
        byte c = bytes[end];
        if (c == separator) {
          if (bytes[start] == quote || fields >= columns - 1) {
            return;
          }
          addPlain(start, end);
        } else if (c == '\n' || c == '\r') {
          if (start == end && fields == 0) {
            if (c == '\r' || !afterReturn) {
              return;
            }
            afterReturn = false;
            recordEnd = end + 1;
          } else if (bytes[start] == quote || fields != columns - 1) {
            return;
          } else {
            addPlain(start, end);
            at = end + 1;
            afterReturn = c == '\r';
            endRecord();
            if (skipping || first > 0 || done()) {
              return;
            }
          }
        } else {
          continue;
        }
        start = end + 1;
        at = start;
      }
    }
  }

  /**
   * As {@link #plainCells}, but notes only the first cells of each row and where it ends. Stops
   * before the first cell of rows that are anything but plain, or do not have the right length.
   */
  private void plainStarts(int used) {
    byte[] bytes = batch.text();
    byte separator = delimiter;
    while (true) {
      while (fields < first) {
        int end = search.cellEnd(bytes, at, used);
        if (end == used || bytes[end] != separator || bytes[at] == quote) {
          return;
        }
        addPlain(at, end);
        at = end + 1;
      }
      int end = search.rowEnd(bytes, at, used, columns - 1 - first);
      if (end < 0) {
        return;
      }
      batch.endPartialRow(rowMark, at, end, nulls::mark);
      at = end + 1;
      afterReturn = bytes[end] == '\r';
      if (afterReturn && at < used && bytes[at] == '\n') {
        at++;
        afterReturn = false;
      }
      nextRecord();
      if (skipping || done()) {
        return;
      }
    }
  }

  private void addPlain(int start, int end) {
    int mark = 0;
    if (start == end || nulls.mayHold(end - start) && holdsNull(start, end)) {
      mark = Batch.NULL;
      rowMark |= mark;
    }
    batch.addSlice(start, end, mark);
    fields++;
  }

  private boolean holdsNull(int start, int end) {
    return nulls.hold(batch.text(), start, end - start);
  }

  private boolean startCell(byte[] text, int used) {
    if (fields == 0 && (done() || !passLineEnds(text, used)) || at == used) {
      return false;
    }
    cellStart = at;
    if (text[at] != quote) {
      state = At.PLAIN;
      return true;
    }
    state = At.QUOTED;
    unescaped = ++at;
    altered = false;
    openedOn = line + lineBreaks;
    return true;
  }

  /** Passes the second half of a line end, and lines with nothing on them. */
  private boolean passLineEnds(byte[] text, int used) {
    while (at < used) {
      byte c = text[at];
      if (c == '\n' && afterReturn) {
        afterReturn = false;
      } else if ((c == '\n' || c == '\r') && (columns > 1 || header)) {
        afterReturn = c == '\r';
        line++;
      } else {
        afterReturn = false;
        return true;
      }
      recordEnd = ++at;
    }
    return false;
  }

  private int plainEnd(byte[] text, int used) {
    int i = search.cellEnd(text, at, used);
    at = i;
    return i;
  }

  private int quotedEnd(byte[] text, int used) {
    if (state == At.QUOTED && !altered) {
      int i = at;
      byte c;
      while (i < used && (c = text[i]) != quote) {
        lineBreaks += c == '\n' ? 1 : 0;
        i++;
      }
      at = i;
      unescaped = i;
    }
    while (at < used) {
      byte c = text[at];
      if (state == At.QUOTE) {
        if (c == delimiter || c == '\n' || c == '\r') {
          return at;
        }
        if (c != quote) {
          throw new DataException(
              place() + ": text follows a closing quote; write a quote inside a quoted cell twice");
        }
        state = At.QUOTED;
        altered = true;
        text[unescaped++] = c;
      } else if (c == quote) {
        state = At.QUOTE;
      } else {
        lineBreaks += c == '\n' ? 1 : 0;
        text[unescaped++] = c;
      }
      at++;
    }
    return used;
  }

  private void endCell(byte[] text) {
    if (skipping) {
      fields++;
      return;
    }
    int start = cellStart;
    int end = at;
    int mark = 0;
    if (state != At.PLAIN) {
      start++;
      end = unescaped;
      mark = Batch.QUOTED;
      if (altered) {
        mark |= Batch.ALTERED;
      }
    } else if (start == end || nulls.mayHold(end - start) && nulls.hold(text, start, end - start)) {
      mark = Batch.NULL;
    }
    if (fields < columns) {
      rowMark |= mark;
      batch.addSlice(start, end, mark);
    } else if (!pad || end > start) {
      batch.abandonRow();
      throw tooLong();
    }
    fields++;
  }

  private void endRecord() {
    if (!skipping) {
      if (fields < columns) {
        padRow();
      }
      batch.endRow(rowMark);
      if (wanted != null) {
        batch.numberRow(row);
      }
    }
    nextRecord();
  }

  private void nextRecord() {
    row += header ? 0 : 1;
    header = false;
    skipping = wanted != null && !wanted.get((int) row);
    recordEnd = at;
    fields = 0;
    rowMark = 0;
    line += 1 + lineBreaks;
    lineBreaks = 0;
  }

  private void padRow() {
    if (!pad) {
      batch.abandonRow();
      throw new DataException(
          name
              + " line "
              + line
              + ": "
              + (fields == 1 ? "1 cell" : fields + " cells")
              + " where the header has "
              + columns
              + "; correct the line, or state ragged: pad to fill it up with nulls");
    }
    rowMark |= Batch.NULL | Batch.ALTERED;
    while (fields++ < columns) {
      batch.addSlice(cellStart, cellStart, Batch.NULL | Batch.ALTERED);
    }
  }

  private String place() {
    String where = name + " line " + openedOn;
    return fields < columns ? where + ", column \"" + schema.names().get(fields) + "\"" : where;
  }

  private DataException unclosed() {
    return new DataException(
        place()
            + ": the quote that opens here is not closed; close it, or write it twice if it"
            + " belongs to the text");
  }

  private DataException tooWide() {
    return new DataException(
        (state == At.PLAIN ? name + " line " + line : place())
            + ": a cell of more than "
            + LONGEST
            + " bytes, which is more than any may have; "
            + (state == At.PLAIN
                ? "check that the file is delimited text"
                : "check that the quote that opens here is closed"));
  }

  private DataException tooLong() {
    return new DataException(
        name
            + " line "
            + line
            + ": more cells than the "
            + columns
            + " of the header"
            + "; a cell that holds the delimiter must stand in quotes");
  }
}
