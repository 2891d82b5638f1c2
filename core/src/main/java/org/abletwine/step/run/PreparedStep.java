package org.abletwine.step.run;

import java.util.List;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.table.output.Output;

/**
 * A step prepared for one run: settings checked, columns declared, references loaded. What it holds
 * is shared by all workers and does not change any more; what changes while rows are transformed
 * belongs to a {@link StepWorker}.
 */
public interface PreparedStep {

  /**
   * Makes a worker. May be called by any thread.
   *
   * @param exceptions told about rows that need attention, in row order
   * @return a worker of its own for one thread
   */
  StepWorker worker(Exceptions exceptions);

  /**
   * The figures of what was counted, once all rows have been transformed: the same for any number
   * of workers, and wherever the rows were cut into pieces.
   *
   * @param all a worker to which all others were added
   */
  StepFigures figures(StepWorker all);

  /** Whether the step is about each row, so that a trace tells of it where nothing changed. */
  default boolean aboutRows() {
    return false;
  }

  /** Returns the columns whose values a trace shows beside what the step makes of them. */
  default List<String> inputs() {
    return List.of();
  }

  /**
   * All rows have been transformed: writes what is left of the step's own.
   *
   * @param figures those of this step
   */
  default void finish(StepFigures figures) {}

  /** Returns what the step writes of its own; all of it is written once {@link #finish} was run. */
  default List<Output> outputs() {
    return List.of();
  }

  /** Releases what the step holds; after a failed run, without {@link #finish} before. */
  default void close() {}
}
