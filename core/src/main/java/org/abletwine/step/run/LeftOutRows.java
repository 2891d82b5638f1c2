package org.abletwine.step.run;

import java.util.List;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;

/**
 * Rows that a step takes out of the run and writes to a place of their own, as they are before the
 * step. Shared by the workers of the step, each of which has a part of its own; they are few beside
 * the rows that stay, and are written value by value.
 */
public final class LeftOutRows {
  private final BatchSink sink;
  private final int[] columns;

  /**
   * Begins the table.
   *
   * @param sink where they go
   * @param form the table whose form it takes after
   * @param before the columns before the step
   */
  public LeftOutRows(BatchSink sink, Table form, Columns before) {
    this.sink = sink;
    this.columns = before.numbers();
    before.readAll();
    try {
      sink.typed(before.types());
      sink.start(form, new Schema(List.copyOf(before.names())));
    } catch (RuntimeException e) {
      sink.close();
      throw e;
    }
  }

  /** Returns what is written, to be shown with the run's other outputs. */
  public Output output() {
    return sink;
  }

  /** Returns the part of one worker. */
  public Part part() {
    return new Part(sink.encoder(), columns);
  }

  /** One worker's part. */
  public static final class Part {
    private final BatchSink.Encoder encoder;
    private final int[] columns;

    private Part(BatchSink.Encoder encoder, int[] columns) {
      this.encoder = encoder;
      this.columns = columns;
    }

    /**
     * Takes rows of a batch.
     *
     * @param batch the batch
     * @param rows which of them, 0-based
     * @param count how many
     */
    public void add(Batch batch, int[] rows, int count) {
      encoder.add(batch, rows, count, columns);
    }

    /** Writes the rows taken since the last time; called when it is the worker's turn. */
    public void inOrder() {
      encoder.flush();
    }
  }
}
