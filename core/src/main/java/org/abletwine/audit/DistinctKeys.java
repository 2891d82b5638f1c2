package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * The distinct keys of a table as written, with how many rows have each. Numbered from 0 in the
 * order of their first row. Memory follows the distinct keys, not the rows.
 */
final class DistinctKeys {
  /** Keys whose places in the index are brought near together. */
  private static final int AT_ONCE = 512;

  private final int parts;
  private final int measure;
  private final boolean[] hidden;
  private final List<BigDecimal> sums = new ArrayList<>();
  private final RowStore store;
  private final HashIndex index;
  private long[] counts = new long[64];
  private long[] firstRows = new long[64];
  private final List<Batch> batches = new ArrayList<>();
  private long rows;
  private long blankRows;
  private long notNumbers;

  @SuppressWarnings("unused") // keeps the loads it stands for
  private long touched;

  private DistinctKeys(int parts, int measure, boolean[] hidden) {
    this.hidden = hidden;
    this.measure = measure;
    this.parts = parts;
    this.store = new RowStore(parts);
    this.index = new HashIndex(store);
  }

  /**
   * Reads a table once.
   *
   * @param columns the key columns
   * @param measure a column to total by key, or -1
   * @param hidden for each part whether its values are private
   */
  static DistinctKeys read(Table table, int[] columns, int measure, boolean[] hidden) {
    DistinctKeys keys = new DistinctKeys(columns.length, measure, hidden);
    CellVector[] cells = new CellVector[columns.length];
    KeyedRows.each(
        table,
        columns,
        unnormalised(columns.length),
        measure + 1,
        null,
        (batch, encoded) -> {
          Arrays.setAll(cells, part -> batch.column(columns[part]));
          keys.take(batch, encoded, cells);
          return true;
        });
    return keys;
  }

  private static List<List<NormaliseStep>> unnormalised(int parts) {
    List<List<NormaliseStep>> steps = new ArrayList<>();
    for (int part = 0; part < parts; part++) {
      steps.add(List.of());
    }
    return steps;
  }

  private void take(Batch batch, EncodedKeys encoded, CellVector[] cells) {
    for (int row = 0; row < batch.rows(); row++) {
      if (row % AT_ONCE == 0) {
        touched = index.touch(encoded, row, Math.min(row + AT_ONCE, batch.rows()));
      }
      rows++;
      if (encoded.blankParts[row] != 0) {
        blankRows++;
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

  /** The measure's total over a key's rows, exact; null when nothing is measured. */
  @Nullable BigDecimal sum(int key) {
    return measure < 0 ? null : sums.get(key);
  }

  /** Values of the measure that are no numbers, and so are left out of the totals. */
  long notNumbers() {
    return notNumbers;
  }

  int size() {
    return store.rows();
  }

  int parts() {
    return parts;
  }

  long rows() {
    return rows;
  }

  long blankRows() {
    return blankRows;
  }

  long count(int key) {
    return counts[key];
  }

  long firstRow(int key) {
    return firstRows[key];
  }

  /** A key as a reader is shown it. */
  String shown(int key) {
    StringBuilder text = new StringBuilder();
    for (int part = 0; part < parts; part++) {
      String value = Veil.over(hidden[part], store.get(key, part));
      text.append(part == 0 ? "" : " | ").append(value);
    }
    return text.toString();
  }

  String part(int key, int part) {
    return String.valueOf(store.get(key, part));
  }

  /** Puts all keys through steps, some thousand at a time. */
  void forEachBatch(List<NormaliseStep> steps, Normalised to) {
    List<List<NormaliseStep>> perPart = new ArrayList<>();
    int[] columns = new int[parts];
    for (int part = 0; part < parts; part++) {
      perPart.add(steps);
      columns[part] = part;
    }
    KeyEncoder encoder = new KeyEncoder(columns, perPart);
    EncodedKeys encoded = new EncodedKeys();
    int from = 0;
    for (Batch batch : batches()) {
      encoder.encode(batch, encoded);
      to.take(encoded, from);
      from += batch.rows();
    }
  }

  /** The keys as batches, made once: they are put through many steps. */
  private List<Batch> batches() {
    if (batches.isEmpty()) {
      for (int from = 0; from < size(); from += Batch.ROWS) {
        Batch batch = new Batch(parts);
        batch.clear(from + 1L, '\0');
        for (int key = from; key < Math.min(size(), from + Batch.ROWS); key++) {
          for (int part = 0; part < parts; part++) {
            batch.addCell(store.get(key, part));
          }
          batch.endRow();
        }
        batches.add(batch);
      }
    }
    return batches;
  }

  /** Takes normalised keys: the first of the batch is key number {@code from}. */
  interface Normalised {
    void take(EncodedKeys encoded, int from);
  }
}
