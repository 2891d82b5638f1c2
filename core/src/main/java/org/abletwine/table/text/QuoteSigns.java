package org.abletwine.table.text;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;

/**
 * Tells text that may need quotes in some usual form of delimited text: where there is a quote of
 * either kind, a comma, semicolon or bar in it, or a character before the space, such as a tab or a
 * line end. Eight bytes at a time: a byte that is one borrows from the one above it, and the first
 * to do so is one for certain (Warren, Hacker's Delight, 6-1). Stateless.
 */
public final class QuoteSigns {
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long EACH = 0x0101010101010101L;
  private static final long HIGHS = 0x80 * EACH;
  private static final long LETTERS = 'a' * EACH;

  private QuoteSigns() {}

  /**
   * @param bytes UTF-8; best with seven bytes more than are asked for
   * @param start the first, 0-based
   * @param end end, exclusive
   * @return whether any of them is such a sign
   */
  public static boolean any(byte[] bytes, int start, int end) {
    if (end > bytes.length - Long.BYTES) { // the answer must not depend on what lies behind
      byte[] more = Arrays.copyOfRange(bytes, start, end + Long.BYTES);
      return any(more, 0, end - start);
    }
    long signs = 0;
    for (int at = start; at < end; at += Long.BYTES) {
      long word = (long) WORD.get(bytes, at);
      int left = end - at;
      if (left < Long.BYTES) {
        long kept = -1L >>> Long.SIZE - 8 * left;
        word = word & kept | LETTERS & ~kept;
      }
      signs |=
          word - ' ' * EACH & ~word
              | equal(word, '"')
              | equal(word, '\'')
              | equal(word, ',')
              | equal(word, ';')
              | equal(word, '|');
    }
    return (signs & HIGHS) != 0;
  }

  private static long equal(long word, char c) {
    long zero = word ^ c * EACH;
    return zero - EACH & ~zero;
  }
}
