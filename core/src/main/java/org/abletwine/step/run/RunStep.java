package org.abletwine.step.run;

import java.util.List;
import org.abletwine.step.Step;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** A step as the engine takes it: every step is one. Immutable and safe to share. */
public interface RunStep extends Step {

  /**
   * Prepares the step for one run: checks its settings against the columns so far, declares the
   * columns it adds, and loads what it needs.
   *
   * @param columns the columns so far; the step adds its own
   * @param context told about tables being read and rows that need attention
   * @return the prepared step, for one run
   * @throws org.abletwine.table.SettingException when a setting does not fit the columns
   * @throws org.abletwine.table.DataException when a reference cannot be read
   */
  PreparedStep prepare(Columns columns, RunContext context);

  /**
   * Checks the step's settings against the columns so far and the heads of its references, without
   * reading rows of references that may be large, and declares the columns it adds.
   *
   * @param columns the columns so far; the step adds its own
   * @throws org.abletwine.table.SettingException when a setting does not fit
   */
  void check(Columns columns);

  /** Returns how processes divide the references among them; null for a step without. */
  default @Nullable Exchanging exchanging() {
    return null;
  }

  /** Returns the references that the step reads. */
  default List<Table> references() {
    return List.of();
  }
}
