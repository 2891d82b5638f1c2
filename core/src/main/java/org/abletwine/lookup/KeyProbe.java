package org.abletwine.lookup;

import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.abletwine.compute.Expression;
import org.abletwine.index.HashIndex;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.match.index.RuleChain;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * Reads the keys of a batch of transactions and finds their rows. Holds scratch space: one for each
 * thread.
 */
final class KeyProbe {
  private final KeyLayout layout;
  private final KeyEncoder encoder;
  private final EncodedKeys keys = new EncodedKeys();
  private final int[] ruleColumns;
  private final NormaliseStep[][] ruleSteps;
  private final CellVector[] ruled;
  private int[] partitions = new int[0];
  private long[] apart = new long[0];
  private int rows;

  /**
   * @param lookup the lookup
   * @param keyColumns for each key part the column of ours in the batches to come
   */
  KeyProbe(Lookup lookup, int[] keyColumns) {
    this(
        KeyLayout.of(lookup),
        keyColumns,
        KeyLayout.of(lookup).equalSteps(lookup),
        KeyLayout.of(lookup).ruleSteps(lookup, true));
  }

  /** For batches whose columns are the key parts, in order. */
  KeyProbe(KeyLayout layout, NormaliseStep[][] equalSteps, NormaliseStep[][] ruleSteps) {
    this(
        layout,
        IntStream.range(0, equalSteps.length + ruleSteps.length).toArray(),
        Stream.of(equalSteps).map(List::of).toList(),
        ruleSteps);
  }

  private KeyProbe(
      KeyLayout layout,
      int[] keyColumns,
      List<List<NormaliseStep>> equalSteps,
      NormaliseStep[][] ruleSteps) {
    this.layout = layout;
    int[] equal = IntStream.of(layout.equal()).map(part -> keyColumns[part]).toArray();
    encoder = new KeyEncoder(equal, equalSteps);
    ruleColumns = IntStream.of(layout.rules()).map(part -> keyColumns[part]).toArray();
    ruled = new CellVector[ruleColumns.length];
    java.util.Arrays.setAll(ruled, rule -> new CellVector());
    this.ruleSteps = ruleSteps;
  }

  /** Reads the keys of a batch. */
  void read(Batch batch) {
    rows = batch.rows();
    encoder.encode(batch, keys);
    for (int rule = 0; rule < ruled.length; rule++) {
      batch.copySlices(ruled[rule], ruleColumns[rule]);
      for (NormaliseStep step : ruleSteps[rule]) {
        CellsStep.apply(step, ruled[rule], rows);
      }
    }
  }

  /** Finds the rows of the keys read: a place, the complement of a set, or a miss. */
  void find(Finder finder, int[] found) {
    find(finder, found, null);
  }

  /**
   * As {@link #find(Finder, int[])}, for some of the rows: of the others no set of rows that a rule
   * finds while looking is counted.
   *
   * @param asked whether a row is asked for; null for all
   */
  void find(Finder finder, int[] found, @Nullable Expression asked) {
    if (partitions.length < rows) {
      partitions = new int[rows];
      apart = new long[rows];
    }
    find(finder, partitions, found, apart, asked);
  }

  /** As {@link #find}, elsewhere: what can be asked about the rows stays as it was. */
  void findAside(Finder finder, int[] found) {
    find(finder, new int[rows], found, new long[rows], null);
  }

  private void find(
      Finder finder, int[] among, int[] found, long[] distances, @Nullable Expression asked) {
    if (!layout.ruled()) {
      finder.index().probe(keys, found);
      return;
    }
    findPartitions(finder.index(), among);
    for (int row = 0; asked != null && row < rows; row++) {
      among[row] = asked.isTrue(row) ? among[row] : -1;
    }
    RuleChain rule = finder.rule();
    if (rule == null) {
      java.util.Arrays.fill(found, 0, rows, HashIndex.ABSENT);
    } else {
      rule.probe(among, ruled, rows, found, distances);
    }
  }

  private void findPartitions(HashIndex index, int[] among) {
    if (layout.equal().length == 0) {
      java.util.Arrays.fill(among, 0, rows, index.keys() == 0 ? -1 : 0);
      return;
    }
    index.probe(keys, among);
    for (int row = 0; row < rows; row++) {
      int place = among[row];
      among[row] = place == HashIndex.ABSENT ? -1 : index.rowAt(place);
    }
  }

  /** Bits of the key parts that are null or blank, in the order of the key. */
  int blankParts(int row) {
    int equal = keys.blankParts[row];
    if (!layout.ruled()) {
      return equal;
    }
    int parts = 0;
    for (int rule = 0; rule < ruled.length; rule++) {
      boolean blank = ruled[rule].isBlank(row);
      parts |= blank ? 1 << layout.rules()[rule] : 0;
    }
    for (int i = 0; i < layout.equal().length; i++) {
      parts |= (equal >>> i & 1) << layout.equal()[i];
    }
    return parts;
  }

  /** The key part whose value cannot be compared, in a row of which {@link #find} said so. */
  int unfitPart(Finder finder, int row) {
    RuleChain rule = finder.rule();
    return layout.rules()[rule == null ? 0 : rule.unfit(ruled(row))];
  }

  /** How far away what was found is, for a rule that measures it. */
  long apart(int row) {
    return apart[row];
  }

  /** The row's partition after {@link #find}, or negative. */
  int partition(int row) {
    return partitions[row];
  }

  /** Our value for each rule, normalised. */
  @Nullable String[] ruled(int row) {
    @Nullable String[] values = new String[ruled.length];
    for (int rule = 0; rule < values.length; rule++) {
      values[rule] = ruled[rule].get(row);
    }
    return values;
  }

  /** The keys' equal parts. */
  EncodedKeys keys() {
    return keys;
  }
}
