package org.abletwine.formats.csv;

import org.abletwine.table.batch.CellVector;

/**
 * Cuts delimited text into pieces of whole rows, one after the other. This is the part of reading
 * that cannot be shared, so it does as little as it can: 64 bytes at a time it looks for what may
 * be a quote or end a line, and follows only that. A quote opens a cell where one begins, and
 * nowhere else, as {@link RowScanner} has it; so every piece begins and ends where a row does,
 * whatever the text. Where rows end is noted for who looks into them, so that nobody has to look
 * for it again; rows and lines are counted, for each piece to know its own. Used by one thread at a
 * time.
 */
final class Cutter {
  private static final int PIECE = 1 << 18;

  /** Longest row, in bytes: it has to be in memory at once. */
  private static final int MOST_ROW = 1 << 29;

  /** Bytes asked for at least, so that one character fits. */
  private static final int LEAST = 8;

  /** Bytes behind the text that is wanted, for whoever reads it by words. */
  private static final int ROOM = LEAST + Math.max(ByteSearch.ROOM, CellVector.SLACK);

  private final Decoding decoding;
  private final byte delimiter;
  private final byte quote;
  private final long quotes;
  private final boolean skipsEmptyLines;
  private final int size;
  private boolean header;
  private byte[] rest = new byte[0];
  private int restLength;
  private boolean atEnd;
  private long offset;
  private long border;
  private long row = 1;
  private long line = 1;

  /** All bytes looked at for the piece being cut, or-ed together by words. */
  private long seen;

  // Of the piece being cut: where its last row ends, and what was met until there.
  private int rowStart;
  private long rows;
  private long lines;

  private CsvPiece piece = new CsvPiece();

  // Of the row that goes on: whether a quote was met, whether within quotes, line breaks there.
  private boolean anyQuote;
  private boolean quoted;
  private boolean within;
  private boolean quotesMet;
  private int opened;
  private long breaks;

  /**
   * Bytes of a piece, unless a single row has more. Stated by a system property only to be measured
   * and tested.
   */
  static int pieceSize() {
    return Math.max(1, Integer.getInteger("org.abletwine.piece", PIECE));
  }

  Cutter(Decoding decoding, Dialect dialect, int columns) {
    this(decoding, dialect, columns, pieceSize());
  }

  /**
   * @param size bytes of a piece, unless a single row has more
   */
  Cutter(Decoding decoding, Dialect dialect, int columns, int size) {
    this.decoding = decoding;
    this.delimiter = (byte) dialect.delimiter();
    this.quote = (byte) dialect.quote();
    this.quotes = quote * ByteSearch.EACH;
    this.header = dialect.header();
    this.skipsEmptyLines = columns > 1;
    this.size = size;
    this.offset = dialect.encoding().markLength();
  }

  /**
   * Begins in the middle of the text, behind a line end.
   *
   * @param from where in the source, 0-based
   * @param nextRow the number of the row that begins there, 1-based
   * @param nextLine the line, 1-based
   * @param inQuotes whether it is within a cell in quotes, and no row begins there
   * @return this cutter
   */
  Cutter beginning(long from, long nextRow, long nextLine, boolean inQuotes) {
    header = false;
    offset = from;
    row = nextRow;
    line = nextLine;
    quoted = inQuotes;
    return this;
  }

  /**
   * Cuts off the next piece.
   *
   * @param into takes it
   * @return false when there was nothing left
   */
  boolean next(CsvPiece into) {
    if (atEnd && restLength == 0) {
      return false;
    }
    piece = into;
    piece.noLines();
    int wanted = restLength + size;
    byte[] text = piece.room(wanted + ROOM);
    System.arraycopy(rest, 0, text, 0, restLength);
    int used = restLength;
    int scanned = 0;
    rowStart = 0;
    rows = 0;
    lines = 0;
    breaks = 0;
    opened = 0;
    anyQuote = false;
    seen = 0;
    boolean first = header;
    while (true) {
      while (!atEnd && used < wanted) {
        int count = decoding.read(text, used, Math.max(LEAST, wanted - used));
        atEnd = count < 0;
        used += Math.max(0, count);
      }
      scanned = scan(text, scanned, used);
      if (atEnd || rowStart > 0 || tooLong(text, used)) {
        break;
      }
      wanted = 2 * used;
      text = piece.room(wanted + ROOM);
    }
    within = atEnd && quoted;
    if (atEnd && used > rowStart) {
      rows += header ? 0 : 1; // the last row has no line end
      header = false;
    }
    int end = atEnd || rowStart == 0 ? used : rowStart;
    if (end > rowStart) {
      piece.line(end, anyQuote);
    }
    quoted = false; // what is left over is looked at once more
    restLength = used - end;
    if (rest.length < restLength) {
      rest = new byte[2 * restLength];
    }
    System.arraycopy(text, end, rest, 0, restLength);
    if (end == 0) {
      return false;
    }
    piece.set(end, row, line, offset, first);
    piece.ascii = (seen & ValidUtf8.HIGHS) == 0;
    border = offset + (within ? rowStart : end);
    offset += end;
    row += rows;
    line += lines;
    return true;
  }

  /** Whether the row that goes on has a cell too long to be one, of which its parser tells. */
  private boolean tooLong(byte[] text, int used) {
    if (used - rowStart > MOST_ROW) {
      throw decoding.tooLongARow(line + lines, MOST_ROW);
    }
    if (quoted) {
      return used - opened > RowScanner.LONGEST + 1;
    }
    int cell = used;
    while (cell > rowStart && used - cell <= RowScanner.LONGEST && text[cell - 1] != delimiter) {
      cell--;
    }
    return used - cell > RowScanner.LONGEST;
  }

  /** Returns whether the text has ended within a cell in quotes. */
  boolean endsWithin() {
    return within;
  }

  /** Returns whether any quote was met outside of cells in quotes. */
  boolean quotesMet() {
    return quotesMet;
  }

  /** Returns whether the header is still to come. */
  boolean beforeHeader() {
    return header;
  }

  /** Returns the place behind the last row that has ended, 0-based; for text that is UTF-8. */
  long border() {
    return border;
  }

  /** Returns the line after the last row that has ended, 1-based. */
  long borderLine() {
    return line;
  }

  /** Returns the number of the row after the last one that has ended, 1-based. */
  long borderRow() {
    return row - (within ? 1 : 0);
  }

  /** Returns the line after the last piece, 1-based, line ends in a row that goes on counted. */
  long nextLine() {
    return line + (within ? breaks : 0);
  }

  /** Returns the number of the row after the last piece, 1-based. */
  long nextRow() {
    return row;
  }

  /** Follows quotes and line ends; returns from where to go on once there is more text. */
  private int scan(byte[] text, int from, int used) {
    // What the last byte means depends on the one behind it.
    int limit = atEnd ? used : used - 1;
    int at = from;
    long all = seen;
    while (at <= limit - Long.SIZE) {
      long may = 0;
      for (int word = 0; word < Long.SIZE; word += Long.BYTES) {
        long bytes = ByteSearch.word(text, at + word);
        all |= bytes;
        may |= ByteSearch.each(ByteSearch.mayHold(bytes, quotes)) << word;
      }
      at = follow(text, at, may, at + Long.SIZE, used);
    }
    while (at < limit) {
      long bytes = ByteSearch.word(text, at);
      int next = Math.min(at + Long.BYTES, limit);
      all |= bytes;
      long may = ByteSearch.each(ByteSearch.mayHold(bytes, quotes)) & (1L << next - at) - 1;
      at = follow(text, at, may, next, used);
    }
    seen = all;
    return at;
  }

  /**
   * Follows what is in some bytes; returns from where to go on.
   *
   * @param may for each byte whether it may be a quote or end a line, the first lowest
   * @param next the end of these bytes, exclusive
   */
  private int follow(byte[] text, int from, long may, int next, int used) {
    int taken = from;
    for (long left = may; left != 0; left &= left - 1) {
      int at = from + Long.numberOfTrailingZeros(left);
      if (at >= taken) { // or it was taken with the byte before
        taken = hit(text, at, used);
      }
    }
    return Math.max(next, taken);
  }

  /**
   * Takes a byte into account that may be a quote or end a line, and with it the one behind where
   * both are one; returns from where to go on.
   */
  private int hit(byte[] text, int at, int used) {
    byte c = text[at];
    if (c == '\n' && !quoted) {
      return ended(at, at + 1);
    }
    int inside = at + 1 - used >> 31;
    int next = text[at + 1] & inside | ~inside; // no byte of text where there is none
    if (quoted) {
      boolean ends = c == quote && next != quote;
      quoted = !ends;
      breaks += c == '\n' ? 1 : 0;
      return c == quote && next == quote ? at + 2 : at + 1;
    }
    if (c == quote) {
      quotesMet = true;
      anyQuote = true;
      quoted = at == rowStart || text[at - 1] == delimiter;
      opened = at;
      return at + 1;
    }
    return c == '\r' ? ended(at, next == '\n' ? at + 2 : at + 1) : at;
  }

  /** Ends a row, unless there is nothing on its line; returns where the next one begins. */
  private int ended(int at, int next) {
    if (at > rowStart || !header && !skipsEmptyLines) {
      rows += header ? 0 : 1;
      header = false;
    }
    lines += 1 + breaks;
    breaks = 0;
    piece.line(at, anyQuote);
    anyQuote = false;
    rowStart = next;
    return next;
  }

  @Override
  public String toString() {
    return "Cutter[row " + row + "]";
  }
}
