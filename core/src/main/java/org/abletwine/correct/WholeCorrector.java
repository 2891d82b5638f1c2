package org.abletwine.correct;

import java.util.List;
import java.util.function.Supplier;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;

/**
 * Replaces whole values: the listed values stand in an index, cells are probed a batch at a time.
 */
final class WholeCorrector extends Corrector {
  private final int column;
  private final String[] ends;
  private final KeyEncoder encoder;
  private final EncodedKeys keys = new EncodedKeys();
  private final HashIndex index;
  private int[] found = new int[0];

  private WholeCorrector(
      Correction correction, int column, CorrectionList list, String[] ends, HashIndex index) {
    super(list);
    this.column = column;
    this.ends = ends;
    this.index = index;
    this.encoder = new KeyEncoder(new int[] {column}, List.of(correction.normalise()));
  }

  /** Puts the lines in an index, which the correctors made share. */
  static Supplier<Corrector> maker(Correction correction, int column, CorrectionList list) {
    String[] ends = list.ends();
    RowStore store = new RowStore(0);
    HashIndex index = new HashIndex(store);
    EncodedKeys keys = new EncodedKeys();
    KeyEncoder listed = new KeyEncoder(new int[] {0}, List.of(correction.normalise()));
    for (int line = 0; line < ends.length; line++) {
      listed.encode(OneRow.of(list.lines().get(line).written()), keys);
      store.add(new CellVector[0], 0, keys);
      if (keys.blankParts[0] == 0) {
        index.add(keys, 0, line);
      }
    }
    return () -> new WholeCorrector(correction, column, list, ends, index);
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
        uses[line]++;
        changed++;
        target.append(ends[line]);
      } else {
        target.appendAsCame(batch, column, row);
      }
    }
  }
}
