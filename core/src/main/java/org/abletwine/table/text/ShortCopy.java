package org.abletwine.table.text;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import org.abletwine.table.batch.CellVector;

/**
 * Copies bytes of which there are mostly few: word by word, without a call. Safe for use by several
 * threads.
 */
public final class ShortCopy {
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final int SHORT = 16;

  private ShortCopy() {}

  /**
   * Copies bytes. Up to sixteen bytes behind those copied may change: they are to be written over.
   *
   * @param source where from
   * @param from its first byte, 0-based
   * @param length how many
   * @param target where to, with {@link CellVector#SLACK} bytes behind
   * @param to its first byte, 0-based
   */
  public static void copy(byte[] source, int from, int length, byte[] target, int to) {
    if (length <= SHORT && from + SHORT <= source.length) {
      WORD.set(target, to, (long) WORD.get(source, from));
      WORD.set(target, to + 8, (long) WORD.get(source, from + 8));
    } else {
      System.arraycopy(source, from, target, to, length);
    }
  }
}
