package org.abletwine.table.text;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Hashes bytes eight at a time: multiply by an odd constant and fold, once a word, then a final
 * mix. The constants are the fractional parts of the golden ratio and of the square root of two;
 * the scheme is the usual multiplicative one (Knuth, TAOCP vol. 3, 6.4). Equal bytes always give
 * equal hashes; nothing else is promised, and hashes are not kept between runs. The high bits are
 * the best mixed. Safe for use by several threads.
 */
public final class ByteHash {
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long GOLDEN = 0x9E3779B97F4A7C15L;
  private static final long ROOT_TWO = 0x6A09E667F3BCC909L;

  private ByteHash() {}

  /**
   * Begins a hash.
   *
   * @param length how many bytes there will be
   */
  public static long begin(int length) {
    return length * GOLDEN;
  }

  /**
   * Takes eight bytes more.
   *
   * @param hash what was begun
   * @param word the bytes, the first lowest
   */
  public static long add(long hash, long word) {
    long h = (hash ^ word) * ROOT_TWO;
    return h ^ h >>> 32;
  }

  /**
   * Ends a hash.
   *
   * @param hash what was begun
   */
  public static long end(long hash) {
    return hash * GOLDEN;
  }

  /**
   * Up to eight bytes as a number, the first lowest; what lies past the end counts as zero.
   *
   * @param bytes the bytes, seven more than are asked for at least
   * @param at the first, 0-based
   * @param end end, exclusive
   */
  public static long word(byte[] bytes, int at, int end) {
    long word = (long) WORD.get(bytes, at);
    int left = end - at;
    return left >= 8 ? word : left <= 0 ? 0 : word & -1L >>> 64 - 8 * left;
  }

  /**
   * The hash of some bytes.
   *
   * @param bytes the bytes; up to 7 past the end are read and play no part
   * @param start the first, 0-based
   * @param end end, exclusive
   */
  public static long of(byte[] bytes, int start, int end) {
    long h = begin(end - start);
    int at = start;
    for (; end - at >= 8; at += 8) {
      h = add(h, (long) WORD.get(bytes, at));
    }
    return end(at < end ? add(h, word(bytes, at, end)) : h);
  }
}
