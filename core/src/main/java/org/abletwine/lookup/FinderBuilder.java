package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.lookup.rows.RowNumbers;
import org.abletwine.match.index.PatternSteps;
import org.abletwine.match.index.RuleChain;
import org.abletwine.match.index.RuleIndexes;
import org.abletwine.match.index.RuleRows;
import org.abletwine.match.index.ValuesSeen;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.CellVector;
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
  private final RuleRows[] ruleRows;
  private final @Nullable List<ValuesSeen> seen;

  /**
   * @param rows where the rows are
   * @param numbers the rows' numbers in the file, for messages
   * @param seen for each rule what the values of the whole reference are, of which these rows are
   *     only a part; null where they are all
   */
  FinderBuilder(
      Lookup lookup,
      KeyLayout layout,
      RowStore rows,
      RowNumbers numbers,
      @Nullable List<ValuesSeen> seen) {
    this.seen = seen;
    this.lookup = lookup;
    this.layout = layout;
    this.rows = rows;
    this.numbers = numbers;
    index = new HashIndex(layout.ruled() ? partitions : rows);
    ruleRows =
        IntStream.of(layout.rules())
            .mapToObj(rule -> rows(lookup, lookup.key.get(rule)))
            .toArray(RuleRows[]::new);
    for (int rule = 0; seen != null && rule < ruleRows.length; rule++) {
      ruleRows[rule].tellApart(seen.get(rule).places());
    }
  }

  /** {@return the memory that the index takes, in bytes} */
  long bytes() {
    long bytes = index.bytes() + partitions.bytes();
    for (RuleRows values : ruleRows) {
      bytes += values.bytes();
    }
    return bytes;
  }

  /** Makes room ahead for so many rows. */
  void expect(long count) {
    if (!layout.ruled()) {
      index.expect(count);
    }
  }

  /**
   * Adds a row that is in the store.
   *
   * @param keys equal parts of a batch's keys
   * @param ruled values of each rule, of the same batch
   * @param row the row in the batch
   * @param number its number in the store
   * @return whether any key can find it
   */
  boolean add(EncodedKeys keys, CellVector[][] ruled, int row, int number) {
    if (keys.blankParts[row] != 0) {
      return false;
    }
    if (!layout.ruled()) {
      index.add(keys, row, number);
      return true;
    }
    if (!RuleValues.findable(ruled, row)) {
      return false;
    }
    int partition = partition(keys, row);
    for (int rule = 0; rule < ruleRows.length; rule++) {
      ruleRows[rule].add(ruled[rule], row, partition, rows.place(number), number);
    }
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
    for (RuleRows values : ruleRows) {
      values.remove(numbersInStore);
    }
  }

  /** The rows with a cell that cannot be read as what its column is ordered by, by number. */
  BitSet unreadable() {
    BitSet unreadable = new BitSet();
    for (int rule = 0; rule < ruleRows.length; rule++) {
      KeyPart part = lookup.key.get(layout.rules()[rule]);
      unreadable.or(RuleIndexes.unreadable(ruleRows[rule], part.match(), type(rule)));
    }
    return unreadable;
  }

  /**
   * As {@link #build}, without rows that could not be ordered or compiled: for rows that the
   * reference's condition left out, and that must not stop a run.
   */
  Finder buildOfUsable() {
    if (layout.ruled()) {
      BitSet unusable = new BitSet();
      for (int rule = 0; rule < ruleRows.length; rule++) {
        KeyPart part = lookup.key.get(layout.rules()[rule]);
        unusable.or(RuleIndexes.unusable(ruleRows[rule], part.match(), type(rule)));
      }
      leaveOut(unusable);
    }
    try {
      return build();
    } catch (DataException e) {
      return Finder.none(); // too many or too fine to be held: nobody asked for them
    }
  }

  /**
   * Holds that all values can be ordered, before anything else is made of them.
   *
   * @throws DataException when one cannot
   */
  void requireOrder() {
    for (int rule = 0; rule < ruleRows.length; rule++) {
      part(lookup.key.get(layout.rules()[rule]), rule).requireOrder(numbers::of);
    }
  }

  Finder build() {
    if (!layout.ruled()) {
      return new Finder(index, null);
    }
    List<RuleChain.Part> parts = new ArrayList<>();
    for (int rule = 0; rule < ruleRows.length; rule++) {
      parts.add(part(lookup.key.get(layout.rules()[rule]), rule));
    }
    return new Finder(index, RuleChain.build(parts, numbers::of));
  }

  private static RuleRows rows(Lookup lookup, KeyPart part) {
    return new RuleRows(part.theirsTo() == null ? 1 : 2, lookup.hides(part));
  }

  /** What the values of a rule are, when that is known of all of them. */
  private @Nullable ColumnType type(int rule) {
    return seen == null
        ? lookup.reference.type(lookup.key.get(layout.rules()[rule]).theirs())
        : seen.get(rule).type();
  }

  private RuleChain.Part part(KeyPart part, int rule) {
    String place =
        lookup.reference.name()
            + ", column \""
            + part.theirs()
            + "\""
            + (part.theirsTo() == null ? "" : " or \"" + part.theirsTo() + "\"");
    return new RuleChain.Part(
        ruleRows[rule],
        part.match(),
        PatternSteps.folds(KeyLayout.steps(lookup, part)),
        type(rule),
        KeyLayout.steps(lookup, part),
        part.ours(),
        place);
  }
}
