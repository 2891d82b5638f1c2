package org.abletwine.lookup;

import java.util.List;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.jspecify.annotations.Nullable;

/**
 * Takes the transactions that reach a lookup, of each only what the lookup needs, and divides them
 * as its reference is divided: the probe side of a partitioned hash join. Each row is kept with its
 * number and its turn among the rows of that number, since a step before may have repeated it.
 */
final class KeyRows implements BatchSink {
  private final PartedRows parts;
  private final int[] keyColumns;
  private final List<List<NormaliseStep>> steps;

  /**
   * @param parts where the rows go
   * @param keyColumns the columns of the equal parts of the key in the batches to come
   * @param steps the normalise steps of each
   */
  KeyRows(PartedRows parts, int[] keyColumns, List<List<NormaliseStep>> steps) {
    this.parts = parts;
    this.keyColumns = keyColumns.clone();
    this.steps = steps;
  }

  @Override
  public Encoder encoder() {
    return new Part();
  }

  private final class Part implements Encoder {
    private final PartedRows.Gathered gathered = parts.new Gathered();
    private final KeyEncoder encoder = new KeyEncoder(keyColumns, steps);
    private final EncodedKeys keys = new EncodedKeys();

    @Override
    public void add(Batch batch, int @Nullable [] rows, int count, int[] columns) {
      encoder.encode(batch, keys);
      CellVector[] cells = new CellVector[columns.length];
      for (int i = 0; i < cells.length; i++) {
        cells[i] = batch.column(columns[i]).asText(new CellVector());
      }
      long turn = 0;
      for (int row = 0; row < count; row++) {
        long number = batch.rowNumber(row);
        turn = row > 0 && number == batch.rowNumber(row - 1) ? turn + 1 : 0;
        int part =
            keys.blankParts[row] != 0
                ? (int) (number % parts.parts())
                : PartedRows.partOf(keys.hashes[row], parts.parts());
        RowBytes into = gathered.row(part, number);
        for (CellVector cell : cells) {
          into.cell(cell, row);
        }
        into.text(turn == 0 ? null : Long.toString(turn));
      }
    }

    @Override
    public void flush() {
      gathered.putOut();
    }
  }

  @Override
  public boolean takesRowsBeforeAFailure() {
    return true;
  }

  @Override
  public boolean looksOnlyAtColumns() {
    return true;
  }

  @Override
  public void start(Table source, Schema columns) {
    // the files are there
  }

  @Override
  public void write(Batch batch, int[] columns) {
    throw new IllegalStateException("rows come by way of encoders");
  }

  @Override
  public void commit() {
    // nothing to put in place
  }

  @Override
  public void close() {
    // the files belong to the run
  }
}
