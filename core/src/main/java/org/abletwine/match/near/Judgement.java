package org.abletwine.match.near;

/**
 * Which near misses stand out. By likeness alone too many wrong ones do; what is right has a lead
 * over the second as well. The bounds are those beyond which at least 98 of 100 were right on lists
 * with the truth known ({@code benchmarks/near}).
 */
final class Judgement {
  private static final double CLEAR = 0.95;
  private static final double LEAST_LEAD = 0.05;

  /** However alone it stands, what is less alike than this is never clear. */
  private static final double LEAST = 0.7;

  private static final double WEAK = 0.6;

  /** Codes that lie so close together that one edit leads to others by chance are never clear. */
  static final double MOST_BY_CHANCE = 0.2;

  private Judgement() {}

  /**
   * @param likeness of the nearest
   * @param lead over the second
   */
  static boolean clear(double likeness, double lead) {
    return likeness >= LEAST && lead >= LEAST_LEAD && likeness + lead >= CLEAR;
  }

  static boolean weak(double likeness) {
    return likeness < WEAK;
  }
}
