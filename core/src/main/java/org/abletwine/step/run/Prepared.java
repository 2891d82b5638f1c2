package org.abletwine.step.run;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.table.output.Output;

/**
 * A prepared step whose workers count each for itself and are added up at the end.
 *
 * @param <W> its workers
 */
public final class Prepared<W extends StepWorker> implements PreparedStep {
  private final Function<Exceptions, W> make;
  private final Function<W, StepFigures> sum;
  private List<String> inputs = List.of();
  private boolean aboutRows;
  private final List<Output> outputs = new ArrayList<>();

  /**
   * @param make makes a worker
   * @param sum the figures of a worker to which all others were added
   */
  public Prepared(Function<Exceptions, W> make, Function<W, StepFigures> sum) {
    this.make = make;
    this.sum = sum;
  }

  /**
   * A step that tells nobody about single rows.
   *
   * @param make makes a worker
   * @param sum the figures of a worker to which all others were added
   */
  public static <W extends StepWorker> Prepared<W> of(
      Supplier<W> make, Function<W, StepFigures> sum) {
    return new Prepared<>(exceptions -> make.get(), sum);
  }

  /** States that the step is {@linkplain PreparedStep#aboutRows about each row}. */
  public Prepared<W> ofRows() {
    aboutRows = true;
    return this;
  }

  /**
   * States what the step writes of its own.
   *
   * @param own closed with the step
   */
  public Prepared<W> writing(Output own) {
    outputs.add(own);
    return this;
  }

  /**
   * States the columns whose values a trace shows.
   *
   * @param columns their names
   * @return this
   */
  public Prepared<W> lookingAt(List<String> columns) {
    inputs = List.copyOf(columns);
    return this;
  }

  @Override
  public List<String> inputs() {
    return inputs;
  }

  @Override
  public boolean aboutRows() {
    return aboutRows;
  }

  @Override
  public List<Output> outputs() {
    return List.copyOf(outputs);
  }

  @Override
  public void close() {
    outputs.forEach(Output::close);
  }

  @Override
  public W worker(Exceptions exceptions) {
    return make.apply(exceptions);
  }

  @Override
  @SuppressWarnings("unchecked") // workers of this step are made here
  public StepFigures figures(StepWorker all) {
    return sum.apply((W) all);
  }
}
