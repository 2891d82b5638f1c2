package org.abletwine.formats.csv;

import java.util.Arrays;

/**
 * Some whole rows of a text, and where in the source they are. Filled by a {@link Cutter}; belongs
 * to one thread at a time. Text behind the end, up to the slack of a batch, may be read by words.
 */
final class CsvPiece {
  /** The text; invariant: UTF-8 as far as it is valid, whole rows from 0 to {@link #end}. */
  byte[] text = new byte[0];

  /** Where the rows end, exclusive. */
  int end;

  /** The number of the first row, 1-based, the header not counted. */
  long row;

  /** The line the first row begins on, 1-based. */
  long line;

  /** Where in the source the text begins, in bytes, 0-based. */
  long offset;

  /** Whether the first row is the header. */
  boolean header;

  /** Whether all of the text is known to be ASCII, and so valid. */
  boolean ascii;

  /** Makes room for so many bytes, what is held kept; returns the text. */
  byte[] room(int bytes) {
    if (text.length < bytes) {
      text = Arrays.copyOf(text, bytes + (bytes >> 3)); // what is left over of a piece varies
    }
    return text;
  }

  void set(int to, long firstRow, long firstLine, long from, boolean withHeader) {
    end = to;
    row = firstRow;
    line = firstLine;
    offset = from;
    header = withHeader;
  }

  @Override
  public String toString() {
    return "CsvPiece[from row " + row + ", " + end + " bytes]";
  }
}
