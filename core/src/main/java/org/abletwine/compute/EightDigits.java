package org.abletwine.compute;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Up to eight decimal digits at once, as the bytes of a long, the first digit lowest: no loop, so
 * numbers of different lengths cost no mispredicted branches. Reading adds neighbours up in three
 * steps (Lemire and Langdale, "Parsing gigabytes of JSON per second", 2019).
 */
final class EightDigits {
  private static final int COUNT = 8;

  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long ONES = 0x0101010101010101L;
  private static final long HIGHS = ONES << 7;
  private static final long ZEROS = ONES * '0';
  private static final long POINTS = ONES * '.';
  private static final long ABOVE_NINE = ONES * (0x7F - '9');

  private EightDigits() {}

  /**
   * Reads a number of up to eight characters: digits, and perhaps a point among them.
   *
   * @return whether it is one; if not, it may still be a number written otherwise
   */
  static boolean read(byte[] text, int from, int to, Values into, int row) {
    int length = to - from;
    if (length > COUNT || length <= 0 || from + COUNT > text.length) {
      return false;
    }
    int spare = Long.SIZE - (length << 3);
    long word = (long) WORD.get(text, from) << spare | ZEROS & (1L << spare) - 1;
    long difference = word ^ POINTS;
    long point = difference - ONES & ~difference & HIGHS;
    int places = 0;
    if (point != 0) {
      int bit = Long.numberOfTrailingZeros(point) & ~7;
      places = 7 - (bit >>> 3);
      long before = word & (1L << bit) - 1;
      long after = word & -2L << bit + 7;
      word = before << 8 | after | '0';
      if (length == 1) {
        return false;
      }
    }
    if (((word + ABOVE_NINE | word - ZEROS) & HIGHS) != 0) {
      return false;
    }
    long digits = word - ZEROS;
    digits = digits * 10 + (digits >>> 8);
    long value =
        (digits & 0x000000FF000000FFL) * (100 + (1_000_000L << 32))
                + (digits >>> 16 & 0x000000FF000000FFL) * (1 + (10_000L << 32))
            >>> 32;
    into.number(row, value, places);
    return true;
  }
}
