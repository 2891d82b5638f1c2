package org.abletwine.key.encode;

import java.util.Arrays;
import org.abletwine.table.batch.CellVector;

/**
 * The comparison bytes of a batch's keys. Reused from batch to batch; not safe for use by several
 * threads at once.
 *
 * <p>Parts are UTF-8, parted by the byte 0xFF, which UTF-8 never contains: two keys have equal
 * bytes exactly when they are equal part by part. Invariant: key {@code i} is {@code bytes[ends[i]
 * .. ends[i + 1])}, and at least 16 bytes follow the last one.
 */
public final class EncodedKeys {
  /** Slack after the last key, so that whole words may be read and written there. */
  static final int SLACK = CellVector.SLACK;

  /** The bytes of all keys. */
  public byte[] bytes = new byte[1024];

  /** Ends of the keys; the first entry is 0. */
  public int[] ends = new int[1];

  /** Hash of each key that is not blank. */
  public int[] hashes = new int[0];

  /** Bit {@code p} is set when part {@code p} is null or nothing is left of it: a blank key. */
  public int[] blankParts = new int[0];

  /** Whether normalising changed any part of the key. */
  public boolean[] changed = new boolean[0];

  /** Depends on loads made ahead of their use, so that the compiler keeps them. */
  public long touched;

  private int rows;

  /** Returns how many keys there are. */
  public int rows() {
    return rows;
  }

  void prepare(int count) {
    if (ends.length < count + 1) {
      ends = new int[count + 1];
      hashes = new int[count];
      blankParts = new int[count];
      changed = new boolean[count];
    }
    Arrays.fill(blankParts, 0, count, 0);
    Arrays.fill(changed, 0, count, false);
    rows = count;
  }

  void ensureBytes(int wanted) {
    if (wanted + SLACK > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(wanted + SLACK, bytes.length * 2));
    }
  }

  @Override
  public String toString() {
    return "EncodedKeys[" + rows + " rows]";
  }
}
