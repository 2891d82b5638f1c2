package org.abletwine.match.index;

import java.io.Serializable;

/**
 * An ordered set of values, mapped to whole numbers. A value of the reference has an even
 * coordinate; a value of ours has the same coordinate when it is equal, or the odd one between two
 * neighbours when it lies strictly between. So every comparison is one of longs, and exact.
 * Immutable; safe to share between threads.
 */
interface Domain extends Serializable {
  /** Stands for text that is not a value of this domain. */
  long UNFIT = Long.MIN_VALUE;

  /** No coordinate is farther from 0 than this. */
  long FARTHEST = 1L << 62;

  /** The coordinate of a value. */
  long coordinate(byte[] text, int start, int end);

  /** A coordinate as a person would write it. */
  String show(long coordinate);

  /**
   * How far apart two coordinates are, as a person would write it; empty when it has no measure.
   */
  String distance(long one, long other);

  /** What a value of this domain is called, such as {@code a number}. */
  String noun();
}
