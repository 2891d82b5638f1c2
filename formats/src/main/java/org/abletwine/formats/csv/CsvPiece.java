package org.abletwine.formats.csv;

import java.util.Arrays;

/**
 * Some whole rows of a text, where in it they end, and where in the source they are. Filled by a
 * {@link Cutter}; belongs to one thread at a time. Text behind the end, up to the slack of a batch,
 * may be read by words.
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

  /**
   * Where each line ends that a row can be, its quotes included; the complement when it has any.
   */
  private int[] lineEnds = new int[64];

  private int lines;

  /** Makes room for so many bytes, what is held kept; returns the text. */
  byte[] room(int bytes) {
    if (text.length < bytes) {
      text = Arrays.copyOf(text, bytes + (bytes >> 3)); // what is left over of a piece varies
    }
    return text;
  }

  /** Forgets the lines noted. */
  void noLines() {
    lines = 0;
  }

  /**
   * Notes the next line; what stands within quotes is part of it.
   *
   * @param to where it ends, exclusive, its line end not included
   * @param quotes whether there is any quote in it
   */
  void line(int to, boolean quotes) {
    if (lines == lineEnds.length) {
      lineEnds = Arrays.copyOf(lineEnds, lines * 2);
    }
    lineEnds[lines++] = quotes ? ~to : to;
  }

  /** Returns how many lines there are, empty ones included. */
  int lines() {
    return lines;
  }

  /** Returns where a line ends, exclusive. */
  int lineEnd(int number) {
    int noted = lineEnds[number];
    return noted ^ noted >> 31;
  }

  /** Returns whether there is no quote in a line. */
  boolean plain(int number) {
    return lineEnds[number] >= 0;
  }

  /** Returns where the next line begins behind one that ends there. */
  int behind(int to) {
    if (to == end) {
      return to;
    }
    return text[to] == '\r' && to + 1 < end && text[to + 1] == '\n' ? to + 2 : to + 1;
  }

  /** Counts the line breaks before a line, those within quotes included. */
  long lineBreaks(int number) {
    long breaks = 0;
    int at = 0;
    for (int line = 0; line < number; line++) {
      int to = lineEnd(line);
      breaks += 1 + (plain(line) ? 0 : ByteSearch.count(text, at, to, (byte) '\n'));
      at = behind(to);
    }
    return breaks;
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
