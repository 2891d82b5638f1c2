package org.abletwine.derive;

import java.util.Arrays;
import org.abletwine.compute.GroupTotals;
import org.abletwine.derive.total.TotalsOfGroups;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;

/** A rollup at work: groups by a hash index, totals in flat arrays. Belongs to one thread. */
final class RollupWorker implements StepWorker {
  private final int[] by;
  final GroupIndex index;
  final TotalsOfGroups totals;
  private final CellVector[] groupCells;

  /** Take the text of computed numbers that make groups. */
  private final CellVector[] scratch;

  private int[] groups = new int[0];

  RollupWorker(RollupColumns columns) {
    by = columns.by.clone();
    index = new GroupIndex(by.length, columns.calls.count() * GroupTotals.COUNTERS);
    groupCells = new CellVector[by.length];
    scratch = new CellVector[by.length];
    Arrays.setAll(scratch, i -> new CellVector());
    totals = new TotalsOfGroups(columns.calls, index);
    if (by.length == 0) {
      index.find(groupCells, 1, new int[1]); // all rows are a group even when there are none
    }
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
    totals.add(batch, groups);
  }

  @Override
  public void merge(StepWorker worker) {
    RollupWorker other = (RollupWorker) worker;
    totals.merge(other.totals, index.merge(other.index));
  }

  @Override
  public void carry(Carrier carrier) {
    index.carry(carrier);
    totals.carry(carrier);
  }
}
