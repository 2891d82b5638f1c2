package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.concurrent.atomic.LongAdder;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.match.index.ValuesSeen;
import org.abletwine.step.Progress;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.SpilledTable;

/**
 * A reference that does not fit in memory, divided by the hash of its keys into parts that do: the
 * build side of a partitioned hash join (Kitsuregawa, Tanaka and Moto-oka 1983, "Application of
 * hash to data base machine and its architecture"; as GRACE). Rows of one key are in one part, in
 * the order of the table. It costs one reading and one writing of the columns that are looked at;
 * rows without a key are in the first part.
 *
 * @param table the reference
 * @param parts its rows
 * @param kept the columns that are kept of it, ascending
 * @param values what the values are that rules compare
 */
record LargeReference(Table table, PartedRows parts, int[] kept, Values values) implements Held {
  /**
   * What the values are that rules compare, for each rule: all parts must compare alike.
   *
   * @param kept of rows that the reference's condition lets pass
   * @param leftOut of the others
   */
  record Values(List<ValuesSeen> kept, List<ValuesSeen> leftOut) {
    static Values none(Lookup lookup) {
      List<ValuesSeen> kept = new ArrayList<>();
      List<ValuesSeen> leftOut = new ArrayList<>();
      for (int rule : KeyLayout.of(lookup).rules()) {
        KeyPart part = lookup.key.get(rule);
        kept.add(new ValuesSeen(lookup.reference.type(part.theirs())));
        leftOut.add(new ValuesSeen(lookup.reference.type(part.theirs())));
      }
      return new Values(kept, leftOut);
    }

    void merge(Values other) {
      for (int rule = 0; rule < kept.size(); rule++) {
        kept.get(rule).merge(other.kept.get(rule));
        leftOut.get(rule).merge(other.leftOut.get(rule));
      }
    }
  }

  /** A part of the reference, as a table. */
  Table part(int part) {
    return new SpilledTable(parts.file(part), parts.rows(part), table, kept);
  }

  /**
   * Divides a reference.
   *
   * @param lookup whose keys it is divided by
   * @param looked the columns that are looked at
   * @param count how many parts
   */
  static LargeReference of(
      Lookup lookup, BitSet looked, int count, Spill spill, Progress progress, int workers) {
    Table table = lookup.reference;
    spill.requireRoom(table.sizeInBytes(), table.name());
    PartedRows parts = new PartedRows(spill, count);
    int[] kept = looked.stream().toArray();
    LongAdder done = new LongAdder();
    List<Divider> dividers = new ArrayList<>();
    table.readAgain();
    try (Pieces pieces = BatchTable.of(table).pieces(table.schema().size(), null, looked)) {
      Runnable ended = progress.reading(table, pieces::bytesRead, done::sum);
      try {
        Workers.run(
            pieces,
            workers,
            false,
            () -> {
              Divider divider = new Divider(lookup, parts, kept, done);
              dividers.add(divider);
              return divider;
            });
      } finally {
        ended.run();
      }
    }
    Values values = Values.none(lookup);
    dividers.forEach(divider -> values.merge(divider.values.values()));
    return new LargeReference(table, parts, kept, values);
  }

  /** One worker's part of dividing. */
  private static final class Divider implements Workers.Worker {
    private final PartedRows parts;
    private final PartedRows.Gathered gathered;
    private final int[] kept;
    private final LongAdder done;
    private final KeyEncoder encoder;
    private final EncodedKeys keys = new EncodedKeys();
    private final ValuesLooked values;

    Divider(Lookup lookup, PartedRows parts, int[] kept, LongAdder done) {
      this.parts = parts;
      this.kept = kept;
      this.done = done;
      gathered = parts.new Gathered();
      KeyLayout layout = KeyLayout.of(lookup);
      int[] columns =
          layout.theirs(lookup).stream().mapToInt(lookup.reference.schema()::indexOf).toArray();
      int equal = layout.equal().length;
      encoder = new KeyEncoder(Arrays.copyOf(columns, equal), layout.equalSteps(lookup));
      values = new ValuesLooked(lookup, layout, columns);
    }

    @Override
    public void work(Batch batch) {
      encoder.encode(batch, keys);
      values.look(batch, keys);
      for (int row = 0; row < batch.rows(); row++) {
        int part =
            keys.blankParts[row] != 0 ? 0 : PartedRows.partOf(keys.hashes[row], parts.parts());
        RowBytes into = gathered.row(part, batch.rowNumber(row));
        for (int column : kept) {
          into.cell(batch.column(column), row);
        }
      }
      done.add(batch.rows());
    }

    @Override
    public boolean inOrder() {
      gathered.putOut();
      return true;
    }
  }
}
