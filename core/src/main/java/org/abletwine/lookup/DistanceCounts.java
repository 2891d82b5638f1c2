package org.abletwine.lookup;

import java.util.Arrays;
import org.abletwine.table.carry.Carrier;

/**
 * Counts distances, to tell the greatest and the median of them. Exact while there are up to
 * {@value #MOST} different ones; beyond that neighbouring distances are counted together, in
 * stretches of the least power of two with which there are no more: so the result is the same for
 * any number of workers. Belongs to one thread.
 */
final class DistanceCounts {
  static final int MOST = 65_536;
  private static final long EMPTY = -1;

  private long[] keys = new long[256];
  private long[] counts = new long[256];
  private int used;
  private int shift;
  private long greatest;
  private long rows;

  DistanceCounts() {
    Arrays.fill(keys, EMPTY);
  }

  /** Counts a distance, 0 or more. */
  void add(long distance) {
    greatest = Math.max(greatest, distance);
    rows++;
    add(distance >>> shift, 1);
  }

  private void add(long key, long count) {
    int mask = keys.length - 1;
    int slot = (int) (key * 0x9E3779B97F4A7C15L >>> 40) & mask;
    while (keys[slot] != EMPTY && keys[slot] != key) {
      slot = slot + 1 & mask;
    }
    counts[slot] += count;
    if (keys[slot] == EMPTY) {
      keys[slot] = key;
      used++;
      if (used > MOST) {
        again(keys.length, 1);
      } else if (used * 2 > keys.length) {
        again(keys.length * 2, 0);
      }
    }
  }

  private void again(int slots, int coarser) {
    long[] oldKeys = keys;
    long[] oldCounts = counts;
    keys = new long[slots];
    counts = new long[slots];
    Arrays.fill(keys, EMPTY);
    used = 0;
    shift += coarser;
    for (int i = 0; i < oldKeys.length; i++) {
      if (oldKeys[i] != EMPTY) {
        add(oldKeys[i] >>> coarser, oldCounts[i]);
      }
    }
  }

  /** Adds what another worker has counted. */
  void merge(DistanceCounts other) {
    greatest = Math.max(greatest, other.greatest);
    rows += other.rows;
    while (shift < other.shift) {
      again(keys.length, 1);
    }
    for (int i = 0; i < other.keys.length; i++) {
      if (other.keys[i] != EMPTY) {
        addCoarse(other.keys[i], other.shift, other.counts[i]);
      }
    }
  }

  /** The shift may grow while another's counts are added. */
  private void addCoarse(long key, int keyShift, long count) {
    add(key >>> shift - keyShift, count);
  }

  /** Carries what was counted, or takes what another process has counted in place of nothing. */
  void carry(Carrier carrier) {
    used = carrier.number(used);
    shift = carrier.number(shift);
    greatest = carrier.number(greatest);
    rows = carrier.number(rows);
    keys = carrier.numbers(keys, keys.length);
    counts = carrier.numbers(counts, counts.length);
  }

  long rows() {
    return rows;
  }

  long greatest() {
    return greatest;
  }

  /** The distance that half of the rows do not exceed; the lower of two in the middle. */
  long median() {
    long[][] sorted = new long[used][];
    int at = 0;
    for (int i = 0; i < keys.length; i++) {
      if (keys[i] != EMPTY) {
        sorted[at++] = new long[] {keys[i], counts[i]};
      }
    }
    Arrays.sort(sorted, (a, b) -> Long.compare(a[0], b[0]));
    long seen = 0;
    for (long[] one : sorted) {
      seen += one[1];
      if (seen * 2 >= rows) {
        return one[0] << shift;
      }
    }
    return 0;
  }
}
