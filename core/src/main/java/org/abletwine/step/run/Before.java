package org.abletwine.step.run;

import org.abletwine.table.DataException;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;

/** The rows of a run as the steps before one leave them, for a step that must see all of them. */
public interface Before {

  /**
   * Takes all rows through the steps before, once more: nobody is told of anything, and nothing is
   * counted or written.
   *
   * @param sink takes the rows, in order; neither started nor committed
   * @param columns the columns it takes, by their numbers
   * @return what a row has met that ends the run, once the rows before it are taken: another row
   *     before that one may end it at a later step. Null when all rows were taken
   */
  @Nullable DataException into(BatchSink sink, int[] columns);
}
