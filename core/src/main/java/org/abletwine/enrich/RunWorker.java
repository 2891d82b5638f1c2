package org.abletwine.enrich;

import java.util.List;
import java.util.concurrent.atomic.LongAdder;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.Workers;
import org.jspecify.annotations.Nullable;

/** One worker of a run: takes rows through its own part of each step. Belongs to one thread. */
final class RunWorker implements Workers.Worker {
  private final List<StepWorker> steps;
  private final @Nullable InRowOrder exceptions;
  private final BatchSink.Encoder encoder;
  private final boolean rowsBeforeAFailure;
  private final int[] columns;
  private final long mostRows;
  private final Counted counted;
  private long taken;

  /**
   * Rows counted by all workers together.
   *
   * @param in rows read
   * @param out rows that came out
   */
  record Counted(LongAdder in, LongAdder out) {}

  RunWorker(
      List<StepWorker> steps,
      @Nullable InRowOrder exceptions,
      BatchSink sink,
      int[] columns,
      long mostRows,
      Counted counted) {
    this.steps = steps;
    this.exceptions = exceptions;
    this.encoder = sink.encoder();
    this.rowsBeforeAFailure = sink.takesRowsBeforeAFailure();
    this.columns = columns;
    this.mostRows = mostRows;
    this.counted = counted;
  }

  @Override
  public void work(Batch batch) {
    int count = (int) Math.min(batch.rows(), mostRows - taken);
    if (count < batch.rows()) {
      batch.pick(firstRows(count), count);
    }
    taken += count;
    int[] rows = batch.baseRows();
    try {
      steps.forEach(step -> step.apply(batch));
    } catch (RuntimeException e) {
      throw ofTheFirstRow(batch, rows, count, e);
    }
    encoder.add(batch, null, batch.rows(), columns);
    counted.in.add(count);
    counted.out.add(batch.rows());
  }

  /**
   * A step takes all rows of a batch before the next step does, so what failed first may be of a
   * later row. The rows are taken once more, one by one, up to the first that fails.
   */
  private RuntimeException ofTheFirstRow(
      Batch batch, int @Nullable [] rows, int count, RuntimeException met) {
    for (int row = 0; row < count; row++) {
      batch.asItWas(rows);
      batch.pick(new int[] {row}, 1);
      try {
        steps.forEach(step -> step.apply(batch));
      } catch (RuntimeException e) {
        return e;
      }
      if (rowsBeforeAFailure) {
        encoder.add(batch, null, batch.rows(), columns);
      }
    }
    return met;
  }

  private static int[] firstRows(int count) {
    int[] rows = new int[count];
    for (int row = 0; row < count; row++) {
      rows[row] = row;
    }
    return rows;
  }

  @Override
  public void failed() {
    if (rowsBeforeAFailure) {
      encoder.flush();
    }
  }

  @Override
  public boolean inOrder() {
    if (exceptions != null) {
      exceptions.tell();
    }
    steps.forEach(StepWorker::inOrder);
    encoder.flush();
    return taken < mostRows;
  }
}
