package org.abletwine.step.run;

import org.abletwine.table.batch.Batch;
import org.abletwine.table.carry.Carrier;

/** A step at work on some of the rows: belongs to one thread. */
public interface StepWorker {

  /**
   * Transforms one batch in place. What becomes of a row depends on that row alone.
   *
   * @param batch the rows
   * @throws org.abletwine.table.DataException when the plan says that a row's outcome ends the run
   */
  void apply(Batch batch);

  /**
   * Adds what another worker of the same step has counted: the same for any order of workers.
   *
   * @param other the worker, which is not used any more
   */
  void merge(StepWorker other);

  /**
   * Carries what was counted to another process, or takes what a worker there has counted, in place
   * of nothing counted here.
   *
   * @param carrier carries it
   */
  void carry(Carrier carrier);

  /**
   * The rows of a piece of the table have been transformed, and it is this piece's turn: puts out
   * what has to be in row order. No two workers are in here at once.
   */
  default void inOrder() {}
}
