package org.abletwine.derive;

import java.util.Arrays;
import org.abletwine.derive.total.GroupedTotals;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;

/** A rollup at work. Belongs to one thread. */
final class RollupWorker implements StepWorker {
  private final int[] by;
  private final CellVector[] groupCells;

  /** Take the text of computed numbers that make groups. */
  private final CellVector[] scratch;

  final GroupedTotals totals;

  /**
   * @param by the columns that make the groups
   * @param totals those of this worker
   */
  RollupWorker(int[] by, GroupedTotals totals) {
    this.by = by.clone();
    this.totals = totals;
    groupCells = new CellVector[by.length];
    scratch = new CellVector[by.length];
    Arrays.setAll(scratch, i -> new CellVector());
  }

  @Override
  public void apply(Batch batch) {
    for (int i = 0; i < by.length; i++) {
      groupCells[i] = batch.column(by[i]).asText(scratch[i]);
    }
    totals.add(batch, groupCells);
  }

  @Override
  public void merge(StepWorker worker) {
    totals.merge(((RollupWorker) worker).totals);
  }

  @Override
  public void carry(Carrier carrier) {
    totals.carry(carrier);
  }
}
