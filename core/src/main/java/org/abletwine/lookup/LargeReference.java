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
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.SpilledTable;
import org.abletwine.table.spill.Stored;

/**
 * A reference that does not fit in memory, divided by the hash of its keys into parts that do: the
 * build side of a partitioned hash join (Kitsuregawa, Tanaka and Moto-oka 1983, "Application of
 * hash to data base machine and its architecture"; as GRACE). Rows of one key are in one part, in
 * the order of the table. It costs one reading and one writing of the columns that are looked at;
 * rows without a key are in the first part.
 *
 * @param table the reference
 * @param parts its rows, part by part; what is not looked at is null in them
 * @param bytes what they take on disk
 * @param values what the values are that rules compare
 */
record LargeReference(Table table, List<Table> parts, long bytes, Values values) implements Held {
  /** Copies the list. */
  LargeReference {
    parts = List.copyOf(parts);
  }

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

    /** Carries what was counted to another process, or takes it from there in place of nothing. */
    void carry(Carrier carrier) {
      kept.forEach(rule -> rule.carry(carrier));
      leftOut.forEach(rule -> rule.carry(carrier));
    }

    void merge(Values other) {
      for (int rule = 0; rule < kept.size(); rule++) {
        kept.get(rule).merge(other.kept.get(rule));
        leftOut.get(rule).merge(other.leftOut.get(rule));
      }
    }
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
    PartedRows rows = new PartedRows(spill, count);
    table.readAgain();
    Values values = divide(lookup, table, looked, rows, progress, workers);
    List<Table> parts = new ArrayList<>();
    for (int part = 0; part < count; part++) {
      parts.add(part(rows.stored(part), table, looked));
    }
    return new LargeReference(table, parts, rows.bytes(), values);
  }

  /**
   * A part of a reference.
   *
   * @param rows its rows
   * @param table the reference
   * @param looked the columns that they have
   */
  static Table part(Stored rows, Table table, BitSet looked) {
    return new SpilledTable(rows, table, looked.stream().toArray());
  }

  /**
   * Divides rows of a reference.
   *
   * @param lookup whose keys they are divided by
   * @param table the rows
   * @param looked the columns that are looked at
   * @param parts where they go
   * @return what the values are that rules compare
   */
  static Values divide(
      Lookup lookup, Table table, BitSet looked, PartedRows parts, Progress progress, int workers) {
    int[] kept = looked.stream().toArray();
    LongAdder done = new LongAdder();
    List<Divider> dividers = new ArrayList<>();
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
    return values;
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
