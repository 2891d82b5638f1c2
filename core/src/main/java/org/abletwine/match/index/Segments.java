package org.abletwine.match.index;

import java.io.Serializable;
import java.util.Arrays;
import java.util.concurrent.atomic.LongAdder;

/**
 * The cuts of the number line, partition by partition, and the search for the last cut not above a
 * value.
 *
 * <p>The stretch between the first and the last cut of a partition is divided into equal buckets,
 * about as many as there are cuts, and for each is known which cut it begins in. So where cuts lie
 * about evenly the search looks at one bucket and one or two cuts, whatever their number, and where
 * they crowd it goes on by halves. (Bucketing before searching is interpolation search with the
 * divisions done beforehand: Peterson, "Addressing for random-access storage", 1957.) For a batch
 * each step is done for all rows before the next, so that the loads of different rows do not wait
 * for each other. Immutable; safe to share between threads.
 *
 * <p>Buckets only narrow the search: fewer or wider ones give the same cut, so changes to their
 * count, their room and the loop that touches the cuts cannot be seen in any result.
 *
 * <p>Invariant: the cuts of partition {@code p} are those from {@code first[p]} to {@code first[p +
 * 1]}, exclusive; they ascend, and the first is the smallest long, so the search always ends on one
 * of them. Its buckets are those from {@code bucketAt[p]} to {@code bucketAt[p + 1]}, exclusive,
 * the last of them the end of the one before; there are none where cuts are few.
 */
final class Segments implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final int FEW = 8;

  /**
   * Steps of the search, counted only while assertions are on: tests tell by them what buckets
   * save.
   */
  static final LongAdder STEPS = new LongAdder();

  private final int[] first;
  private final long[] starts;
  private final int[] bucketAt;
  private final byte[] shifts;
  private final int[] buckets;

  Segments(int[] first, long[] starts) {
    assert ascending(first, starts) : "the cuts of each partition ascend from the smallest long";
    this.first = first;
    this.starts = starts;
    int partitions = first.length - 1;
    bucketAt = new int[partitions + 1];
    shifts = new byte[partitions];
    int[] held = new int[Math.max(16, starts.length + starts.length / 4)];
    int used = 0;
    for (int partition = 0; partition < partitions; partition++) {
      bucketAt[partition] = used;
      int cuts = first[partition + 1] - first[partition];
      if (cuts > FEW) {
        if (used + cuts + 1 > held.length) {
          held = Arrays.copyOf(held, used + cuts + 1 + held.length / 2);
        }
        used = divide(partition, held, used);
      }
    }
    bucketAt[partitions] = used;
    buckets = Arrays.copyOf(held, used);
  }

  private static boolean ascending(int[] first, long[] starts) {
    for (int partition = 0; partition + 1 < first.length; partition++) {
      int begin = first[partition];
      int end = first[partition + 1];
      if (begin >= end || starts[begin] != Long.MIN_VALUE) {
        return false;
      }
      for (int cut = begin + 1; cut < end; cut++) {
        if (starts[cut] <= starts[cut - 1]) {
          return false;
        }
      }
    }
    return true;
  }

  private int divide(int partition, int[] held, int from) {
    int cut = first[partition] + 1;
    int end = first[partition + 1];
    long lowest = starts[cut];
    long span = starts[end - 1] - lowest;
    int shift = 0;
    while (Long.compareUnsigned(span >>> shift, end - cut) >= 0) {
      shift++;
    }
    shifts[partition] = (byte) shift;
    int count = (int) (span >>> shift) + 1;
    for (int bucket = 0; bucket < count; bucket++) {
      long begin = (long) bucket << shift;
      while (cut + 1 < end && Long.compareUnsigned(starts[cut + 1] - lowest, begin) <= 0) {
        cut++;
      }
      held[from + bucket] = cut;
    }
    held[from + count] = end - 1;
    return from + count + 1;
  }

  /** Cuts of all partitions. */
  int count() {
    return starts.length;
  }

  int partitions() {
    return first.length - 1;
  }

  /** Whether there is such a partition: the last ones may have lost all their rows. */
  boolean has(int partition) {
    return partition >= 0 && partition < partitions();
  }

  long start(int segment) {
    return starts[segment];
  }

  /** Whether a segment is the last of its partition. */
  boolean isLast(int partition, int segment) {
    return segment + 1 >= first[partition + 1];
  }

  /** The last segment that starts at or below a coordinate. */
  int find(int partition, long coordinate) {
    int[] one = new int[1];
    find(new int[] {partition}, new long[] {coordinate}, 1, one);
    return one[0];
  }

  /**
   * Finds the last segments that start at or below coordinates.
   *
   * @param partitions the partition of each row; of one that is not there, the result means nothing
   * @param coordinates the coordinates
   * @param rows how many
   * @param found takes the segments
   * @return what loads made ahead of their use come to, which means nothing: the compiler must take
   *     it for a use of them
   */
  long find(int[] partitions, long[] coordinates, int rows, int[] found) {
    if (partitions() == 0) {
      return 0;
    }
    int[] last = new int[rows];
    for (int row = 0; row < rows; row++) {
      bounds(has(partitions[row]) ? partitions[row] : 0, coordinates[row], found, last, row);
    }
    long seen = 0;
    for (int row = 0; row < rows; row++) {
      seen += starts[found[row]] + starts[last[row]];
    }
    for (int row = 0; row < rows; row++) {
      long coordinate = coordinates[row];
      int low = found[row];
      int length = last[row] - low + 1;
      while (length > 1) {
        assert counted();
        int half = length >>> 1;
        low = starts[low + half] <= coordinate ? low + half : low;
        length -= half;
      }
      found[row] = low;
    }
    return seen;
  }

  private static boolean counted() {
    STEPS.increment();
    return true;
  }

  /** Narrows the search to the cuts that begin or end in the coordinate's bucket. */
  private void bounds(int partition, long coordinate, int[] low, int[] high, int row) {
    int begin = first[partition];
    int bucket = bucketAt[partition];
    int most = bucketAt[partition + 1] - bucket - 2;
    if (most < 0) {
      low[row] = begin;
      high[row] = first[partition + 1] - 1;
      return;
    }
    long lowest = starts[begin + 1];
    if (coordinate < lowest) {
      low[row] = begin;
      high[row] = begin;
      return;
    }
    long at = coordinate - lowest >>> shifts[partition];
    bucket += at < 0 || at > most ? most : (int) at;
    low[row] = buckets[bucket];
    high[row] = buckets[bucket + 1];
  }
}
