package org.abletwine.correct;

import java.util.List;
import org.abletwine.figures.CorrectionFigures;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;

/**
 * Replaces whole values: the listed values stand in an index, cells are probed a batch at a time.
 */
final class WholeCorrector implements StepRunner {
  private final Correction correction;
  private final int column;
  private final CorrectionList list;
  private final String[] ends;
  private final KeyEncoder encoder;
  private final EncodedKeys keys = new EncodedKeys();
  private final HashIndex index;
  private int[] found = new int[0];
  private long rows;
  private long changed;

  WholeCorrector(Correction correction, int column, CorrectionList list) {
    this.correction = correction;
    this.column = column;
    this.list = list;
    this.ends = list.ends();
    this.encoder = new KeyEncoder(new int[] {column}, List.of(correction.normalise()));
    RowStore store = new RowStore(0);
    this.index = new HashIndex(store);
    KeyEncoder listed = new KeyEncoder(new int[] {0}, List.of(correction.normalise()));
    for (int line = 0; line < ends.length; line++) {
      listed.encode(Batch.ofOneRow(list.lines().get(line).written()), keys);
      store.add(new CellVector[0], 0, keys);
      if (keys.blankParts[0] == 0) {
        index.add(keys, 0, line);
      }
    }
  }

  @Override
  public void apply(Batch batch) {
    int count = batch.rows();
    rows += count;
    if (found.length < count) {
      found = new int[count];
    }
    encoder.encode(batch, keys);
    index.probe(keys, found);
    CellVector target = batch.addColumn();
    for (int row = 0; row < count; row++) {
      if (found[row] >= 0) {
        int line = index.rowAt(found[row]);
        list.used(line);
        changed++;
        target.append(ends[line]);
      } else {
        target.appendAsCame(batch, column, row);
      }
    }
  }

  @Override
  public CorrectionFigures figures() {
    return list.figures(correction.column(), rows, changed);
  }
}
