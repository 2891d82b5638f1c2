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
 * hashes. Used by one thread.
 */
final class FrequentValues {
  static final int MOST = 20_000;
  private static final int SHOWN = 120;
  private static final int FREE = -1;

  private long[] hashes = new long[64];
  private long[] counts = new long[64];
  private int[] starts = new int[65];
  private byte[] texts = new byte[1024];
  private int[] slots = new int[256];
  private int used;
  private boolean given;

  FrequentValues() {
    Arrays.fill(slots, FREE);
  }

  /** Counts a value. */
  void count(long hash, byte[] text, int start, int end) {
    if (given) {
      return;
    }
    int mask = slots.length - 1;
    int slot = (int) (hash >>> 20) & mask;
    while (slots[slot] != FREE && hashes[slots[slot]] != hash) {
      slot = slot + 1 & mask;
    }
    if (slots[slot] == FREE) {
      if (used == MOST) {
        giveUp();
        return;
      }
      slots[slot] = add(hash, text, start, end);
      counts[slots[slot]] = 1;
      if (used * 2 > slots.length) {
        grow();
      }
    } else {
      counts[slots[slot]]++;
    }
  }

  private void giveUp() {
    given = true;
    hashes = new long[0];
    counts = new long[0];
    texts = new byte[0];
    slots = new int[0];
    used = 0;
  }

  private int add(long hash, byte[] text, int start, int end) {
    int shown = Math.min(end, start + SHOWN);
    while (shown < end && !Utf8.leads(text[shown])) {
      shown--;
    }
    int length = shown - start;
    if (used == hashes.length) {
      hashes = Arrays.copyOf(hashes, used * 2);
      counts = Arrays.copyOf(counts, used * 2);
      starts = Arrays.copyOf(starts, used * 2 + 1);
    }
    if (starts[used] + length > texts.length) {
      texts = Arrays.copyOf(texts, (starts[used] + length) * 2);
    }
    System.arraycopy(text, start, texts, starts[used], length);
    starts[used + 1] = starts[used] + length;
    hashes[used] = hash;
    return used++;
  }

  private void grow() {
    slots = new int[slots.length * 2];
    Arrays.fill(slots, FREE);
    int mask = slots.length - 1;
    for (int value = 0; value < used; value++) {
      int slot = (int) (hashes[value] >>> 20) & mask;
      while (slots[slot] != FREE) {
        slot = slot + 1 & mask;
      }
      slots[slot] = value;
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
        .sorted(Comparator.comparingLong((Integer value) -> counts[value]).reversed())
        .limit(most)
        .forEach(
            value ->
                values.add(
                    new TableProfile.Column.Value(
                        Utf8.text(texts, starts[value], starts[value + 1]), counts[value])));
    return values;
  }
}
