package org.abletwine.table.spill;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.output.StoredBytes;
import org.jspecify.annotations.Nullable;

/**
 * Entries of a key and whatever stands behind it, kept in runs that are each in the order of their
 * keys, and merged when all are there: an external merge sort (Knuth, TAOCP vol. 3, 5.4). A key may
 * come in several runs, and then comes several times. Where there is a limit for memory, runs are
 * in a file, and merged into one of another file when there are many. Belongs to one thread.
 */
public final class KeyedRuns {
  /** So many runs of about the same size become one. */
  private static final int MOST_ALIKE = 16;

  /** The level of runs in memory. */
  private static final int MEMORY = -1;

  private static final int READ_AT_ONCE = 1 << 15;
  private static final int WRITE_AT_ONCE = 1 << 18;

  private final @Nullable Spill spill;
  private final Order order;
  private final List<Run> runs = new ArrayList<>();

  /** The files of runs, by how often what is in them was merged. */
  private final List<SpillFile> files = new ArrayList<>();

  private final RowBytes pending = new RowBytes();
  private long bytes;
  private long inMemory;

  /** The order of keys, of which each says itself where it ends. */
  public interface Order {
    /** As a comparator, of keys that begin at the first byte. */
    int compare(byte[] one, byte[] other);
  }

  /**
   * Some entries in order.
   *
   * @param level how often what is in it was merged; those in memory are merged at the end alone
   */
  private record Run(StoredBytes stored, long start, long end, int level) {}

  /**
   * @param spill where files go; null to keep all in memory
   * @param order the order of the keys
   */
  public KeyedRuns(@Nullable Spill spill, Order order) {
    this.spill = spill;
    this.order = order;
  }

  /** Returns whether there are no entries. */
  public boolean isEmpty() {
    return runs.isEmpty();
  }

  /** Returns how many bytes are in memory. */
  public long inMemory() {
    return inMemory;
  }

  /** Returns how many bytes were put on disk. */
  public long onDisk() {
    return bytes;
  }

  /**
   * Begins a run.
   *
   * @param memory whether it is kept in memory
   */
  public Adding begin(boolean memory) {
    return memory || spill == null ? new Adding(new MemoryBytes()) : begin(0);
  }

  private Adding begin(int level) {
    while (spill != null && files.size() <= level) {
      files.add(spill.file());
    }
    return new Adding(files.get(level));
  }

  /** A run that is being written. */
  public final class Adding {
    private final StoredBytes into;
    private final long start;

    private Adding(StoredBytes into) {
      this.into = into;
      start = into.size();
      pending.clear();
    }

    /**
     * Adds an entry; those of a run come in order.
     *
     * @param key the key, from its first byte on
     * @param keyLength how many bytes it has
     * @param behind what stands behind it
     * @param start where that begins there
     * @param length how many bytes it has
     */
    public void add(byte[] key, int keyLength, byte[] behind, int start, int length) {
      pending.cell(key, 0, keyLength);
      pending.cell(behind, start, start + length);
      if (pending.used() > WRITE_AT_ONCE) {
        putOut();
      }
    }

    private void putOut() {
      into.append(pending.bytes(), pending.used());
      pending.clear();
    }

    /** All entries were added. */
    public void end() {
      end(into instanceof SpillFile ? 0 : MEMORY);
    }

    private void end(int level) {
      putOut();
      long size = into.size() - start;
      bytes += level == MEMORY ? 0 : size;
      inMemory += level == MEMORY ? size : 0;
      runs.add(new Run(into, start, into.size(), level));
      mergeAlike(level);
    }
  }

  private void mergeAlike(int level) {
    List<Run> alike = runs.stream().filter(run -> run.level == level).toList();
    if (level == MEMORY || alike.size() < MOST_ALIKE) {
      return;
    }
    Adding all = begin(level + 1);
    Merged merged = new Merged(alike);
    while (merged.next()) {
      Reading from = merged.current();
      int length = (int) (from.end - from.cursor.place());
      int start = from.cursor.past(length);
      all.add(from.key, from.keyLength, from.cursor.bytes(), start, length);
    }
    runs.removeAll(alike);
    if (level < files.size()) {
      files.get(level).clear(); // those of others are cleared with the run
    }
    all.end(level + 1);
  }

  /** Takes over the runs of another, which is not used any more. */
  public void merge(KeyedRuns other) {
    for (Run run : other.runs) {
      runs.add(run);
      mergeAlike(run.level);
    }
    bytes += other.bytes;
    inMemory += other.inMemory;
  }

  /** Carries the runs to another process, or takes those of one. */
  public void carry(Carrier carrier) {
    int count = carrier.number(runs.size());
    for (int i = 0; i < count; i++) {
      if (carrier.comesIn()) {
        take(carrier);
      } else {
        give(runs.get(i), carrier);
      }
    }
  }

  private static void give(Run run, Carrier carrier) {
    byte[] block = new byte[WRITE_AT_ONCE];
    for (long at = run.start; at < run.end; ) {
      int read = (int) Math.min(run.stored.read(at, block, 0), run.end - at);
      carrier.bytes(block, read);
      at += read;
    }
    carrier.bytes(block, 0);
  }

  private void take(Carrier carrier) {
    Adding run = begin(false);
    byte[] none = {};
    for (byte[] block = carrier.bytes(none, 0); block.length > 0; block = carrier.bytes(none, 0)) {
      run.into.append(block, block.length);
    }
    run.end();
  }

  /** Returns all entries in the order of their keys. */
  public Merged merged() {
    return new Merged(runs);
  }

  /** Entries of several runs in one order, one at a time. */
  public final class Merged {
    private final PriorityQueue<Reading> others;
    private @Nullable Reading at;

    private Merged(List<Run> merged) {
      Comparator<Reading> byKey = (one, other) -> order.compare(one.key, other.key);
      others = new PriorityQueue<>(Math.max(1, merged.size()), byKey);
      for (Run run : merged) {
        Reading reading = new Reading(run);
        if (reading.next()) {
          others.add(reading);
        }
      }
    }

    /** Goes to the next entry; returns whether there is one. */
    public boolean next() {
      Reading before = at;
      if (before != null && before.next()) {
        others.add(before);
      }
      at = others.poll();
      return at != null;
    }

    private Reading current() {
      Reading reading = at;
      if (reading == null) {
        throw new IllegalStateException("there is no entry");
      }
      return reading;
    }

    /** Returns the key, from its first byte on; changed by the next. */
    public byte[] key() {
      return current().key;
    }

    /** Returns how many bytes the key has. */
    public int keyLength() {
      return current().keyLength;
    }

    /** Returns a reader at what stands behind the key. */
    public ByteCursor behind() {
      return current().cursor;
    }
  }

  /** A run at one of its entries. */
  private static final class Reading {
    private final Run run;
    private final ByteCursor cursor;
    private byte[] key = {};
    private int keyLength;

    /** Where the entry ends. */
    private long end;

    Reading(Run run) {
      this.run = run;
      end = run.start;
      cursor = new ByteCursor(run.stored, READ_AT_ONCE);
    }

    boolean next() {
      cursor.seek(end);
      if (end == run.end) {
        return false;
      }
      int start = cursor.cell();
      keyLength = cursor.length();
      if (key.length < keyLength) {
        key = new byte[2 * keyLength];
      }
      System.arraycopy(cursor.bytes(), start, key, 0, keyLength);
      long length = cursor.number() - 1;
      end = cursor.place() + length;
      return true;
    }
  }
}
