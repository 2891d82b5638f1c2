package org.abletwine.index;

import java.util.Arrays;
import java.util.function.IntBinaryOperator;
import java.util.function.IntToLongFunction;

/**
 * Sorts numbered things by an unsigned 64-bit beginning of each, least significant byte first
 * (radix sort; Knuth, TAOCP vol. 3, 5.2.5), and those that begin alike by comparing them.
 */
final class GroupOrder {
  private static final int RADIX = 1 << 8;

  private GroupOrder() {}

  /**
   * @param count things, numbered from 0
   * @param beginning where two differ, unsigned, the things are in that order
   * @param compare compares two things whose beginnings are equal
   * @return their numbers in order
   */
  static int[] sorted(int count, IntToLongFunction beginning, IntBinaryOperator compare) {
    long[] keys = new long[count];
    int[] order = new int[count];
    long differing = 0;
    for (int i = 0; i < count; i++) {
      keys[i] = beginning.applyAsLong(i);
      order[i] = i;
      differing |= keys[i] ^ keys[0];
    }
    for (int shift = 0; shift < Long.SIZE; shift += 8) {
      if ((differing >>> shift & RADIX - 1) != 0) {
        order = pass(keys, order, shift);
      }
    }
    int from = 0;
    for (int to = 1; to <= count; to++) {
      if (to == count || keys[order[to]] != keys[order[from]]) {
        alike(order, from, to, compare);
        from = to;
      }
    }
    return order;
  }

  private static int[] pass(long[] keys, int[] order, int shift) {
    int[] starts = new int[RADIX + 1];
    for (int number : order) {
      starts[(int) (keys[number] >>> shift & RADIX - 1) + 1]++;
    }
    for (int i = 0; i < RADIX; i++) {
      starts[i + 1] += starts[i];
    }
    int[] next = new int[order.length];
    for (int number : order) {
      next[starts[(int) (keys[number] >>> shift & RADIX - 1)]++] = number;
    }
    return next;
  }

  private static void alike(int[] order, int from, int to, IntBinaryOperator compare) {
    if (to - from < 2) {
      return;
    }
    Integer[] few = new Integer[to - from];
    for (int i = from; i < to; i++) {
      few[i - from] = order[i];
    }
    Arrays.sort(few, compare::applyAsInt);
    for (int i = from; i < to; i++) {
      order[i] = few[i - from];
    }
  }
}
