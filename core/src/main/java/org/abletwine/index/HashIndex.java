package org.abletwine.index;

import java.io.Serializable;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.table.DataException;

/**
 * From key bytes to the number of a key, and from there to its rows.
 *
 * <p>Design: open addressing with linear probing over one array of longs (Knuth, TAOCP vol. 3, 6.4,
 * algorithm L). A slot is 0 when free, else the key's 32-bit hash in the high half and one plus the
 * place of the key's first row in the low half. The hash gives the home slot and rejects nearly
 * every other key without a second memory access. The key's bytes are held with the row, so the
 * expected cost of a hit is two cache misses, attributes included, of a miss one; load stays below
 * 0.6. Probing runs over some hundred keys in stages (slots, then rows), so that the misses of
 * different rows overlap, and the pages they touch are still known at the end.
 *
 * <p>A key on more than one row has a group: the first row's index field then holds the complement
 * of the group's number, else the row's own number. Filled by one thread; safe to probe from many
 * once published.
 */
public final class HashIndex implements Serializable {
  private static final long serialVersionUID = 1L;

  /** Result for a key that is not in the index. */
  public static final int ABSENT = Integer.MIN_VALUE;

  private static final int FIRST_SLOTS = 64;
  private static final long MOST_EXPECTED = 50_000_000;
  private static final double MOST_LOAD = 0.6;

  /** Keys probed at a time: twice as many pages are what a processor remembers the places of. */
  private static final int AT_ONCE = 1 << 9;

  private long[] slots = new long[FIRST_SLOTS];
  private int mask = FIRST_SLOTS - 1;
  private int keys;

  /** With more keys than this the table grows. */
  private int limit = (int) (FIRST_SLOTS * MOST_LOAD);

  private final RowStore store;
  private final Arena arena;
  private final KeyGroups groups = new KeyGroups();

  /**
   * @param store the rows to index
   */
  public HashIndex(RowStore store) {
    this.store = store;
    this.arena = store.arena();
  }

  /**
   * Makes room ahead for so many keys, so that growing need not move them again and again.
   *
   * @param wanted a guess; taken as at most 50 million
   */
  public void expect(long wanted) {
    long slotsWanted = (long) (Math.min(wanted, MOST_EXPECTED) / MOST_LOAD) + 1;
    if (keys == 0 && slotsWanted > slots.length) {
      slots = new long[Integer.highestOneBit((int) (slotsWanted - 1)) << 1];
      mask = slots.length - 1;
      limit = (int) (slots.length * MOST_LOAD);
    }
  }

  /** Returns how many distinct keys there are. */
  public int keys() {
    return keys;
  }

  /** Returns the groups: the keys that stand on more than one row. */
  public KeyGroups groups() {
    return groups;
  }

  /** Returns the memory held, in bytes. */
  public long bytes() {
    return 8L * slots.length + groups.bytes();
  }

  /**
   * Adds one row of the store under its key.
   *
   * @param encoded the keys of a batch
   * @param key which of them, not blank
   * @param row the row's number, 0-based, larger than any added before
   * @return {@link #ABSENT} when the key was new, else the first row of the key
   */
  public int add(EncodedKeys encoded, int key, int row) {
    int start = encoded.ends[key];
    int length = encoded.ends[key + 1] - start;
    int hash = encoded.hashes[key];
    int place = store.place(row);
    putRow(arena.page(place), Arena.offset(place), row);
    long[] table = slots;
    int slot = hash & mask;
    for (long entry = table[slot]; entry != 0; entry = table[slot]) {
      if ((int) (entry >>> 32) == hash
          && store.hasKey((int) entry - 1, encoded.bytes, start, length)) {
        return join((int) entry - 1, row);
      }
      slot = slot + 1 & mask;
    }
    table[slot] = (long) hash << 32 | place + 1L;
    keys++;
    if (keys > limit) {
      grow();
    }
    return ABSENT;
  }

  private int join(int position, int row) {
    byte[] page = arena.page(position);
    int at = Arena.offset(position);
    int field = getRow(page, at);
    if (field >= 0) {
      int group = groups.open(field, row);
      putRow(page, at, ~group);
      return field;
    }
    groups.join(~field, row);
    return groups.firstRow(~field);
  }

  private void grow() {
    if (slots.length >= 1 << 30) {
      throw new DataException(
          "a reference has more than 600 million distinct keys; leave out rows with where:");
    }
    long[] old = slots;
    slots = new long[old.length * 2];
    mask = slots.length - 1;
    limit = (int) (slots.length * MOST_LOAD);
    for (long entry : old) {
      if (entry != 0) {
        int slot = (int) (entry >>> 32) & mask;
        while (slots[slot] != 0) {
          slot = slot + 1 & mask;
        }
        slots[slot] = entry;
      }
    }
  }

  /**
   * Looks up every key of a batch.
   *
   * @param encoded the keys
   * @param found for each key: the place of its row when it stands on one row, the complement of
   *     its group's number when on several, {@link #ABSENT} when it is not there or blank. At least
   *     as long as there are keys
   */
  public void probe(EncodedKeys encoded, int[] found) {
    int rows = encoded.rows();
    for (int from = 0; from < rows; from += AT_ONCE) {
      probe(encoded, found, from, Math.min(rows, from + AT_ONCE));
    }
  }

  private void probe(EncodedKeys encoded, int[] found, int from, int to) {
    int[] hashes = encoded.hashes;
    long[] table = slots;
    int last = mask;
    // Stage 1: find the slot by hash alone.
    long seen = touch(encoded, from, to);
    for (int i = from; i < to; i++) {
      int hash = hashes[i];
      int slot = hash & last;
      long entry = table[slot];
      while (entry != 0 && (int) (entry >>> 32) != hash) {
        slot = slot + 1 & last;
        entry = table[slot];
      }
      found[i] = entry == 0 ? ABSENT : slot;
    }
    for (int i = from; i < to; i++) {
      if (found[i] != ABSENT) {
        seen += store.touch((int) table[found[i]] - 1);
      }
    }
    encoded.touched = seen;
    // Stage 2: compare keys.
    for (int i = from; i < to; i++) {
      if (found[i] != ABSENT) {
        found[i] = encoded.blankParts[i] != 0 ? ABSENT : confirm(encoded, i, found[i]);
      }
    }
  }

  /**
   * Brings the slots of some keys near, before {@link #find} or {@link #add} needs them one after
   * the other: the loads of different keys do not wait for each other.
   *
   * @param encoded the keys
   * @param from the first of them, 0-based
   * @param to end, exclusive
   * @return a meaningless number, which the compiler must take for a use of the slots
   */
  public long touch(EncodedKeys encoded, int from, int to) {
    int[] hashes = encoded.hashes;
    long[] table = slots;
    int last = mask;
    long seen = 0;
    for (int i = from; i < to; i++) {
      seen += table[hashes[i] & last];
    }
    return seen;
  }

  /**
   * Looks up one key of a batch, rows added since the batch was probed included.
   *
   * @param encoded the keys
   * @param key which of them, not blank
   * @return as {@link #probe} gives it
   */
  public int find(EncodedKeys encoded, int key) {
    return search(encoded, key, encoded.hashes[key] & mask);
  }

  /** Looks up a key that has the hash of what is in a slot; nearly always that is it. */
  private int confirm(EncodedKeys encoded, int key, int slot) {
    int start = encoded.ends[key];
    int place = (int) slots[slot] - 1;
    return store.hasKey(place, encoded.bytes, start, encoded.ends[key + 1] - start)
        ? held(place)
        : search(encoded, key, slot + 1 & mask);
  }

  /** What is told of a key whose row is there. */
  private int held(int place) {
    int field = getRow(arena.page(place), Arena.offset(place));
    return field < 0 ? field : place;
  }

  /** Looks up a key along the run of slots from one on. */
  private int search(EncodedKeys encoded, int key, int from) {
    int start = encoded.ends[key];
    int length = encoded.ends[key + 1] - start;
    int hash = encoded.hashes[key];
    int slot = from;
    for (long entry = slots[slot]; entry != 0; entry = slots[slot]) {
      if ((int) (entry >>> 32) == hash) {
        int place = (int) entry - 1;
        if (store.hasKey(place, encoded.bytes, start, length)) {
          return held(place);
        }
      }
      slot = slot + 1 & mask;
    }
    return ABSENT;
  }

  /**
   * @param place a row's place, as {@link #probe} or the store gives it
   * @return the row's number, 0-based
   */
  public int rowAt(int place) {
    int field = getRow(arena.page(place), Arena.offset(place));
    return field < 0 ? groups.firstRow(~field) : field;
  }

  private static int getRow(byte[] page, int at) {
    return (int) RowStore.NUMBER.get(page, at);
  }

  private static void putRow(byte[] page, int at, int row) {
    RowStore.NUMBER.set(page, at, row);
  }

  @Override
  public String toString() {
    return "HashIndex[" + keys + " keys, " + groups.count() + " on several rows]";
  }
}
