package org.abletwine.step.run;

import org.abletwine.table.batch.Batch;

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
   * The rows of a piece of the table have been transformed, and it is this piece's turn: puts out
   * what has to be in row order. No two workers are in here at once.
   */
  default void inOrder() {}
}
