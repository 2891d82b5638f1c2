package org.abletwine.compute;

import java.util.concurrent.atomic.LongAdder;

/**
 * Counts, only while assertions are on, how often arithmetic went through {@link
 * java.math.BigDecimal}: the short way comes to the same number, so nothing else tells the two
 * apart. Safe for use by several threads.
 */
final class LongWay {
  private static final LongAdder TAKEN = new LongAdder();

  private LongWay() {}

  /** Counts one; to be called within an assertion. */
  static boolean taken() {
    TAKEN.increment();
    return true;
  }

  /** How often it was taken so far; 0 while assertions are off. */
  static long count() {
    return TAKEN.sum();
  }
}
