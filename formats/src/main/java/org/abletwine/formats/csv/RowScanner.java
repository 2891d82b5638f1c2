package org.abletwine.formats.csv;

import java.util.Arrays;
import java.util.BitSet;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.UnseenCells;
import org.jspecify.annotations.Nullable;

/**
 * Finds the cells of the rows of a piece, and notes them as slices of its text: no byte is copied
 * and nothing is called per cell from outside. Where rows end has been found by the {@link Cutter},
 * so in a row without quotes there is nothing left to look for but what stands between cells. The
 * form is that of RFC 4180; a quote inside a cell that does not begin with one is a character like
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
  private final UnseenCells unseen;
  private final ByteSearch search;
  private final @Nullable BitSet wanted;

  /** How many cells of each row to note, where that leaves out any; else 0. */
  private final int first;

  private Batch batch = new Batch(0);
  private CsvPiece piece = new CsvPiece();
  private byte[] text = {};

  /** Where text begins that is not valid UTF-8, or behind the end. */
  private int invalid;

  private @Nullable DataException notValid;
  private boolean header;
  private long row = 1;

  /** How many lines of the piece are behind, and where the next one begins. */
  private int lines;

  private int at;

  // Of a row that is taken cell by cell: where it begins, where it is noted, and how far it is.
  private int rowStart;
  private int rowPlace;
  private int fields;
  private int rowMark;

  /** Where the first cell of a row begins that was only counted. */
  private int behind;

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
    this.unseen = this::noteUnseen;
    this.search = new ByteSearch(delimiter, quote);
    this.wanted = wanted;
    this.first = first < columns && !pad ? first : 0;
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
    piece = next;
    text = next.text;
    header = next.header;
    row = next.row;
    lines = 0;
    at = 0;
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
    while (lines < piece.lines() && !batch.full()) {
      int start = at;
      int end = piece.lineEnd(lines);
      boolean plain = piece.plain(lines++);
      at = piece.behind(end);
      if (start == end && (columns > 1 || header)) {
        continue; // a line with nothing on it, which is no row unless there is but one column
      }
      if (header) {
        header = false;
      } else {
        if (wanted == null || wanted.get((int) row)) {
          row(start, end, plain && end - start <= LONGEST);
        }
        row++;
      }
    }
    batch.took(at - from);
    return batch.rows() > 0;
  }

  /**
   * Notes a row. Before the first quote there is nothing in it but cells and what stands between
   * them; of those that will not be looked at it is seen how many there are.
   *
   * @param plain whether there is no quote in it, and no cell too long
   */
  private void row(int start, int end, boolean plain) {
    rowPlace = batch.beginRow();
    int to = plain ? end : plainUntil(start, end);
    int any = separated(start, to, first > 0 ? first : columns - 1);
    if (!plain || fields != columns - 1 || end > invalid) {
      rowByCells(start, end, plain || fields >= columns ? start : to, any);
    } else if (first > 0) {
      batch.note(first);
      batch.endPartialRow(any, behind, end, unseen);
    } else {
      rowMark = any;
      note(behind, end, nulls.mark(text, behind, end));
      batch.note(columns);
      batch.endRow(rowMark);
    }
    if (wanted != null) {
      batch.numberRow(row); // where rows are left out numbers do not follow from the first
    }
  }

  /** Returns where the first cell of a row begins that may have a quote in it. */
  private int plainUntil(int start, int end) {
    if (end - start > LONGEST) {
      return start;
    }
    int to = search.quote(text, start, end);
    while (to > start && text[to - 1] != delimiter) {
      to--;
    }
    return to;
  }

  /**
   * Counts the separators of a stretch without quotes that begins where the row does, and notes its
   * first cells, as far as a separator ends them.
   *
   * @param most how many cells to note
   * @return the marks of the cells noted, or-ed together
   */
  private int separated(int start, int end, int most) {
    byte[] bytes = text;
    int[] starts = batch.cellStarts();
    int[] ends = batch.cellEnds();
    byte[] marks = batch.cellMarks();
    int at = rowPlace;
    int left = most;
    int any = 0;
    int count = 0;
    int cell = start;
    for (int base = start; base < end; base += Long.SIZE) {
      long found = search.separators(bytes, base, end);
      int here = Long.bitCount(found);
      count += here;
      int taken = Math.min(here, left);
      left -= taken;
      for (; taken > 0; taken--) {
        int stop = base + Long.numberOfTrailingZeros(found);
        int mark = nulls.mark(bytes, cell, stop);
        any |= mark;
        starts[at] = cell;
        ends[at] = stop;
        marks[at++] = (byte) mark;
        cell = stop + 1;
        found &= found - 1;
      }
    }
    fields = count;
    behind = cell;
    return any;
  }

  /**
   * Notes a row cell by cell.
   *
   * @param from where to begin: behind the cells that were {@link #separated}, or where the row
   *     does, for something is to be told of those, or filled up
   * @param any the marks of those cells that were noted
   */
  private void rowByCells(int start, int end, int from, int any) {
    rowStart = start;
    fields = from == start ? 0 : fields;
    rowMark = from == start ? 0 : any;
    int noted = first > 0 ? first : columns;
    int cell = from;
    int rest = behind;
    while (true) {
      boolean quoted = cell < end && text[cell] == quote;
      int stop = quoted ? quotedCell(cell, end, noted) : plainCell(cell, end, noted);
      if (fields == noted) {
        rest = stop + 1;
        if ((rowMark & Batch.ALTERED) != 0) {
          noted = columns; // such a row does not leave as it came
        }
      }
      if (stop == end) {
        break;
      }
      cell = stop + 1;
    }
    if (end > invalid && notValid != null) {
      throw notValid;
    }
    if (fields < columns) {
      padRow(end);
    }
    batch.note(noted);
    if (noted < columns) {
      batch.endPartialRow(rowMark, rest, end, unseen);
    } else {
      batch.endRow(rowMark);
    }
  }

  /** Notes a cell of the row that is taken cell by cell. */
  private void note(int start, int end, int mark) {
    int at = rowPlace + fields++;
    batch.cellStarts()[at] = start;
    batch.cellEnds()[at] = end;
    batch.cellMarks()[at] = (byte) mark;
    rowMark |= mark;
  }

  /** Takes a cell that does not begin with a quote; returns where it ends. */
  private int plainCell(int start, int end, int noted) {
    int stop = search.cellEnd(text, start, end);
    if (stop - start > LONGEST) {
      throw tooWide(false, line());
    }
    if (fields < noted) {
      note(start, stop, nulls.mark(text, start, stop));
    } else {
      passCell(stop > start);
    }
    return stop;
  }

  /** Takes a cell in quotes; returns where it ends, its quotes included. */
  private int quotedCell(int start, int end, int noted) {
    int close = closing(text, start + 1, end);
    if (close < 0 || close - start - 1 > LONGEST) {
      throw end - start - 1 > LONGEST ? tooWide(true, lineAt(start)) : unclosed(lineAt(start));
    }
    int stop = close + 1;
    if (stop < end && text[stop] != delimiter) {
      throw new DataException(
          place(lineAt(start))
              + ": text follows a closing quote; write a quote inside a quoted cell twice");
    }
    if (fields < noted) {
      int last = single(text, start + 1, close);
      note(start + 1, last, last < close ? Batch.QUOTED | Batch.ALTERED : Batch.QUOTED);
    } else {
      passCell(close > start + 1);
    }
    return stop;
  }

  /** A cell that is not noted: because it will not be looked at, or because it is one too many. */
  private void passCell(boolean any) {
    if (fields >= columns && (!pad || any)) {
      throw tooLong();
    }
    fields++;
  }

  /** Where the quote stands that closes a cell; negative when there is none. */
  private int closing(byte[] bytes, int start, int end) {
    int at = search.quote(bytes, start, end);
    while (at < end && at + 1 < end && bytes[at + 1] == quote) {
      at = search.quote(bytes, at + 2, end);
    }
    return at < end ? at : -1;
  }

  /**
   * Makes quotes that were doubled single where they stand; returns where the cell ends then. What
   * is left over takes quotes, so that lines can still be counted.
   */
  private int single(byte[] bytes, int start, int end) {
    int from = search.quote(bytes, start, end);
    if (from == end) {
      return end;
    }
    int to = from;
    while (from < end) {
      byte c = bytes[from];
      bytes[to++] = c;
      from += c == quote ? 2 : 1;
    }
    Arrays.fill(bytes, to, end, quote);
    return to;
  }

  /** Notes cells of a row that was looked at before, and is known to be well formed. */
  private int noteUnseen(
      byte[] bytes, int start, int end, int[] starts, int[] ends, byte[] marks, int from) {
    int any = 0;
    int cell = from;
    int at = start;
    while (true) {
      boolean quoted = at < end && bytes[at] == quote;
      int close = quoted ? closing(bytes, at + 1, end) : -1;
      int stop = quoted ? close + 1 : search.cellEnd(bytes, at, end);
      int last = quoted ? single(bytes, at + 1, close) : stop;
      int altered = quoted && last < close ? Batch.ALTERED : 0;
      int mark = quoted ? Batch.QUOTED | altered : nulls.mark(bytes, at, stop);
      any |= mark;
      starts[cell] = quoted ? at + 1 : at;
      ends[cell] = last;
      marks[cell++] = (byte) mark;
      if (stop == end) {
        return any;
      }
      at = stop + 1;
    }
  }

  private void padRow(int end) {
    if (!pad) {
      throw new DataException(
          name
              + " line "
              + line()
              + ": "
              + (fields == 1 ? "1 cell" : fields + " cells")
              + " where the header has "
              + columns
              + "; correct the line, or state ragged: pad to fill it up with nulls");
    }
    while (fields < columns) {
      note(end, end, Batch.NULL | Batch.ALTERED);
    }
  }

  /** The line the row begins on: counted when it is to be told, and not before. */
  private long line() {
    return piece.line + piece.lineBreaks(lines - 1);
  }

  /** The line of a place in the row. */
  private long lineAt(int place) {
    return line() + ByteSearch.count(text, rowStart, place, (byte) '\n');
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
        (inQuotes ? place(openedOn) : name + " line " + openedOn)
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
            + line()
            + ": more cells than the "
            + columns
            + " of the header"
            + "; a cell that holds the delimiter must stand in quotes");
  }
}
