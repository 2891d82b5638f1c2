package org.abletwine.lookup;

import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.abletwine.index.HashIndex;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.RuleIndex;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;

/**
 * Reads the keys of a batch of transactions and finds their rows. Holds scratch space: one for each
 * thread.
 */
final class KeyProbe {
  private final KeyLayout layout;
  private final KeyEncoder encoder;
  private final EncodedKeys keys = new EncodedKeys();
  private final int ruleColumn;
  private final NormaliseStep[] ruleSteps;
  private final CellVector ruled = new CellVector();
  private int[] partitions = new int[0];
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
        KeyLayout.of(lookup).ruleSteps(lookup));
  }

  /** For batches whose columns are the key parts, in order. */
  KeyProbe(KeyLayout layout, NormaliseStep[][] equalSteps, NormaliseStep[] ruleSteps) {
    this(
        layout,
        IntStream.range(0, equalSteps.length + 1).toArray(),
        Stream.of(equalSteps).map(List::of).toList(),
        ruleSteps);
  }

  private KeyProbe(
      KeyLayout layout,
      int[] keyColumns,
      List<List<NormaliseStep>> equalSteps,
      NormaliseStep[] ruleSteps) {
    this.layout = layout;
    int[] equal = IntStream.of(layout.equal()).map(part -> keyColumns[part]).toArray();
    encoder = new KeyEncoder(equal, equalSteps);
    ruleColumn = layout.rule() < 0 ? -1 : keyColumns[layout.rule()];
    this.ruleSteps = ruleSteps;
  }

  /** Reads the keys of a batch. */
  void read(Batch batch) {
    rows = batch.rows();
    encoder.encode(batch, keys);
    if (ruleColumn >= 0) {
      batch.copySlices(ruled, ruleColumn);
      for (NormaliseStep step : ruleSteps) {
        step.apply(ruled, rows);
      }
    }
  }

  /** Finds the rows of the keys read: a place, the complement of a set, or a miss. */
  void find(Finder finder, int[] found) {
    if (layout.rule() < 0) {
      finder.index().probe(keys, found);
      return;
    }
    findPartitions(finder.index());
    RuleIndex rule = finder.rule();
    if (rule == null) {
      java.util.Arrays.fill(found, 0, rows, HashIndex.ABSENT);
    } else {
      rule.probe(partitions, ruled, rows, found);
    }
  }

  private void findPartitions(HashIndex index) {
    if (partitions.length < rows) {
      partitions = new int[rows];
    }
    if (layout.equal().length == 0) {
      java.util.Arrays.fill(partitions, 0, rows, index.keys() == 0 ? -1 : 0);
      return;
    }
    index.probe(keys, partitions);
    for (int row = 0; row < rows; row++) {
      int place = partitions[row];
      partitions[row] = place == HashIndex.ABSENT ? -1 : index.rowAt(place);
    }
  }

  /** Bits of the key parts that are null or blank, in the order of the key. */
  int blankParts(int row) {
    int equal = keys.blankParts[row];
    if (layout.rule() < 0) {
      return equal;
    }
    int parts = ruled.starts[row] >= ruled.ends[row] ? 1 << layout.rule() : 0;
    for (int i = 0; i < layout.equal().length; i++) {
      parts |= (equal >>> i & 1) << layout.equal()[i];
    }
    return parts;
  }

  /** The key part with a rule, or -1. */
  int rulePart() {
    return layout.rule();
  }

  /** The row's partition after {@link #find}, or negative. */
  int partition(int row) {
    return partitions[row];
  }

  /** Our value for the rule, normalised. */
  String ruled(int row) {
    return String.valueOf(ruled.get(row));
  }

  /** The keys' equal parts. */
  EncodedKeys keys() {
    return keys;
  }
}
