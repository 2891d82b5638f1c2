package org.abletwine.step.run;

import java.io.DataInput;
import java.time.Instant;
import java.util.function.Consumer;

/** The rows of a run that other processes have taken through the steps, part by part. */
public interface TakenElsewhere {

  /** Returns when the first of them began. */
  Instant started();

  /**
   * Goes through what was counted.
   *
   * @param part takes what the process of each part has handed on, in the order of the rows
   * @throws org.abletwine.table.DataException what ended the run for one of them, the first
   */
  void each(Consumer<DataInput> part);
}
