package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/** Gathers the distinct keys of rows, with how many rows have each. For one thread. */
final class KeysGathered {
  /** Keys whose places in the index are brought near together. */
  private static final int AT_ONCE = 512;

  /** About how many bytes a total takes. */
  private static final int SUM_BYTES = 80;

  private final int[] columns;
  private final int measure;
  private final List<BigDecimal> sums = new ArrayList<>();
  private final RowStore store;
  private final HashIndex index;
  private final CellVector[] cells;
  private long[] counts = new long[64];
  private long[] firstRows = new long[64];
  private long notNumbers;

  @SuppressWarnings("unused") // keeps the loads it stands for
  private long touched;

  /**
   * @param columns the columns of the key in the batches to come
   * @param measure a column to total by key, or -1
   */
  KeysGathered(int[] columns, int measure) {
    this.columns = columns.clone();
    this.measure = measure;
    store = new RowStore(columns.length);
    index = new HashIndex(store);
    cells = new CellVector[columns.length];
  }

  /** Takes rows; those with a blank key are passed over. */
  void take(Batch batch, EncodedKeys encoded) {
    Arrays.setAll(cells, part -> batch.column(columns[part]));
    for (int row = 0; row < batch.rows(); row++) {
      if (row % AT_ONCE == 0) {
        touched = index.touch(encoded, row, Math.min(row + AT_ONCE, batch.rows()));
      }
      if (encoded.blankParts[row] != 0) {
        continue;
      }
      int place = index.find(encoded, row);
      int key = place == HashIndex.ABSENT ? store.rows() : index.rowAt(place);
      if (key == store.rows()) {
        if (key == counts.length) {
          counts = Arrays.copyOf(counts, key * 2);
          firstRows = Arrays.copyOf(firstRows, key * 2);
        }
        store.add(cells, row, encoded);
        index.add(encoded, row, key);
        firstRows[key] = batch.rowNumber(row);
      }
      counts[key]++;
      if (measure >= 0) {
        addMeasure(key, batch.column(measure).get(row));
      }
    }
  }

  private void addMeasure(int key, @Nullable String value) {
    if (key == sums.size()) {
      sums.add(BigDecimal.ZERO);
    }
    BigDecimal number = value == null ? null : DecimalText.read(value);
    if (number != null) {
      sums.set(key, sums.get(key).add(number));
    }
    notNumbers += value != null && number == null ? 1 : 0;
  }

  /** How many keys there are. */
  int size() {
    return store.rows();
  }

  /** Values of the measure that are no numbers, and so are left out of the totals. */
  long notNumbers() {
    return notNumbers;
  }

  /** The memory held, about. */
  long bytes() {
    return store.bytes() + index.bytes() + 16L * counts.length + (long) SUM_BYTES * sums.size();
  }

  /** The first row of a key, 1-based. Keys are numbered from 0 in the order of their first row. */
  long firstRow(int key) {
    return firstRows[key];
  }

  /** Writes a key down, as {@link DistinctKeys} reads it. */
  void write(int key, RowBytes into) {
    for (int part = 0; part < columns.length; part++) {
      into.text(store.get(key, part));
    }
    into.text(Long.toString(counts[key]));
    into.text(Long.toString(firstRows[key]));
    into.text(measure < 0 ? null : sums.get(key).toString());
  }
}
