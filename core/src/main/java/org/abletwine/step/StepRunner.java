package org.abletwine.step;

import java.util.List;
import org.abletwine.figures.StepFigures;
import org.abletwine.table.Batch;
import org.abletwine.table.Output;

/** A step at work in one run. Used by one thread. */
public interface StepRunner {

  /**
   * Transforms one batch in place.
   *
   * @param batch the rows
   * @throws org.abletwine.table.DataException when the plan says that a row's outcome ends the run
   */
  void apply(Batch batch);

  /** Returns what the step has counted so far. */
  StepFigures figures();

  /**
   * Whether the step may run on the thread that writes, which often has time to spare: steps that
   * only compute from the columns they find, and tell nobody about single rows.
   */
  default boolean mayRunWithWriting() {
    return false;
  }

  /** All rows have been transformed: writes what is left of the step's own. */
  default void finish() {}

  /** Returns what the step writes of its own; all of it is written once {@link #finish} was run. */
  default List<Output> outputs() {
    return List.of();
  }

  /** Releases what the step holds; after a failed run, without {@link #finish} before. */
  default void close() {}
}
