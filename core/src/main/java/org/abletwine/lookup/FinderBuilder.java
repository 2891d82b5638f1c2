package org.abletwine.lookup;

import java.util.BitSet;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.EncodedKeys;
import org.abletwine.match.RuleIndexes;
import org.abletwine.match.RuleRows;
import org.abletwine.table.CellVector;
import org.jspecify.annotations.Nullable;

/** Collects the keys of a reference's rows, and builds what finds them. */
final class FinderBuilder {
  private static final CellVector[] NO_CELLS = {};

  private final Lookup lookup;
  private final KeyLayout layout;
  private final RowStore rows;
  private final RowNumbers numbers;
  private final HashIndex index;
  private final RowStore partitions = new RowStore(0);
  private final @Nullable RuleRows ruleRows;

  /**
   * @param rows where the rows are
   * @param numbers the rows' numbers in the file, for messages
   */
  FinderBuilder(Lookup lookup, KeyLayout layout, RowStore rows, RowNumbers numbers) {
    this.lookup = lookup;
    this.layout = layout;
    this.rows = rows;
    this.numbers = numbers;
    boolean ruled = layout.rule() >= 0;
    index = new HashIndex(ruled ? partitions : rows);
    ruleRows =
        ruled ? new RuleRows(lookup.key.get(layout.rule()).theirsTo() == null ? 1 : 2) : null;
  }

  /** Makes room ahead for so many rows. */
  void expect(long count) {
    if (ruleRows == null) {
      index.expect(count);
    }
  }

  /**
   * Adds a row that is in the store.
   *
   * @param keys equal parts of a batch's keys
   * @param ruled values of the rule, of the same batch
   * @param row the row in the batch
   * @param number its number in the store
   * @return whether any key can find it
   */
  boolean add(EncodedKeys keys, CellVector[] ruled, int row, int number) {
    if (keys.blankParts[row] != 0) {
      return false;
    }
    if (ruleRows == null) {
      index.add(keys, row, number);
      return true;
    }
    if (ruled.length == 1 && ruled[0].starts[row] >= ruled[0].ends[row]) {
      return false;
    }
    ruleRows.add(ruled, row, partition(keys, row), rows.place(number), number);
    return true;
  }

  private int partition(EncodedKeys keys, int row) {
    if (layout.equal().length == 0 && partitions.rows() > 0) {
      return 0;
    }
    int place = index.find(keys, row);
    if (place != HashIndex.ABSENT) {
      return index.rowAt(place);
    }
    partitions.add(NO_CELLS, row, keys);
    index.add(keys, row, partitions.rows() - 1);
    return partitions.rows() - 1;
  }

  /** Leaves out rows that gave way to others. */
  void leaveOut(BitSet numbersInStore) {
    if (ruleRows != null) {
      ruleRows.remove(numbersInStore);
    }
  }

  Finder build() {
    if (ruleRows == null) {
      return new Finder(index, null);
    }
    KeyPart part = lookup.key.get(layout.rule());
    String place =
        lookup.reference.name()
            + ", column \""
            + part.theirs()
            + "\""
            + (part.theirsTo() == null ? "" : " or \"" + part.theirsTo() + "\"");
    return new Finder(
        index,
        RuleIndexes.build(
            ruleRows, part.match(), lookup.reference.type(part.theirs()), place, numbers::of));
  }
}
