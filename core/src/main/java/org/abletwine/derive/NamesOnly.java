package org.abletwine.derive;

import org.abletwine.figures.ColumnFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.StepWorker;

/** A step that only changes which columns are asked for, in which order and by which name. */
final class NamesOnly implements PreparedStep {
  private final ColumnFigures figures;

  NamesOnly(ColumnFigures figures) {
    this.figures = figures;
  }

  @Override
  public StepWorker worker(Exceptions exceptions) {
    return batch -> {
      // the rows stay as they are
    };
  }

  @Override
  public ColumnFigures figures() {
    return figures;
  }
}
