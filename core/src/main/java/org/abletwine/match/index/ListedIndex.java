package org.abletwine.match.index;

import java.util.Arrays;
import java.util.List;
import org.abletwine.index.InternedSets;
import org.abletwine.index.RowSets;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.ByteHash;
import org.abletwine.table.text.Utf8;

/**
 * Lists in the reference, an item of one in the transactions. Every item of every list is held once
 * in each partition, in a table of open addressing with linear probing (Knuth, TAOCP vol. 3, 6.4);
 * its rows follow each other in a chain until all are known. Memory is the text of the distinct
 * items and some 25 bytes for each.
 */
final class ListedIndex implements RuleIndex {
  private static final long serialVersionUID = 1L;
  private static final int NONE = -1;

  /** A hash reads so many bytes past the end. */
  private static final int PADDING = 7;

  private final InternedSets sets = new InternedSets();

  /** The items' texts, one behind the other. */
  private byte[] text = new byte[1024];

  private int[] starts = new int[64];
  private int[] ends = new int[64];
  private int[] partitions = new int[64];
  private int[] targets;
  private int items;
  private int[] slots = new int[128];

  /**
   * @param rows the lists as they are written
   * @param separator what stands between two items
   * @param steps what makes of an item what is compared
   */
  ListedIndex(RuleRows rows, String separator, List<NormaliseStep> steps) {
    Arrays.fill(slots, NONE);
    Chains chains = new Chains();
    for (int row = 0; row < rows.rows(); row++) {
      String list = String.valueOf(rows.value(row, 0));
      for (int from = 0; from <= list.length(); ) {
        int to = list.indexOf(separator, from);
        to = to < 0 ? list.length() : to;
        String item = list.substring(from, to);
        for (NormaliseStep step : steps) {
          item = step.apply(item);
        }
        if (!item.isEmpty()) {
          chains.add(item(rows.partition(row), Utf8.bytes(item)), row);
        }
        from = to + separator.length();
      }
    }
    text = Arrays.copyOf(text, (items == 0 ? 0 : ends[items - 1]) + PADDING);
    targets = new int[items];
    for (int item = 0; item < items; item++) {
      targets[item] = chains.target(item, rows);
    }
  }

  /** The rows of each item while they are collected, the last first. */
  private final class Chains {
    private int[] last = new int[64];
    private int[] rowOf = new int[64];
    private int[] before = new int[64];
    private int used;

    void add(int known, int row) {
      boolean first = known < 0;
      int item = first ? ~known : known;
      if (item == last.length) {
        last = Arrays.copyOf(last, item * 2);
      }
      if (!first && rowOf[last[item]] == row) {
        return; // a list that has it twice
      }
      if (used == rowOf.length) {
        rowOf = Arrays.copyOf(rowOf, used * 2);
        before = Arrays.copyOf(before, used * 2);
      }
      rowOf[used] = row;
      before[used] = first ? NONE : last[item];
      last[item] = used++;
    }

    int target(int item, RuleRows rows) {
      int count = 0;
      for (int at = last[item]; at != NONE; at = before[at]) {
        count++;
      }
      if (count == 1) {
        return rows.place(rowOf[last[item]]);
      }
      int[] members = new int[count];
      for (int at = last[item]; at != NONE; at = before[at]) {
        members[--count] = rows.number(rowOf[at]);
      }
      return ~sets.of(members);
    }
  }

  /** The number of an item; of one met for the first time, the complement of its new number. */
  private int item(int partition, byte[] bytes) {
    byte[] padded = Arrays.copyOf(bytes, bytes.length + PADDING);
    int slot = slot(partition, padded, 0, bytes.length);
    if (slots[slot] != NONE) {
      return slots[slot];
    }
    int start = items == 0 ? 0 : ends[items - 1];
    if (items == starts.length) {
      starts = Arrays.copyOf(starts, items * 2);
      ends = Arrays.copyOf(ends, items * 2);
      partitions = Arrays.copyOf(partitions, items * 2);
    }
    if (start + bytes.length + PADDING > text.length) {
      text = Arrays.copyOf(text, (start + bytes.length + PADDING) * 2);
    }
    System.arraycopy(bytes, 0, text, start, bytes.length);
    starts[items] = start;
    ends[items] = start + bytes.length;
    partitions[items] = partition;
    slots[slot] = items++;
    if (items * 2 > slots.length) {
      grow();
    }
    return ~(items - 1);
  }

  private void grow() {
    slots = new int[slots.length * 2];
    Arrays.fill(slots, NONE);
    for (int item = 0; item < items; item++) {
      slots[slot(partitions[item], text, starts[item], ends[item])] = item;
    }
  }

  /** Where an item is, or would be. */
  private int slot(int partition, byte[] bytes, int start, int end) {
    long hash = ByteHash.end(ByteHash.add(ByteHash.of(bytes, start, end), partition));
    int mask = slots.length - 1;
    int slot = (int) (hash >>> 32) & mask;
    while (slots[slot] != NONE && !same(slots[slot], partition, bytes, start, end)) {
      slot = slot + 1 & mask;
    }
    return slot;
  }

  private boolean same(int item, int partition, byte[] bytes, int start, int end) {
    return partitions[item] == partition
        && Arrays.equals(text, starts[item], ends[item], bytes, start, end);
  }

  @Override
  public void probe(int[] rowPartitions, CellVector values, int rows, int[] found) {
    byte[] ours = new byte[64];
    for (int row = 0; row < rows; row++) {
      int length = values.ends[row] - values.starts[row];
      int item = NONE;
      if (length > 0 && rowPartitions[row] >= 0) {
        if (length + PADDING > ours.length) {
          ours = new byte[(length + PADDING) * 2];
        }
        System.arraycopy(values.text, values.starts[row], ours, 0, length);
        item = slots[slot(rowPartitions[row], ours, 0, length)];
      }
      found[row] = item == NONE ? ABSENT : targets[item];
    }
  }

  @Override
  public RowSets sets() {
    return sets;
  }

  @Override
  public String toString() {
    return "ListedIndex[" + items + " items]";
  }
}
