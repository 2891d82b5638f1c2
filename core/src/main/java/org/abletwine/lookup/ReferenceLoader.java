package org.abletwine.lookup;

import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
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

  private ReferenceLoader() {}

  static LoadedReference load(Lookup lookup, Progress progress) {
    Schema schema = lookup.reference.schema();
    int[] kept =
        java.util.stream.Stream.concat(
                lookup.bring.stream().map(Attribute::source),
                lookup.key.stream().map(KeyPart::theirs))
            .mapToInt(schema::indexOf)
            .toArray();
    int[] keyColumns = lookup.key.stream().map(KeyPart::theirs).mapToInt(schema::indexOf).toArray();
    KeyEncoder encoder = new KeyEncoder(keyColumns, stepsOf(lookup));
    RowStore rows = new RowStore(kept.length);
    HashIndex index = new HashIndex(rows);
    long blankKeys = 0;
    AtomicLong done = new AtomicLong();
    Runnable ended = () -> {};
    try (ReadAhead reading = new ReadAhead(lookup.reference)) {
      ended = progress.reading(lookup.reference, reading::bytesRead, done::get);
      EncodedKeys keys = new EncodedKeys();
      CellVector[] cells = new CellVector[kept.length];
      for (Batch batch = reading.next(); batch != null; batch = reading.next()) {
        encoder.encode(batch, keys);
        for (int cell = 0; cell < kept.length; cell++) {
          cells[cell] = batch.column(kept[cell]);
        }
        for (int row = 0; row < batch.rows(); row++) {
          int number = rows.rows();
          rows.add(cells, row, keys);
          if (keys.blankParts[row] != 0) {
            blankKeys++;
          } else {
            index.add(keys, row, number);
          }
        }
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
    return LoadedReference.of(
        lookup.reference.name(), rows, index, blankKeys, lookup.several, lookup.bring.size());
  }

  /** The normalise steps of each key part. */
  static List<List<NormaliseStep>> stepsOf(Lookup lookup) {
    return lookup.key.stream()
        .map(part -> part.normalise() == null ? lookup.normalise : part.normalise())
        .toList();
  }
}
