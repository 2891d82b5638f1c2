package org.abletwine.audit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.table.text.Utf8;

/**
 * Counts how often each value stands, as long as there are up to {@value #MOST} different ones;
 * beyond that none is told, since none is frequent in that sense. Values are told apart by their
 * hashes. A value is told of when it comes first; of how often it came again, {@link Again} is told
 * at the end. Used by one thread.
 */
final class FrequentValues {
  static final int MOST = 20_000;
  private static final int SHOWN = 120;
  private static final int FREE = -1;

  /** Is told how often a value came again. */
  interface Again {
    void stood(int traits, long times);
  }

  private final Again told;
  private long[] hashes = new long[64];
  private long[] counts = new long[64];
  private long[] rows = new long[64];
  private short[] traits = new short[64];
  private int[] starts = new int[65];
  private byte[] texts = new byte[1024];
  private int[] slots = new int[256];
  private int used;
  private boolean given;
  private boolean settled;

  /**
   * @param told is told how often a value came again that was added
   */
  FrequentValues(Again told) {
    this.told = told;
    Arrays.fill(slots, FREE);
  }

  /** Counts a value if it was added before; returns whether it was, as far as that is known. */
  boolean again(long hash) {
    if (given) {
      return false;
    }
    int value = slots[slot(hash)];
    if (value == FREE) {
      return false;
    }
    counts[value]++;
    return true;
  }

  /** Where a hash is, or would be. */
  private int slot(long hash) {
    int mask = slots.length - 1;
    int slot = (int) (hash >>> 20) & mask;
    while (slots[slot] != FREE && hashes[slots[slot]] != hash) {
      slot = slot + 1 & mask;
    }
    return slot;
  }

  /**
   * Adds a value that was not there.
   *
   * @param row the first row that has it
   * @param what what it is counted as
   */
  void add(long hash, byte[] text, int start, int end, long row, int what) {
    int shown = Math.min(end, start + SHOWN);
    while (shown < end && !Utf8.leads(text[shown])) {
      shown--;
    }
    add(hash, text, start, shown, 1, row, what);
  }

  private void add(long hash, byte[] text, int from, int to, long count, long row, int what) {
    if (given) {
      return;
    }
    if (used == MOST) {
      giveUp();
      return;
    }
    if (used == hashes.length) {
      hashes = Arrays.copyOf(hashes, used * 2);
      counts = Arrays.copyOf(counts, used * 2);
      rows = Arrays.copyOf(rows, used * 2);
      traits = Arrays.copyOf(traits, used * 2);
      starts = Arrays.copyOf(starts, used * 2 + 1);
    }
    int length = to - from;
    if (starts[used] + length > texts.length) {
      texts = Arrays.copyOf(texts, (starts[used] + length) * 2);
    }
    System.arraycopy(text, from, texts, starts[used], length);
    starts[used + 1] = starts[used] + length;
    slots[slot(hash)] = used;
    hashes[used] = hash;
    counts[used] = count;
    rows[used] = row;
    traits[used++] = (short) what;
    if (used * 2 > slots.length) {
      grow();
    }
  }

  private void giveUp() {
    settle();
    given = true;
    hashes = new long[0];
    counts = new long[0];
    rows = new long[0];
    traits = new short[0];
    texts = new byte[0];
    slots = new int[0];
    used = 0;
  }

  private void grow() {
    slots = new int[slots.length * 2];
    Arrays.fill(slots, FREE);
    for (int value = 0; value < used; value++) {
      slots[slot(hashes[value])] = value;
    }
  }

  /** Tells how often each value came again; nothing is to be counted any more. */
  void settle() {
    for (int value = 0; value < used && !settled; value++) {
      told.stood(traits[value], counts[value] - 1);
    }
    settled = true;
  }

  /** Adds what another worker has counted. Both tell first how often values came again. */
  void merge(FrequentValues other) {
    settle();
    other.settle();
    if (other.given && !given) {
      giveUp();
    }
    for (int value = 0; value < other.used && !given; value++) {
      int here = slots[slot(other.hashes[value])];
      if (here != FREE) {
        counts[here] += other.counts[value];
        rows[here] = Math.min(rows[here], other.rows[value]);
      } else {
        add(
            other.hashes[value],
            other.texts,
            other.starts[value],
            other.starts[value + 1],
            other.counts[value],
            other.rows[value],
            other.traits[value]);
      }
    }
  }

  /**
   * The most frequent values that stand more than once; the first met of those equally frequent.
   *
   * @param most how many
   */
  List<TableProfile.Column.Value> most(int most) {
    List<TableProfile.Column.Value> values = new ArrayList<>();
    IntStream.range(0, used)
        .boxed()
        .filter(value -> counts[value] > 1)
        .sorted(
            Comparator.comparingLong((Integer value) -> counts[value])
                .reversed()
                .thenComparingLong(value -> rows[value]))
        .limit(most)
        .forEach(
            value ->
                values.add(
                    new TableProfile.Column.Value(
                        Utf8.text(texts, starts[value], starts[value + 1]), counts[value])));
    return values;
  }
}
