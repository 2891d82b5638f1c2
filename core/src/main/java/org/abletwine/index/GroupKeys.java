package org.abletwine.index;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The keys of groups as bytes: for each part its length and one as a varint (0 for null), then its
 * UTF-8. So a key says itself where it ends, and the key of the first parts is the beginning of the
 * key of all.
 */
public final class GroupKeys {
  private GroupKeys() {}

  /**
   * The values that a key is made of.
   *
   * @param bytes where it is
   * @param start where it begins there
   * @param parts how many values there are
   * @return the values; null for null
   */
  public static @Nullable String[] values(byte[] bytes, int start, int parts) {
    int at = start;
    @Nullable String[] values = new @Nullable String[parts];
    for (int part = 0; part < parts; part++) {
      int length = Varint.read(bytes, at);
      at += Varint.size(length);
      if (length > 0) {
        values[part] = new String(bytes, at, length - 1, StandardCharsets.UTF_8);
        at += length - 1;
      }
    }
    return values;
  }

  /**
   * Compares keys by their values, part by part: by code point, nulls last.
   *
   * @param one where the one is, which begins at {@code at}
   * @param other where the other is, which begins at {@code from}
   * @param parts how many values there are
   * @return below 0 when the one comes first, 0 when they are equal, else above 0
   */
  public static int compare(byte[] one, int at, byte[] other, int from, int parts) {
    int a = at;
    int b = from;
    for (int part = 0; part < parts; part++) {
      int length = Varint.read(one, a);
      int others = Varint.read(other, b);
      a += Varint.size(length);
      b += Varint.size(others);
      if (length == 0 || others == 0) {
        if (length != others) {
          return length == 0 ? 1 : -1;
        }
        continue;
      }
      int order = Arrays.compareUnsigned(one, a, a + length - 1, other, b, b + others - 1);
      if (order != 0) {
        return order;
      }
      a += length - 1;
      b += others - 1;
    }
    return 0;
  }

  /**
   * Returns whether a key begins with the key of its first parts.
   *
   * @param key the key, from the first byte on
   * @param length how many bytes it has
   * @param first the key of its first parts, from the first byte on
   * @param firstLength how many bytes that has
   */
  public static boolean beginsWith(byte[] key, int length, byte[] first, int firstLength) {
    return length >= firstLength && Arrays.equals(key, 0, firstLength, first, 0, firstLength);
  }

  /** Returns whether the part that begins there is null. */
  public static boolean isNull(byte[] key, int at) {
    return key[at] == 0;
  }
}
