package org.abletwine.key;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * Hashes key bytes eight at a time: multiply by an odd constant and fold, once a word, then a final
 * mix. The constants are the fractional parts of the golden ratio and of the square root of two;
 * the scheme is the usual multiplicative one (Knuth, TAOCP vol. 3, 6.4). Equal bytes always give
 * equal hashes; nothing else is promised, and hashes are not kept between runs.
 */
final class KeyHash {
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final long GOLDEN = 0x9E3779B97F4A7C15L;
  private static final long ROOT_TWO = 0x6A09E667F3BCC909L;

  private KeyHash() {}

  /** Fills {@code keys.hashes}; reads up to 7 bytes past a key, which the slack allows. */
  static void hashAll(EncodedKeys keys) {
    byte[] bytes = keys.bytes;
    int[] ends = keys.ends;
    int[] hashes = keys.hashes;
    int rows = keys.rows();
    int start = ends[0];
    for (int row = 0; row < rows; row++) {
      int end = ends[row + 1];
      hashes[row] = hash(bytes, start, end);
      start = end;
    }
  }

  private static int hash(byte[] bytes, int start, int end) {
    long h = (end - start) * GOLDEN;
    int at = start;
    for (; end - at >= 8; at += 8) {
      h = (h ^ (long) WORD.get(bytes, at)) * ROOT_TWO;
      h ^= h >>> 32;
    }
    if (at < end) {
      long mask = -1L >>> (64 - 8 * (end - at));
      h = (h ^ ((long) WORD.get(bytes, at) & mask)) * ROOT_TWO;
      h ^= h >>> 32;
    }
    h *= GOLDEN;
    return (int) (h >>> 32);
  }
}
