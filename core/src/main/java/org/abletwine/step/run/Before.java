package org.abletwine.step.run;

import org.abletwine.table.batch.BatchSink;

/** The rows of a run as the steps before one leave them, for a step that must see all of them. */
public interface Before {

  /**
   * Takes all rows through the steps before, once more: nobody is told of anything, and nothing is
   * counted or written.
   *
   * @param sink takes the rows, in order; neither started nor committed
   * @param columns the columns it takes, by their numbers
   */
  void into(BatchSink sink, int[] columns);
}
