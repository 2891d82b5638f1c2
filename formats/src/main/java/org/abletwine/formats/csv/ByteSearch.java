package org.abletwine.formats.csv;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Finds separators, quotes and line breaks in bytes, eight at a time: a byte of {@code word ^
 * pattern} is zero where the word has the pattern's character, and the usual carry-free test turns
 * that into a set bit (Warren, Hacker's Delight, 6-1). Bytes of characters beyond ASCII have their
 * top bit set, so they never equal one. The bits of eight words are brought together in one, so
 * that what stands in 64 bytes is gone through without a branch for each of them. Immutable.
 */
final class ByteSearch {
  /** Times this, a byte stands in each byte of a word. */
  static final long EACH = 0x0101010101010101L;

  /** Bytes behind the end of a text that are read and do not count. */
  static final int ROOM = 64;

  /** Times this, the lowest bits of eight bytes meet in the highest byte: the first is lowest. */
  private static final long EIGHT_TO_ONE = 0x0102040810204080L;

  private static final VarHandle WORDS =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private final long separators;
  private final long quotes;

  /**
   * @param separator the byte between cells, ASCII
   * @param quote the byte around cells, ASCII
   */
  ByteSearch(byte separator, byte quote) {
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

  /**
   * The top bit of each byte that is a line feed, a carriage return or a byte of a pattern, and of
   * some that are not.
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

  /**
   * One bit for each of 64 bytes that is the separator, the first lowest.
   *
   * @param bytes the text, with {@link #ROOM} behind its end
   * @param at the first of them
   * @param to what lies there and behind it does not count
   */
  long separators(byte[] bytes, int at, int to) {
    long found =
        each(separators(word(bytes, at)))
            | each(separators(word(bytes, at + 8))) << 8
            | each(separators(word(bytes, at + 16))) << 16
            | each(separators(word(bytes, at + 24))) << 24
            | each(separators(word(bytes, at + 32))) << 32
            | each(separators(word(bytes, at + 40))) << 40
            | each(separators(word(bytes, at + 48))) << 48
            | each(separators(word(bytes, at + 56))) << 56;
    return to - at >= Long.SIZE ? found : found & (1L << to - at) - 1;
  }

  /** One bit for each byte whose top bit is set, and nothing else, the first lowest. */
  static long each(long tops) {
    return (tops >>> 7) * EIGHT_TO_ONE >>> 56;
  }

  /** Counts how often a byte stands in a stretch of text. */
  static int count(byte[] bytes, int from, int to, byte c) {
    int count = 0;
    for (int at = from; at < to; at++) {
      count += bytes[at] == c ? 1 : 0;
    }
    return count;
  }

  /**
   * @param bytes the text, with a word of room behind its end
   * @param from where the cell begins
   * @param to where the row ends
   * @return where the cell ends: at the first separator, or where the row does
   */
  int cellEnd(byte[] bytes, int from, int to) {
    return first(bytes, from, to, separators);
  }

  /**
   * @param bytes the text, with a word of room behind its end
   * @param from where to begin
   * @param to where the row ends
   * @return where the first quote stands, or where the row ends
   */
  int quote(byte[] bytes, int from, int to) {
    return first(bytes, from, to, quotes);
  }

  private static int first(byte[] bytes, int from, int to, long pattern) {
    for (int base = from; base < to; base += Long.BYTES) {
      long hits = zeros(word(bytes, base) ^ pattern);
      if (hits != 0) {
        return Math.min(base + (Long.numberOfTrailingZeros(hits) >>> 3), to);
      }
    }
    return to;
  }
}
