package org.abletwine.table.batch;

/** Some of the entries of an array, in an order stated, with room behind them. */
final class Picked {
  private Picked() {}

  static int[] of(int[] from, int[] rows, int count, int length) {
    int[] result = new int[length];
    for (int i = 0; i < count; i++) {
      result[i] = from[rows[i]];
    }
    return result;
  }

  static long[] of(long[] from, int[] rows, int count, int length) {
    long[] result = new long[length];
    for (int i = 0; i < count; i++) {
      result[i] = from[rows[i]];
    }
    return result;
  }

  static byte[] of(byte[] from, int[] rows, int count, int length) {
    byte[] result = new byte[length];
    for (int i = 0; i < count; i++) {
      result[i] = from[rows[i]];
    }
    return result;
  }
}
