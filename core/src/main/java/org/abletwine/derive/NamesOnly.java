package org.abletwine.derive;

import org.abletwine.figures.StepFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.StepWorker;

/** A step that only changes which columns are asked for, in which order and by which name. */
final class NamesOnly implements PreparedStep {
  private final StepFigures.Columns figures;

  NamesOnly(StepFigures.Columns figures) {
    this.figures = figures;
  }

  @Override
  public StepWorker worker(Exceptions exceptions) {
    return batch -> {
      // the rows stay as they are
    };
  }

  @Override
  public StepFigures.Columns figures() {
    return figures;
  }
}
