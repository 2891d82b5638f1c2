package org.abletwine.derive.total;

import java.util.Arrays;
import org.abletwine.compute.Expression;
import org.abletwine.compute.GroupTotals;
import org.abletwine.compute.RowErrors;
import org.abletwine.index.GroupIndex;
import org.abletwine.index.GroupKeys;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.KeyedRuns;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * Totals by group, counted by one worker; those of others are merged into it at the end. Groups are
 * found by a hash index with their counters. When they are many they are put out in the order of
 * their values, each with what it has come to, to memory as long as there is some and else to disk,
 * and begin anew; at the end all of that is merged in order, and what a group has come to in
 * several places is added up (sorting with early aggregation: Bitton and DeWitt 1983, "Duplicate
 * record elimination in large data files"). Belongs to one thread.
 */
public final class GroupedTotals {
  private static final CellVector[] NO_COLUMNS = {};

  /**
   * More than this at once is not sorted faster: it is far from the processor. Less would put the
   * same groups out again and again where they come in no order.
   */
  private static final long MOST_AT_ONCE = 1 << 28;

  private final TotalCalls calls;
  private final int parts;
  private final Spill.@Nullable Share share;
  private final GroupIndex index;
  private final GroupTotals[] totals;
  private final @Nullable Expression[] arguments;

  /** What other workers could not compute. */
  private final RowErrors[] merged;

  /** For each total that counts different values these; null for others. */
  private final @Nullable DistinctValues[] distinct;

  private final KeyedRuns runs;
  private final CellVector computed = new CellVector();
  private int[] groupOf = new int[0];

  /**
   * @param calls the totals
   * @param parts columns that make a group; with none all rows are one, also when there are none
   * @param grand whether totals over all groups are wanted, those of different values included
   * @param share how much may be in memory; null for any amount
   */
  public GroupedTotals(TotalCalls calls, int parts, boolean grand, Spill.@Nullable Share share) {
    this.calls = calls;
    this.parts = parts;
    this.share = share;
    Spill spill = share == null ? null : share.spill();
    index = new GroupIndex(parts, calls.count() * GroupTotals.COUNTERS);
    totals = over(index);
    arguments = new @Nullable Expression[totals.length];
    merged = new RowErrors[totals.length];
    distinct = new @Nullable DistinctValues[totals.length];
    Arrays.fill(merged, RowErrors.NONE);
    for (int t = 0; t < totals.length; t++) {
      Expression argument = calls.call(t).argument();
      arguments[t] = argument == null ? null : argument.another();
      if (calls.call(t).function() == GroupTotals.Function.COUNT_DISTINCT) {
        distinct[t] = new DistinctValues(parts, grand, spill);
      }
    }
    runs = new KeyedRuns(spill, (one, other) -> GroupKeys.compare(one, 0, other, 0, parts));
    if (parts == 0) {
      index.find(NO_COLUMNS, 1, new int[1]);
    }
  }

  private GroupTotals[] over(GroupIndex groups) {
    GroupTotals[] made = new GroupTotals[calls.count()];
    Arrays.setAll(made, total -> calls.over(total, groups));
    return made;
  }

  /**
   * Adds the rows of a batch.
   *
   * @param batch the rows
   * @param by the columns that make the groups, as text
   */
  public void add(Batch batch, CellVector[] by) {
    int rows = batch.rows();
    if (groupOf.length < rows) {
      groupOf = new int[rows];
    }
    index.find(by, rows, groupOf);
    for (int t = 0; t < totals.length; t++) {
      int column = calls.call(t).column();
      Expression argument = arguments[t];
      if (argument != null) {
        argument.over(batch);
        computed.clear();
        argument.appendTo(computed, rows);
        add(t, computed, batch, by);
      } else if (column == TotalCalls.Call.ROWS) {
        totals[t].addRows(groupOf, rows);
      } else {
        add(t, batch.column(column), batch, by);
      }
    }
    hold();
  }

  private void add(int total, CellVector cells, Batch batch, CellVector[] by) {
    DistinctValues different = distinct[total];
    if (different == null) {
      totals[total].add(groupOf, cells, batch);
    } else {
      different.add(by, cells, batch.rows());
    }
  }

  /** Puts out what is much. */
  private void hold() {
    if (index.groups() == 0) {
      return;
    }
    long bytes = index.bytes();
    for (int t = 0; t < totals.length; t++) {
      DistinctValues different = distinct[t];
      bytes += totals[t].bytes() + (different == null ? 0 : different.bytes());
    }
    long room = room();
    if (bytes > Math.min(MOST_AT_ONCE, room / 2)) {
      putOut(held() + bytes < room);
    }
  }

  /** How many bytes may be in memory. */
  private long room() {
    return share == null ? Long.MAX_VALUE : share.bytes();
  }

  /** How many bytes of runs are in memory. */
  private long held() {
    long bytes = runs.inMemory();
    for (@Nullable DistinctValues different : distinct) {
      bytes += different == null ? 0 : different.inMemory();
    }
    return bytes;
  }

  private void putOut(boolean memory) {
    if (index.groups() > 0) {
      KeyedRuns.Adding run = runs.begin(memory);
      RowBytes key = new RowBytes();
      RowBytes come = new RowBytes();
      for (int group : index.sorted()) {
        int length = index.key(group, key);
        come.clear();
        for (GroupTotals total : totals) {
          total.write(group, come);
        }
        run.add(key.bytes(), length, come.bytes(), 0, come.used());
      }
      run.end();
      index.clear();
      for (GroupTotals total : totals) {
        total.forgetGroups();
      }
    }
    for (@Nullable DistinctValues different : distinct) {
      if (different != null) {
        different.putOut(memory);
      }
    }
  }

  /**
   * Takes over what another worker has totalled, which is not used any more.
   *
   * @param other the same totals
   */
  public void merge(GroupedTotals other) {
    int[] here = index.merge(other.index);
    for (int t = 0; t < totals.length; t++) {
      totals[t].merge(other.totals[t], here);
      merged[t] = merged[t].and(other.ofArgument(t));
      DistinctValues different = distinct[t];
      DistinctValues others = other.distinct[t];
      if (different != null && others != null) {
        different.merge(others);
      }
    }
    runs.merge(other.runs);
    hold();
  }

  /**
   * Carries what was totalled, or takes what another process has totalled in place of nothing.
   *
   * @param carrier carries it
   */
  public void carry(Carrier carrier) {
    index.carry(carrier);
    runs.carry(carrier);
    for (int t = 0; t < totals.length; t++) {
      totals[t].carry(carrier);
      RowErrors all = ofArgument(t).carried(carrier);
      merged[t] = carrier.comesIn() ? all : merged[t];
      DistinctValues different = distinct[t];
      if (different != null) {
        different.carry(carrier);
      }
    }
  }

  /**
   * Returns what was passed over since it is no such value or cannot be computed.
   *
   * @param total which total, 0-based
   */
  public RowErrors errors(int total) {
    return totals[total].errors().and(ofArgument(total));
  }

  private RowErrors ofArgument(int total) {
    Expression argument = arguments[total];
    return argument == null ? merged[total] : merged[total].and(argument.errors());
  }

  /** Returns how many bytes were put on disk. */
  public long onDisk() {
    long bytes = runs.onDisk();
    for (@Nullable DistinctValues different : distinct) {
      bytes += different == null ? 0 : different.onDisk();
    }
    return bytes;
  }

  /** All was added: returns the groups. To be asked once. */
  public Groups groups() {
    putOut(onDisk() == 0);
    return new Groups();
  }

  /** The groups in the order of their values, by code point and part by part, nulls last. */
  public final class Groups {
    private final KeyedRuns.Merged entries = runs.merged();
    private final @Nullable DistinctValues.Counting[] counting =
        new DistinctValues.@Nullable Counting[distinct.length];
    private final GroupIndex one = alone();
    private final GroupTotals[] ofOne = over(one);
    private final GroupIndex all = alone();
    private final GroupTotals[] ofAll = over(all);
    private boolean there = entries.next();
    private byte[] key = {};
    private int length;
    private long count;

    private Groups() {
      for (int t = 0; t < totals.length; t++) {
        DistinctValues different = distinct[t];
        counting[t] = different == null ? null : different.new Counting();
        ofOne[t].takeAfter(totals[t]);
        ofAll[t].takeAfter(totals[t]);
      }
    }

    private GroupIndex alone() {
      GroupIndex made = new GroupIndex(0, calls.count() * GroupTotals.COUNTERS);
      made.find(NO_COLUMNS, 1, new int[1]);
      return made;
    }

    /** Goes to the next group; returns whether there is one. */
    public boolean next() {
      if (!there) {
        return false;
      }
      count++;
      length = entries.keyLength();
      if (key.length < length || key.length == 0) {
        key = new byte[2 * length + 1];
      }
      System.arraycopy(entries.key(), 0, key, 0, length);
      begin();
      do {
        for (GroupTotals total : ofOne) {
          total.read(0, entries.behind());
        }
        there = entries.next();
      } while (there
          && entries.keyLength() == length
          && GroupKeys.beginsWith(entries.key(), length, key, length));
      for (int t = 0; t < ofOne.length; t++) {
        DistinctValues.Counting values = counting[t];
        if (values != null) {
          ofOne[t].count(0, values.of(key, length));
        }
        ofAll[t].add(0, ofOne[t], 0);
      }
      return true;
    }

    private void begin() {
      Arrays.fill(
          one.records(), one.counters(0), one.counters(0) + ofOne.length * GroupTotals.COUNTERS, 0);
      for (GroupTotals total : ofOne) {
        total.forgetGroups();
      }
    }

    /** Returns the values that make the group, in the order of the columns; null for null. */
    public @Nullable String[] values() {
      return GroupKeys.values(key, 0, parts);
    }

    /** Returns its totals as text, null for one of nothing, in the order of the calls. */
    public @Nullable String[] totals() {
      return texts(ofOne);
    }

    /** Returns how many groups there were so far. */
    public long count() {
      return count;
    }

    /**
     * Returns the totals over all groups, once they were gone through; a count of different values
     * means nothing where it was not wanted.
     */
    public @Nullable String[] grand() {
      @Nullable String[] texts = texts(ofAll);
      for (int t = 0; t < texts.length; t++) {
        DistinctValues different = distinct[t];
        if (different != null && parts > 0) {
          texts[t] = Long.toString(different.ofAll());
        }
      }
      return texts;
    }

    private @Nullable String[] texts(GroupTotals[] of) {
      @Nullable String[] texts = new @Nullable String[of.length];
      for (int t = 0; t < texts.length; t++) {
        texts[t] = of[t].value(0);
      }
      return texts;
    }
  }
}
