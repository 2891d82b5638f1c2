package org.abletwine.derive;

import org.abletwine.figures.StepFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.carry.Carrier;

/** A step that only changes which columns are asked for, in which order and by which name. */
final class NamesOnly implements PreparedStep {
  private final StepFigures.Columns figures;

  NamesOnly(StepFigures.Columns figures) {
    this.figures = figures;
  }

  @Override
  public StepWorker worker(Exceptions exceptions) {
    return new Nothing();
  }

  private static final class Nothing implements StepWorker {
    @Override
    public void apply(Batch batch) {
      // the rows stay as they are
    }

    @Override
    public void merge(StepWorker other) {
      // nothing is counted
    }

    @Override
    public void carry(Carrier carrier) {
      // nothing is counted
    }
  }

  @Override
  public StepFigures.Columns figures(StepWorker all) {
    return figures;
  }
}
