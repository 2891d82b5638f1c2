package org.abletwine.formats.csv;

import java.util.BitSet;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellMark;
import org.jspecify.annotations.Nullable;

/**
 * Finds cells and rows in a piece of delimited text, and notes them as slices of it: no byte is
 * copied and nothing is called per cell from outside. The form is that of RFC 4180, any of LF, CR
 * LF and CR ending a row; a quote inside a cell that does not begin with one is a character like
 * any other. Used by one thread at a time.
 */
final class RowScanner {
  /** Longest cell, in bytes. Longer ones mostly come of a quote that nobody closed. */
  static final int LONGEST = 1 << 24;

  private final String name;
  private final Schema schema;
  private final int columns;
  private final boolean pad;
  private final char separator;
  private final byte delimiter;
  private final byte quote;
  private final NullWords nulls;
  private final CellMark unseen;
  private final ByteSearch search;
  private final @Nullable BitSet wanted;

  /** How many cells of each row to note, where that leaves out any; else 0. */
  private final int first;

  private Batch batch = new Batch(0);
  private byte[] text = {};

  /** Where the piece ends, exclusive. */
  private int to;

  /** Where text begins that is not valid UTF-8, or behind the end. */
  private int invalid;

  private @Nullable DataException notValid;
  private int at;
  private boolean header;
  private boolean skipping;
  private long row = 1;
  private long line = 1;

  // Of the row begun.
  private int fields;
  private int rowMark;
  private int lineBreaks;

  /**
   * @param name the source, for messages
   * @param dialect its form
   * @param schema its columns
   * @param options how it is read
   * @param wanted which rows to note, by their number, 1-based; null for all
   * @param first how many cells of each row will be looked at
   */
  RowScanner(
      String name,
      Dialect dialect,
      Schema schema,
      TableOptions options,
      @Nullable BitSet wanted,
      int first) {
    this.name = name;
    this.schema = schema;
    this.columns = schema.size();
    this.pad = options.pad();
    this.separator = dialect.delimiter();
    this.delimiter = (byte) dialect.delimiter();
    this.quote = (byte) dialect.quote();
    this.nulls = new NullWords(options.nulls());
    this.unseen = nulls::mark;
    this.search = new ByteSearch(delimiter, quote);
    this.wanted = wanted;
    this.first = first < columns ? first : 0;
  }

  /**
   * Begins a piece.
   *
   * @param next the piece
   * @param decoding where it came from
   */
  void begin(CsvPiece next, Decoding decoding) {
    invalid = decoding.asItIs() && !next.ascii ? ValidUtf8.end(next.text, 0, next.end) : next.end;
    notValid =
        invalid == next.end ? null : decoding.invalid(next.text, invalid, next.end, next.offset);
    text = next.text;
    to = next.end;
    at = 0;
    header = next.header;
    row = next.row;
    line = next.line;
    fields = 0;
    rowMark = 0;
    lineBreaks = 0;
    choose();
  }

  /**
   * Notes the next rows of the piece. When one cannot be read, those before it are in the batch.
   *
   * @param into takes them; what it held is gone
   * @return whether there were any
   * @throws DataException when a row cannot be read
   */
  boolean read(Batch into) {
    batch = into;
    batch.clear(row, separator);
    batch.over(text);
    int from = at;
    while (fields > 0 || at < to && !batch.full()) {
      if (skipping) {
        skipRows();
      } else if (first > 0) {
        plainStarts();
      } else {
        plainCells();
      }
      // The text may end within a row: with a cell that has nothing in it, and no line end.
      if (fields > 0 || at < to && !batch.full()) {
        rowByCells();
      }
    }
    batch.took(at - from);
    return batch.rows() > 0;
  }

  private void choose() {
    skipping = header || wanted != null && !wanted.get((int) row);
  }

  /** Passes over rows that are not wanted, as long as they are plain. */
  private void skipRows() {
    while (skipping && !header) {
      int end = search.lineEnd(text, at, to);
      if (end < 0 || end == at || end >= invalid) {
        return; // to be looked at closely
      }
      at = end;
      passLineEnd();
      nextRow();
    }
  }

  /**
   * The short way for most text: cells without quotes, in rows of the right length. Stops before
   * the first cell that is anything else, and near the end of the piece.
   */
  private void plainCells() {
    byte[] bytes = text;
    int used = to;
    byte parts = delimiter;
    ByteSearch finds = search;
    int start = at;
    for (int base = start; base + Long.BYTES <= used; base += Long.BYTES) {
      long ends = finds.ends(ByteSearch.word(bytes, base));
      while (ends != 0) {
        int end = base + (Long.numberOfTrailingZeros(ends) >>> 3);
        ends &= ends - 1;
        if (end < start) {
          continue; // the second half of a line end
        }
        byte c = bytes[end];
        if (c == parts) {
          if (bytes[start] == quote || fields >= columns - 1) {
            return;
          }
          addPlain(start, end);
          at = end + 1;
        } else if (c == '\n' || c == '\r') {
          if (bytes[start] == quote || fields != columns - 1 || start == end && fields == 0) {
            return;
          }
          addPlain(start, end);
          at = end;
          passLineEnd();
          endRow();
          if (skipping || batch.full()) {
            return;
          }
        } else {
          continue;
        }
        start = at;
      }
    }
  }

  /**
   * As {@link #plainCells}, but notes only the first cells of each row and where it ends. Stops
   * before the first row that is anything but plain, or does not have the right length.
   */
  private void plainStarts() {
    while (plainStart()) {
      if (skipping || batch.full() || at >= to) {
        return;
      }
    }
  }

  /** Takes one row; returns false, and leaves it as it was, when it is not plain. */
  private boolean plainStart() {
    byte[] bytes = text;
    int used = to;
    int cell = at;
    int missing = columns - 1;
    for (int base = cell; base + Long.BYTES <= used; base += Long.BYTES) {
      long word = ByteSearch.word(bytes, base);
      long cellEnds = search.separators(word);
      long rowEnds = 0;
      long before = -1L;
      if (search.mayEndOrQuote(word)) {
        rowEnds = ByteSearch.lineBreaks(word);
        before = rowEnds == 0 ? -1L : (rowEnds & -rowEnds) - 1;
        if ((search.quotes(word) & before) != 0) {
          break;
        }
      }
      cellEnds &= before;
      missing -= Long.bitCount(cellEnds);
      for (; cellEnds != 0 && fields < first; cellEnds &= cellEnds - 1) {
        int end = base + (Long.numberOfTrailingZeros(cellEnds) >>> 3);
        addPlain(cell, end);
        cell = end + 1;
      }
      if (rowEnds != 0) {
        int end = base + (Long.numberOfTrailingZeros(rowEnds) >>> 3);
        if (missing != 0 || end >= invalid) {
          break;
        }
        batch.endPartialRow(rowMark, cell, end, unseen);
        numberRow();
        at = end;
        passLineEnd();
        nextRow();
        return true;
      }
    }
    batch.abandonRow();
    fields = 0;
    rowMark = 0;
    return false;
  }

  private void addPlain(int start, int end) {
    int mark = 0;
    if (start == end || nulls.mayHold(end - start) && nulls.hold(text, start, end - start)) {
      mark = Batch.NULL;
      rowMark |= mark;
    }
    batch.addSlice(start, end, mark);
    fields++;
  }

  /** Any row, cell by cell, from the cell that the short way stopped before. */
  private void rowByCells() {
    if (fields == 0) {
      if (passEmptyLine()) {
        return;
      }
    }
    while (true) {
      boolean ends = at < to && text[at] == quote ? quotedCell() : plainCell();
      if (ends) {
        endRow();
        return;
      }
    }
  }

  /** Passes a line with nothing on it, which is no row unless there is but one column. */
  private boolean passEmptyLine() {
    byte c = text[at];
    if (c != '\n' && c != '\r' || columns == 1 && !header) {
      return false;
    }
    passLineEnd();
    line++;
    return true;
  }

  private void passLineEnd() {
    byte c = text[at++];
    if (c == '\r' && at < to && text[at] == '\n') {
      at++;
    }
  }

  /** Takes a cell without quotes and what ends it; returns whether that ends the row. */
  private boolean plainCell() {
    int start = at;
    int end = search.cellEnd(text, start, to);
    if (end - start > LONGEST) {
      throw tooWide(false, line);
    }
    boolean isNull =
        start == end || nulls.mayHold(end - start) && nulls.hold(text, start, end - start);
    cell(start, end, isNull ? Batch.NULL : 0);
    return passEnd(end);
  }

  /** Passes what stands behind a cell; returns whether that ends the row. */
  private boolean passEnd(int end) {
    at = end;
    if (end == to) {
      return true;
    }
    if (text[end] == delimiter) {
      at++;
      return false;
    }
    passLineEnd();
    return true;
  }

  /** Takes a cell in quotes, those that were doubled made single where they stand. */
  private boolean quotedCell() {
    long openedOn = line + lineBreaks;
    int start = at + 1;
    int from = start;
    int copied = start;
    while (true) {
      int end = quoteAfter(from);
      if (end == to || end - start > LONGEST) {
        throw to - start > LONGEST ? tooWide(true, openedOn) : unclosed(openedOn);
      }
      if (copied < from) {
        System.arraycopy(text, from, text, copied, end - from);
      }
      copied += end - from;
      if (end + 1 == to || text[end + 1] != quote) {
        at = end + 1;
        break;
      }
      text[copied++] = quote;
      from = end + 2;
    }
    if (at < to && text[at] != delimiter && text[at] != '\n' && text[at] != '\r') {
      throw new DataException(
          place(openedOn)
              + ": text follows a closing quote; write a quote inside a quoted cell twice");
    }
    boolean altered = copied < at - 1;
    cell(start, copied, altered ? Batch.QUOTED | Batch.ALTERED : Batch.QUOTED);
    return passEnd(at);
  }

  /** The next quote, or the end of the piece; counts the line breaks before it. */
  private int quoteAfter(int from) {
    byte[] bytes = text;
    int i = from;
    byte c;
    while (i < to && (c = bytes[i]) != quote) {
      lineBreaks += c == '\n' ? 1 : 0;
      i++;
    }
    return i;
  }

  private void cell(int start, int end, int mark) {
    if (skipping) {
      fields++;
      return;
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

  private void endRow() {
    if (at > invalid && notValid != null) {
      batch.abandonRow();
      throw notValid;
    }
    if (!skipping) {
      if (fields < columns) {
        padRow();
      }
      batch.endRow(rowMark);
      numberRow();
    }
    nextRow();
  }

  /** Where rows are left out their numbers do not follow from that of the first. */
  private void numberRow() {
    if (wanted != null) {
      batch.numberRow(row);
    }
  }

  private void nextRow() {
    row += header ? 0 : 1;
    header = false;
    fields = 0;
    rowMark = 0;
    line += 1 + lineBreaks;
    lineBreaks = 0;
    choose();
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
      batch.addSlice(at, at, Batch.NULL | Batch.ALTERED);
    }
  }

  private String place(long openedOn) {
    String where = name + " line " + openedOn;
    return fields < columns ? where + ", column \"" + schema.names().get(fields) + "\"" : where;
  }

  private DataException unclosed(long openedOn) {
    return new DataException(
        place(openedOn)
            + ": the quote that opens here is not closed; close it, or write it twice if it"
            + " belongs to the text");
  }

  private DataException tooWide(boolean inQuotes, long openedOn) {
    return new DataException(
        (inQuotes ? place(openedOn) : name + " line " + line)
            + ": a cell of more than "
            + LONGEST
            + " bytes, which is more than any may have; "
            + (inQuotes
                ? "check that the quote that opens here is closed"
                : "check that the file is delimited text"));
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
