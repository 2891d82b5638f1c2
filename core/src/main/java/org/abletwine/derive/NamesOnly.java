package org.abletwine.derive;

import org.abletwine.figures.ColumnFigures;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;

/** A step that only changes which columns are asked for, in which order and by which name. */
final class NamesOnly implements StepRunner {
  private final ColumnFigures figures;

  NamesOnly(ColumnFigures figures) {
    this.figures = figures;
  }

  @Override
  public boolean mayRunWithWriting() {
    return true;
  }

  @Override
  public void apply(Batch batch) {
    // the rows stay as they are
  }

  @Override
  public ColumnFigures figures() {
    return figures;
  }
}
