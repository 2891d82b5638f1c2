package org.abletwine.lookup;

import java.util.List;
import org.abletwine.compute.Expression;
import org.abletwine.match.index.RuleChain;
import org.abletwine.match.index.RuleIndex;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * A reference at work in a lookup: the lookup's own, or one of those tried for rows still without a
 * match. Used by one thread.
 */
final class Source {
  final Lookup lookup;
  final LoadedReference reference;
  final KeyProbe probe;

  /** For each stored cell the attribute it fills, as a place in the lookup's list. */
  final int[] attributeOf;

  /** Attributes that this reference does not bring. */
  final int[] missing;

  /** Nulls fetched, by cell. */
  final long[] empties;

  /** Rows that matched here. */
  long matched;

  /** For each part with a rule whether its values are private. */
  private final boolean[] ruledHidden;

  /** Whether rows whose key fits several that disagree are repeated. */
  final boolean each;

  /** Depends on loads made ahead of their use, so that the compiler keeps them. */
  long touched;

  private final @Nullable CellVector[] targets;
  private final @Nullable String[] fills;

  /**
   * @param lookup the lookup, or one tried in its place
   * @param reference its reference
   * @param keyColumns the columns of its key in the batches to come
   * @param names the attributes the whole lookup brings
   * @param emptyFills for each of them what to put in place of null
   */
  Source(
      Lookup lookup,
      LoadedReference reference,
      int[] keyColumns,
      List<String> names,
      @Nullable String[] emptyFills) {
    this.lookup = lookup;
    this.reference = reference;
    this.each = lookup.several.rule() == Several.Rule.EACH;
    this.probe = new KeyProbe(lookup, keyColumns);
    int[] rules = KeyLayout.of(lookup).rules();
    ruledHidden = new boolean[rules.length];
    for (int rule = 0; rule < rules.length; rule++) {
      ruledHidden[rule] = lookup.hides(lookup.key.get(rules[rule]));
    }
    List<Attribute> inOrder = KeptColumns.inCellOrder(lookup.bring);
    attributeOf = inOrder.stream().mapToInt(a -> names.indexOf(a.as())).toArray();
    List<Integer> brought = java.util.Arrays.stream(attributeOf).boxed().toList();
    missing =
        java.util.stream.IntStream.range(0, names.size())
            .filter(a -> !brought.contains(a))
            .toArray();
    empties = new long[attributeOf.length];
    targets = new CellVector[attributeOf.length];
    fills = new String[attributeOf.length];
    for (int cell = 0; cell < fills.length; cell++) {
      fills[cell] = emptyFills[attributeOf[cell]];
    }
  }

  /**
   * Finds the rows of a batch's keys.
   *
   * @param asked whether a row is asked for, evaluated over the batch; null for all
   */
  void find(Batch batch, int[] found, @Nullable Expression asked) {
    probe.read(batch);
    probe.find(reference.finder(), found, asked);
    if (reference.finder().rule() != null) {
      touched = reference.rows().touch(found, batch.rows());
    }
  }

  /** Adds what another worker has counted. */
  void merge(Source other) {
    matched += other.matched;
    for (int cell = 0; cell < empties.length; cell++) {
      empties[cell] += other.empties[cell];
    }
  }

  /** Carries what was counted, or takes what another process has counted. */
  void carry(Carrier carrier) {
    matched = carrier.number(matched);
    carrier.numbers(empties);
  }

  /** Points the cells at the columns they go to. */
  void into(CellVector[] columns) {
    for (int cell = 0; cell < targets.length; cell++) {
      targets[cell] = columns[attributeOf[cell]];
    }
  }

  /** Appends a row's cells to the columns. */
  void fetch(int place) {
    reference.rows().fetch(place, targets, empties, fills);
  }

  /** Appends cells that rows put together come to. */
  void fetch(@Nullable String[] combined) {
    for (int cell = 0; cell < targets.length; cell++) {
      CellVector target = targets[cell];
      if (target != null) {
        target.append(combined[cell] == null ? fills[cell] : combined[cell]);
        empties[cell] += combined[cell] == null ? 1 : 0;
      }
    }
  }

  private boolean hidesRules() {
    for (boolean hidden : ruledHidden) {
      if (hidden) {
        return true;
      }
    }
    return false;
  }

  /** A row's values for the rules, and how they missed, as far as these may be shown. */
  String missed(int row, int miss) {
    @Nullable String[] values = probe.ruled(row);
    for (int rule = 0; rule < values.length; rule++) {
      values[rule] = Veil.over(ruledHidden[rule], values[rule]);
    }
    String how = describeMiss(row, miss);
    return String.join(" | ", values) + (how.isEmpty() ? "" : ": " + how);
  }

  /** Says in words how a row missed; empty when there is nothing to say. */
  String describeMiss(int row, int miss) {
    RuleChain rule = reference.finder().rule();
    boolean outside = probe.partition(row) < 0 && miss != RuleIndex.UNFIT;
    if (rule == null || outside || hidesRules()) {
      return "";
    }
    return rule.describeMiss(
        Math.max(0, probe.partition(row)), probe.ruled(row), miss == RuleIndex.UNFIT);
  }
}
