package org.abletwine.derive;

import java.util.Arrays;
import java.util.List;
import org.abletwine.compute.GroupTotals;
import org.abletwine.index.GroupIndex;
import org.abletwine.lookup.Attribute;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/** A rollup at work: groups by a hash index, totals in flat arrays. Belongs to one thread. */
final class RollupWorker implements StepWorker {
  private final int[] by;
  private final int[] of;
  final GroupIndex index;
  final GroupTotals[] totals;
  private final CellVector[] groupCells;

  /** Take the text of computed numbers that make groups. */
  private final CellVector[] scratch;

  private int[] groups = new int[0];

  /**
   * @param by the columns that make a group
   * @param of the column of each total; negative for rows
   * @param types what these columns hold, where that is stated
   */
  RollupWorker(Rollup rollup, int[] by, int[] of, List<@Nullable ColumnType> types) {
    this.by = by.clone();
    this.of = of.clone();
    index = new GroupIndex(by.length, of.length * GroupTotals.COUNTERS);
    groupCells = new CellVector[by.length];
    scratch = new CellVector[by.length];
    Arrays.setAll(scratch, i -> new CellVector());
    totals = new GroupTotals[of.length];
    for (int t = 0; t < totals.length; t++) {
      Attribute total = rollup.totals().get(t);
      totals[t] =
          new GroupTotals(
              function(total),
              index,
              t * GroupTotals.COUNTERS,
              types.get(t),
              Rollup.WHERE + ", " + Rollup.shown(total),
              rollup.settings());
    }
  }

  private static GroupTotals.Function function(Attribute total) {
    return total.aggregate() == null
        ? GroupTotals.Function.SUM
        : GroupTotals.Function.valueOf(total.aggregate().function().name());
  }

  @Override
  public void apply(Batch batch) {
    int count = batch.rows();
    if (groups.length < count) {
      groups = new int[count];
    }
    for (int i = 0; i < by.length; i++) {
      groupCells[i] = batch.column(by[i]).asText(scratch[i]);
    }
    index.find(groupCells, count, groups);
    for (int t = 0; t < totals.length; t++) {
      if (of[t] < 0) {
        totals[t].addRows(groups, count);
      } else {
        totals[t].add(groups, batch.column(of[t]), batch);
      }
    }
  }

  /** Takes over the groups of another worker. */
  void merge(RollupWorker other) {
    int[] groupOf = index.merge(other.index);
    for (int t = 0; t < totals.length; t++) {
      totals[t].merge(other.totals[t], groupOf);
    }
  }
}
