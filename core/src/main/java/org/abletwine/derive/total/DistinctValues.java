package org.abletwine.derive.total;

import java.util.Arrays;
import org.abletwine.index.GroupIndex;
import org.abletwine.index.GroupKeys;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.KeyedRuns;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * The different values of a column in each group: groups by the columns that make the group and the
 * column itself, whose order is that of the groups. Belongs to one thread.
 */
final class DistinctValues {
  private final GroupIndex pairs;
  private final KeyedRuns runs;
  private final CellVector[] columns;
  private final CellVector scratch = new CellVector();
  private int[] pairOf = new int[0];

  /** Those of all groups together; null where nobody asks. */
  private final @Nullable DistinctValues ofAll;

  /**
   * @param parts columns that make a group
   * @param ofAll whether those of all groups together are wanted
   * @param spill where they go that do not fit in memory; null for nowhere
   */
  DistinctValues(int parts, boolean ofAll, @Nullable Spill spill) {
    pairs = new GroupIndex(parts + 1, 0);
    runs = new KeyedRuns(spill, (one, other) -> GroupKeys.compare(one, 0, other, 0, parts + 1));
    columns = new CellVector[parts + 1];
    this.ofAll = ofAll && parts > 0 ? new DistinctValues(0, false, spill) : null;
  }

  /**
   * Adds the rows of a batch.
   *
   * @param by the columns that make the groups
   * @param values the column
   */
  void add(CellVector[] by, CellVector values, int rows) {
    if (pairOf.length < rows) {
      pairOf = new int[rows];
    }
    System.arraycopy(by, 0, columns, 0, by.length);
    columns[by.length] = values.asText(scratch);
    pairs.find(columns, rows, pairOf);
    if (ofAll != null) {
      ofAll.add(new CellVector[0], columns[by.length], rows);
    }
  }

  long bytes() {
    return pairs.groups() == 0 ? 0 : pairs.bytes() + (ofAll == null ? 0 : ofAll.bytes());
  }

  /** Returns how many bytes of runs are in memory. */
  long inMemory() {
    return runs.inMemory() + (ofAll == null ? 0 : ofAll.inMemory());
  }

  /**
   * Moves what was found to a run.
   *
   * @param memory whether that is kept in memory
   */
  void putOut(boolean memory) {
    if (pairs.groups() > 0) {
      KeyedRuns.Adding run = runs.begin(memory);
      RowBytes key = new RowBytes();
      for (int pair : pairs.sorted()) {
        int length = pairs.key(pair, key);
        run.add(key.bytes(), length, key.bytes(), 0, 0);
      }
      run.end();
      pairs.clear();
    }
    if (ofAll != null) {
      ofAll.putOut(memory);
    }
  }

  long onDisk() {
    return runs.onDisk() + (ofAll == null ? 0 : ofAll.onDisk());
  }

  void merge(DistinctValues other) {
    pairs.merge(other.pairs);
    runs.merge(other.runs);
    if (ofAll != null && other.ofAll != null) {
      ofAll.merge(other.ofAll);
    }
  }

  void carry(Carrier carrier) {
    pairs.carry(carrier);
    runs.carry(carrier);
    if (ofAll != null) {
      ofAll.carry(carrier);
    }
  }

  /** How many different values all groups have together; -1 where that was not wanted. */
  long ofAll() {
    return ofAll == null ? -1 : ofAll.new Counting().of(new byte[0], 0);
  }

  /** Counts the values of groups, which come in their order. */
  final class Counting {
    private final KeyedRuns.Merged merged = runs.merged();
    private boolean there = merged.next();
    private byte[] last = {};
    private int lastLength;

    /**
     * Returns how many a group has.
     *
     * @param group its key, from the first byte on
     * @param length how many bytes that has
     */
    long of(byte[] group, int length) {
      long count = 0;
      boolean first = true;
      while (there && GroupKeys.beginsWith(merged.key(), merged.keyLength(), group, length)) {
        boolean again = !first && merged.keyLength() == lastLength && beginsWithLast();
        if (!again) {
          count += GroupKeys.isNull(merged.key(), length) ? 0 : 1;
          remember();
        }
        first = false;
        there = merged.next();
      }
      return count;
    }

    private boolean beginsWithLast() {
      return GroupKeys.beginsWith(merged.key(), merged.keyLength(), last, lastLength);
    }

    private void remember() {
      lastLength = merged.keyLength();
      if (last.length < lastLength) {
        last = new byte[2 * lastLength];
      }
      System.arraycopy(merged.key(), 0, last, 0, lastLength);
    }
  }

  @Override
  public String toString() {
    return "DistinctValues[" + Arrays.asList(pairs, ofAll) + "]";
  }
}
