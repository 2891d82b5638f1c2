package org.abletwine.index;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.text.ByteHash;
import org.jspecify.annotations.Nullable;

/**
 * Groups of rows that have the same values in some columns, numbered from 0 in the order they are
 * met. Values are compared as they are written; null is a value of its own, and not empty text. One
 * record holds a group's key and its counters side by side, so that a row costs one place in memory
 * as long as keys are short. Used by one thread.
 *
 * <p>A key is written as bytes ({@link GroupKeys}). A record is, in longs: the key's length and
 * place, its first sixteen bytes, then the counters. Longer keys lie in a separate store. Slots
 * hold a group's number and one, 0 for none; linear probing, at most half full (Knuth, TAOCP vol.
 * 3, 6.4).
 */
public final class GroupIndex {
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
  private static final int KEY_WORDS = 3;
  private static final int SHORT = 16;
  private static final int LENGTH_BITS = 28;
  private static final long LENGTH_MASK = (1L << LENGTH_BITS) - 1;
  private static final int MOST_VARINT = 5;

  private final int parts;
  private final int stride;
  private long[] records;
  private int groups;
  private int[] slots = new int[1 << 10];
  private byte[] longKeys = new byte[1 << 10];
  private long longUsed;

  /** For each row of the batch the length of its key, and its first sixteen bytes. */
  private int[] lengths = new int[0];

  private long[] words = new long[0];
  private long[] hashes = new long[0];

  /** Keys as bytes, those of more than sixteen at least, and where each begins. */
  private byte[] keys = new byte[1 << 12];

  private int[] starts = new int[0];

  /** Take short keys as bytes. */
  private final byte[] shortKey = new byte[2 * SHORT];

  private final byte[] otherKey = new byte[2 * SHORT];

  /** Depends on the loads made ahead of their use, so that the compiler keeps them. */
  @SuppressWarnings("unused")
  private long touched;

  /**
   * @param parts columns that make a group
   * @param counters longs kept for each group
   */
  public GroupIndex(int parts, int counters) {
    this.parts = parts;
    this.stride = KEY_WORDS + counters;
    this.records = new long[64 * stride];
  }

  /** Returns how many groups there are. */
  public int groups() {
    return groups;
  }

  /** Returns the records; the counters of a group begin at {@link #counters}. */
  public long[] records() {
    return records;
  }

  /**
   * @param group a group
   * @return where its counters begin in {@link #records()}
   */
  public int counters(int group) {
    return group * stride + KEY_WORDS;
  }

  /**
   * Finds the groups of rows, and makes those that are new.
   *
   * @param columns the columns that make a group
   * @param rows how many rows
   * @param into for each row its group
   */
  public void find(CellVector[] columns, int rows, int[] into) {
    encode(columns, rows);
    int[] held = slots;
    int shift = shift();
    for (int row = 0; row < rows; row++) {
      into[row] = held[(int) (hashes[row] >>> shift)] - 1;
    }
    // Records are touched in a loop that does nothing else, so that many misses are under way.
    long touching = 0;
    for (int row = 0; row < rows; row++) {
      touching += into[row] < 0 ? 0 : records[into[row] * stride];
    }
    touched = touching;
    for (int row = 0; row < rows; row++) {
      if (into[row] < 0 || !same(into[row], row)) {
        into[row] = search(row);
      }
    }
  }

  /**
   * Finds the groups that have the same values as another index's, and makes those that are new.
   *
   * @param other the other, over the same columns
   * @return for each group there the one here
   */
  public int[] merge(GroupIndex other) {
    int[] into = new int[other.groups];
    if (lengths.length == 0) {
      lengths = new int[1];
      words = new long[2];
      hashes = new long[1];
      starts = new int[1];
    }
    for (int group = 0; group < into.length; group++) {
      int at = group * other.stride;
      lengths[0] = (int) (other.records[at] & LENGTH_MASK);
      words[0] = other.records[at + 1];
      words[1] = other.records[at + 2];
      hashes[0] = other.hashOf(group);
      if (lengths[0] > SHORT) {
        if (keys.length < lengths[0] + SHORT) {
          keys = new byte[lengths[0] + SHORT];
        }
        int place = (int) (other.records[at] >>> LENGTH_BITS);
        System.arraycopy(other.longKeys, place, keys, 0, lengths[0]);
        starts[0] = 0;
      }
      into[group] = search(0);
    }
    return into;
  }

  /**
   * Carries the groups with their counters, or takes those of another process in place of none.
   *
   * @param carrier carries them
   */
  public void carry(Carrier carrier) {
    int count = carrier.number(groups);
    long[] held = carrier.numbers(records, groups * stride);
    byte[] longOnes = carrier.bytes(longKeys, (int) longUsed);
    if (!carrier.comesIn()) {
      return;
    }
    groups = count;
    records = Arrays.copyOf(held, Math.max(held.length, 64 * stride));
    longUsed = longOnes.length;
    longKeys = Arrays.copyOf(longOnes, longOnes.length + (1 << 10));
    int room = slots.length;
    while (groups > room / 2) {
      room *= 2;
    }
    place(room);
  }

  private int shift() {
    return Long.numberOfLeadingZeros(slots.length - 1L);
  }

  /** Makes the keys of all rows, and hashes them. */
  private void encode(CellVector[] columns, int rows) {
    if (lengths.length < rows) {
      lengths = new int[rows];
      words = new long[2 * rows];
      hashes = new long[rows];
      starts = new int[rows];
    }
    int at = 0;
    for (int row = 0; row < rows; row++) {
      if (columns.length > 1 || !encodeShort(columns, row)) {
        at = encodeLong(columns, row, at);
      }
    }
  }

  /** A key of one short part never goes through memory. */
  private boolean encodeShort(CellVector[] columns, int row) {
    if (columns.length == 0) {
      return false;
    }
    CellVector cells = columns[0];
    int start = cells.starts[row];
    int length = cells.ends[row] - start;
    byte[] bytes = cells.text;
    if (start < 0 || length >= SHORT || start + SHORT > bytes.length) {
      return false;
    }
    long low = ByteHash.word(bytes, start, start + length);
    long high = ByteHash.word(bytes, start + 8, start + length);
    set(row, length + 1, low << 8 | length + 1, high << 8 | low >>> 56);
    return true;
  }

  private void set(int row, int length, long first, long second) {
    lengths[row] = length;
    words[2 * row] = first;
    words[2 * row + 1] = second;
    hashes[row] = hash(length, first, second);
  }

  private static long hash(int length, long first, long second) {
    return ByteHash.end(ByteHash.add(ByteHash.add(ByteHash.begin(length), first), second));
  }

  private int encodeLong(CellVector[] columns, int row, int from) {
    int at = from;
    for (CellVector cells : columns) {
      int room = at + cells.ends[row] - cells.starts[row] + MOST_VARINT + 2 * SHORT;
      if (room > keys.length) {
        keys = Arrays.copyOf(keys, 2 * room);
      }
      at = encode(cells, row, at);
    }
    starts[row] = from;
    set(row, at - from, ByteHash.word(keys, from, at), ByteHash.word(keys, from + 8, at));
    if (at - from > SHORT) {
      hashes[row] = hash(hashes[row], keys, from + SHORT, at);
    }
    return at;
  }

  private int encode(CellVector cells, int row, int from) {
    int start = cells.starts[row];
    if (start < 0) {
      keys[from] = 0;
      return from + 1;
    }
    int length = cells.ends[row] - start;
    int at = Varint.write(keys, from, length + 1);
    System.arraycopy(cells.text, start, keys, at, length);
    return at + length;
  }

  private static long hash(long begun, byte[] bytes, int start, int end) {
    long h = begun;
    for (int at = start; at < end; at += 8) {
      h = ByteHash.add(h, ByteHash.word(bytes, at, end));
    }
    return ByteHash.end(h);
  }

  private boolean same(int group, int row) {
    int at = group * stride;
    int length = lengths[row];
    long head = records[at];
    if ((head & LENGTH_MASK) != length
        || records[at + 1] != words[2 * row]
        || records[at + 2] != words[2 * row + 1]) {
      return false;
    }
    if (length <= SHORT) {
      return true;
    }
    int place = (int) (head >>> LENGTH_BITS);
    int start = starts[row];
    return Arrays.equals(
        longKeys, place + SHORT, place + length, keys, start + SHORT, start + length);
  }

  private int search(int row) {
    int mask = slots.length - 1;
    int slot = (int) (hashes[row] >>> shift());
    while (slots[slot] != 0) {
      if (same(slots[slot] - 1, row)) {
        return slots[slot] - 1;
      }
      slot = slot + 1 & mask;
    }
    slots[slot] = groups + 1;
    add(row);
    if (groups > slots.length / 2) {
      grow();
    }
    return groups - 1;
  }

  private void add(int row) {
    int at = groups * stride;
    if (at + stride > records.length) {
      records = Arrays.copyOf(records, records.length * 2);
    }
    records[at] = lengths[row];
    records[at + 1] = words[2 * row];
    records[at + 2] = words[2 * row + 1];
    if (lengths[row] > SHORT) {
      records[at] |= keep(starts[row], starts[row] + lengths[row]) << LENGTH_BITS;
    }
    groups++;
  }

  private long keep(int start, int end) {
    long place = longUsed;
    longUsed += end - start;
    if (longUsed > Integer.MAX_VALUE - SHORT) {
      throw new DataException(
          "the values that make the groups of a rollup take more than 2 GiB; group by fewer columns");
    }
    if (longUsed + SHORT > longKeys.length) {
      longKeys =
          Arrays.copyOf(longKeys, (int) Math.min(Integer.MAX_VALUE - SHORT, 2 * longUsed + SHORT));
    }
    System.arraycopy(keys, start, longKeys, (int) place, end - start);
    return place;
  }

  private void grow() {
    place(slots.length * 2);
  }

  private void place(int room) {
    slots = new int[room];
    int mask = slots.length - 1;
    for (int group = 0; group < groups; group++) {
      int slot = (int) (hashOf(group) >>> shift());
      while (slots[slot] != 0) {
        slot = slot + 1 & mask;
      }
      slots[slot] = group + 1;
    }
  }

  private long hashOf(int group) {
    int at = group * stride;
    int length = (int) (records[at] & LENGTH_MASK);
    long begun = hash(length, records[at + 1], records[at + 2]);
    int place = (int) (records[at] >>> LENGTH_BITS);
    return length <= SHORT ? begun : hash(begun, longKeys, place + SHORT, place + length);
  }

  /** The bytes a group's key is in: the scratch, from 0 on, or the store of long keys. */
  private byte[] key(int group, byte[] scratch) {
    int at = group * stride;
    if ((records[at] & LENGTH_MASK) > SHORT) {
      return longKeys;
    }
    WORD.set(scratch, 0, records[at + 1]);
    WORD.set(scratch, 8, records[at + 2]);
    return scratch;
  }

  /**
   * A group's values.
   *
   * @param group the group
   * @return its values, in the order of the columns; null for null
   */
  public @Nullable String[] values(int group) {
    byte[] scratch = new byte[2 * SHORT];
    byte[] from = key(group, scratch);
    return GroupKeys.values(from, from == scratch ? 0 : placeOf(group), parts);
  }

  /** Where a long key lies. */
  private int placeOf(int group) {
    return (int) (records[group * stride] >>> LENGTH_BITS);
  }

  /**
   * A group's key.
   *
   * @param group the group
   * @param into takes its bytes, from the first on
   * @return how many there are
   */
  public int key(int group, RowBytes into) {
    int length = (int) (records[group * stride] & LENGTH_MASK);
    byte[] from = key(group, shortKey);
    int start = from == shortKey ? 0 : placeOf(group);
    into.clear();
    into.add(from, start, start + length);
    return length;
  }

  /** Returns about how many bytes the groups take. */
  public long bytes() {
    return (8L * stride + 8) * groups + longUsed;
  }

  /** Forgets all groups. */
  public void clear() {
    Arrays.fill(records, 0, groups * stride, 0);
    Arrays.fill(slots, 0);
    groups = 0;
    longUsed = 0;
  }

  /**
   * Returns the groups in the order of their values, by code point and part by part, nulls last.
   */
  public int[] sorted() {
    return GroupOrder.sorted(groups, this::beginning, this::compare);
  }

  /** The first eight bytes of the first value, in an order that agrees with that of the values. */
  private long beginning(int group) {
    if (parts == 0) {
      return 0;
    }
    long first = records[group * stride + 1];
    if ((first & 0xFF) == 0) {
      return -1L; // null: no UTF-8 begins so
    }
    int at = 1;
    while ((first >>> 8 * at - 1 & 1) != 0) {
      at++; // the length takes more than a byte
    }
    long bytes = first >>> 8 * at | records[group * stride + 2] << Long.SIZE - 8 * at;
    int count = at > 1 ? 8 : (int) Math.min(8, (first & 0xFF) - 1);
    return count == 0 ? 0 : Long.reverseBytes(bytes & -1L >>> Long.SIZE - 8 * count);
  }

  private int compare(int one, int other) {
    byte[] a = key(one, shortKey);
    byte[] b = key(other, otherKey);
    return GroupKeys.compare(
        a, a == shortKey ? 0 : placeOf(one), b, b == otherKey ? 0 : placeOf(other), parts);
  }

  @Override
  public String toString() {
    return "GroupIndex[" + groups + " groups]";
  }
}
