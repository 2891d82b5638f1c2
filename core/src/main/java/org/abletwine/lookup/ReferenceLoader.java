package org.abletwine.lookup;

import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;
import org.abletwine.expression.Condition;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.key.NormaliseStep;
import org.abletwine.step.Progress;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.DataException;
import org.abletwine.table.ReadAhead;
import org.abletwine.table.Schema;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Reads a reference once and builds what a lookup needs of it. */
final class ReferenceLoader {
  private static final Logger LOG = LoggerFactory.getLogger(ReferenceLoader.class);

  private static final CellVector[] NO_CELLS = {};

  private final Lookup lookup;
  private final int[] kept;
  private final KeyEncoder encoder;
  private final EncodedKeys keys = new EncodedKeys();
  private final RowStore rows;
  private final HashIndex index;
  private final LoadedReference.LeftOut leftOut = LoadedReference.LeftOut.none();
  private final RowNumbers numbers = new RowNumbers();
  private long blankKeys;

  private ReferenceLoader(Lookup lookup) {
    this.lookup = lookup;
    Schema schema = lookup.reference.schema();
    // Brought columns first, then the key as written; all others only for rules that look at them.
    IntStream.Builder columns = IntStream.builder();
    lookup.bring.forEach(attribute -> columns.add(schema.indexOf(attribute.source())));
    lookup.key.forEach(part -> columns.add(schema.indexOf(part.theirs())));
    switch (lookup.duplicates.rule()) {
      case FULLEST, IDENTICAL -> IntStream.range(0, schema.size()).forEach(columns::add);
      case NEWEST_BY -> columns.add(schema.indexOf(String.valueOf(lookup.duplicates.column())));
      default -> {}
    }
    kept = columns.build().toArray();
    int[] keyColumns = lookup.key.stream().map(KeyPart::theirs).mapToInt(schema::indexOf).toArray();
    encoder = new KeyEncoder(keyColumns, stepsOf(lookup));
    rows = new RowStore(kept.length);
    index = new HashIndex(rows);
  }

  static LoadedReference load(Lookup lookup, Progress progress) {
    return new ReferenceLoader(lookup).read(progress);
  }

  private LoadedReference read(Progress progress) {
    AtomicLong done = new AtomicLong();
    Runnable ended = () -> {};
    try (ReadAhead reading = new ReadAhead(lookup.reference)) {
      ended = progress.reading(lookup.reference, reading::bytesRead, done::get);
      for (Batch batch = reading.next(); batch != null; batch = reading.next()) {
        take(batch);
        done.addAndGet(batch.rows());
        reading.recycle(batch);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new DataException("reading " + lookup.reference.name() + " was interrupted", e);
    } finally {
      ended.run();
    }
    LOG.debug(
        "{}: {} rows, {} keys, {} bytes",
        lookup.reference.name(),
        rows.rows(),
        index.keys(),
        rows.bytes() + index.bytes());
    return LoadedReference.of(lookup, rows, index, blankKeys, leftOut, kept, numbers);
  }

  private void take(Batch batch) {
    encoder.encode(batch, keys);
    if (rows.rows() == 0 && batch.rows() > 0) {
      index.expect(lookup.reference.sizeInBytes() / Math.max(1, batch.used() / batch.rows()));
    }
    CellVector[] all = new CellVector[batch.baseColumns()];
    CellVector[] cells = new CellVector[kept.length];
    for (int cell = 0; cell < kept.length; cell++) {
      cells[cell] = batch.column(kept[cell]);
    }
    Condition where = lookup.where;
    if (where != null) {
      where.columns().forEach(column -> all[column] = batch.column(column));
    }
    for (int row = 0; row < batch.rows(); row++) {
      boolean passes = where == null || where.passes(all, row);
      RowStore store = passes ? rows : leftOut.rows();
      int number = store.rows();
      store.add(passes ? cells : NO_CELLS, row, keys);
      if (passes) {
        numbers.add(batch.rowNumber(row));
      }
      if (keys.blankParts[row] == 0) {
        (passes ? index : leftOut.index()).add(keys, row, number);
      } else if (passes) {
        blankKeys++;
      }
    }
  }

  /** The normalise steps of each key part. */
  static List<List<NormaliseStep>> stepsOf(Lookup lookup) {
    return lookup.key.stream()
        .map(part -> part.normalise() == null ? lookup.normalise : part.normalise())
        .toList();
  }
}
