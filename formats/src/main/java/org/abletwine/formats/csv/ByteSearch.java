package org.abletwine.formats.csv;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Finds the ends of plain cells and rows in bytes, eight at a time: a byte of {@code word ^
 * pattern} is zero where the word has the pattern's character, and the usual carry-free test turns
 * that into a set bit (Warren, Hacker's Delight, 6-1). Line ends are found by a pattern that stands
 * for U+0008 to U+000F, the others of which are passed over. Bytes of characters beyond ASCII have
 * their top bit set, so they never equal one. Immutable.
 */
final class ByteSearch {
  /** Times this, a byte stands in each byte of a word. */
  static final long EACH = 0x0101010101010101L;

  private static final VarHandle WORDS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private final byte separator;
  private final long separators;
  private final long quotes;

  /**
   * @param separator the byte between cells, ASCII
   * @param quote the byte around cells, ASCII
   */
  ByteSearch(byte separator, byte quote) {
    this.separator = separator;
    this.separators = separator * EACH;
    this.quotes = quote * EACH;
  }

  /** Eight bytes, the first lowest. */
  static long word(byte[] bytes, int at) {
    return (long) WORDS.get(bytes, at);
  }

  /** The top bit of each byte that is zero, and nothing else. */
  static long zeros(long word) {
    return ~((word & 0x7F * EACH) + 0x7F * EACH | word | 0x7F * EACH);
  }

  /** The top bit of each byte that may end a row: U+0008 to U+000F. */
  static long lineEnds(long word) {
    return zeros(word & 0xF8 * EACH ^ 0x08 * EACH);
  }

  /** The top bit of each byte that is a line feed or a carriage return. */
  static long lineBreaks(long word) {
    return zeros(word ^ '\n' * EACH) | zeros(word ^ '\r' * EACH);
  }

  /**
   * The top bit of some byte when there is a line break or a byte of a pattern, and perhaps when
   * there is not.
   *
   * @param word eight bytes
   * @param pattern a byte in each byte
   */
  static long mayHold(long word, long pattern) {
    long a = word ^ pattern;
    return (a - EACH & ~a | word - 0x0E * EACH & ~word) & 0x80 * EACH;
  }

  /** The top bit of each byte that is the separator. */
  long separators(long word) {
    return zeros(word ^ separators);
  }

  /** The top bit of each byte that is the quote. */
  long quotes(long word) {
    return zeros(word ^ quotes);
  }

  /** Whether there may be a line break or a quote; if not, there is none. */
  boolean mayEndOrQuote(long word) {
    return mayHold(word, quotes) != 0;
  }

  /** The top bit of each byte that may end a cell: the separator, and U+0008 to U+000F. */
  long ends(long word) {
    return zeros(word ^ separators) | lineEnds(word);
  }

  /**
   * @param bytes the text
   * @param from where the cell begins
   * @param used where the text ends
   * @return where the cell ends, or {@code used} when not within the text
   */
  int cellEnd(byte[] bytes, int from, int used) {
    for (int base = from; base + Long.BYTES <= used; base += Long.BYTES) {
      for (long ends = ends(word(bytes, base)); ends != 0; ends &= ends - 1) {
        int end = base + (Long.numberOfTrailingZeros(ends) >>> 3);
        byte c = bytes[end];
        if (c == separator || c == '\n' || c == '\r') {
          return end;
        }
      }
    }
    for (int end = Math.max(from, used - (used - from) % Long.BYTES); end < used; end++) {
      byte c = bytes[end];
      if (c == separator || c == '\n' || c == '\r') {
        return end;
      }
    }
    return used;
  }

  /**
   * @param bytes the text, with a word of room behind its end
   * @param from where a row begins
   * @param to where the text ends
   * @return where the row ends; -1 when it has a quote, or goes on to the end of the text
   */
  int lineEnd(byte[] bytes, int from, int to) {
    for (int base = from; base < to; base += Long.BYTES) {
      long word = word(bytes, base);
      long ends = lineBreaks(word);
      long before = ends == 0 ? -1L : (ends & -ends) - 1;
      if ((zeros(word ^ quotes) & before) != 0) {
        return -1;
      }
      if (ends != 0) {
        int end = base + (Long.numberOfTrailingZeros(ends) >>> 3);
        return end < to ? end : -1;
      }
    }
    return -1;
  }
}
