package org.abletwine.lookup;

import java.util.List;
import java.util.function.Function;
import org.abletwine.figures.StepFigures;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.PartedRows;

/**
 * Traces a row through a lookup whose reference does not fit in memory: the part that its key
 * belongs to is loaded once the row is there. For one row, by one thread.
 */
final class TracedPart implements PreparedStep, StepWorker {
  private final LargeReference large;
  private final KeyEncoder encoder;
  private final Function<Asked, StepWorker> worker;
  private final AskedParts parts;
  private final int[] keyColumns;

  /**
   * What a row is asked of.
   *
   * @param part the number of the part
   * @param known which parts of the row's key the whole reference knows
   */
  record Asked(int part, KnownParts known) {}

  /**
   * @param keyColumns the columns of the lookup's key in the batch
   * @param worker makes a worker of the lookup over one part of its reference
   */
  TracedPart(
      Lookup lookup, LargeReference large, int[] keyColumns, Function<Asked, StepWorker> worker) {
    this.large = large;
    this.worker = worker;
    this.keyColumns = keyColumns.clone();
    KeyLayout layout = KeyLayout.of(lookup);
    int[] equal = new int[layout.equal().length];
    for (int i = 0; i < equal.length; i++) {
      equal[i] = keyColumns[layout.equal()[i]];
    }
    encoder = new KeyEncoder(equal, layout.equalSteps(lookup));
    parts = new AskedParts(lookup);
  }

  @Override
  public StepWorker worker(Exceptions exceptions) {
    return this;
  }

  @Override
  public void apply(Batch batch) {
    EncodedKeys keys = new EncodedKeys();
    encoder.encode(batch, keys);
    boolean blank = keys.blankParts[0] != 0;
    int part = blank ? 0 : PartedRows.partOf(keys.hashes[0], large.parts().size());
    if (parts.tells()) {
      parts.of(batch, 0, keyColumns);
    }
    worker.apply(new Asked(part, parts.found(large))).apply(batch);
  }

  @Override
  public StepFigures figures(StepWorker all) {
    throw new IllegalStateException("a trace counts nothing");
  }

  @Override
  public void merge(StepWorker other) {
    throw new IllegalStateException("a trace counts nothing");
  }

  @Override
  public void carry(Carrier carrier) {
    throw new IllegalStateException("a trace counts nothing");
  }

  @Override
  public boolean aboutRows() {
    return true;
  }

  @Override
  public List<String> inputs() {
    return List.of();
  }
}
