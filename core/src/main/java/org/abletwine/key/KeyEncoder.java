package org.abletwine.key;

import java.util.List;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;

/**
 * Turns the key columns of a batch into comparison bytes: takes the slices, applies each part's
 * normalise steps to the whole column, encodes row by row, hashes. Holds scratch space: one encoder
 * per thread.
 */
public final class KeyEncoder {
  private static final byte PART_END = (byte) 0xFF;

  private final int[] columns;
  private final NormaliseStep[][] steps;
  private final CellVector[] parts;

  /**
   * @param columns the key columns' numbers in the batches to come
   * @param steps for each key part the steps to apply, in order
   */
  public KeyEncoder(int[] columns, List<List<NormaliseStep>> steps) {
    if (columns.length != steps.size() || columns.length > 31) {
      throw new IllegalArgumentException("at most 31 key parts, each with its steps");
    }
    this.columns = columns.clone();
    this.steps =
        steps.stream().map(s -> s.toArray(NormaliseStep[]::new)).toArray(NormaliseStep[][]::new);
    this.parts = new CellVector[columns.length];
    for (int part = 0; part < parts.length; part++) {
      parts[part] = new CellVector();
    }
  }

  /**
   * Encodes the keys of every row.
   *
   * @param batch the rows
   * @param keys where the keys go; what it held is gone
   */
  public void encode(Batch batch, EncodedKeys keys) {
    int rows = batch.rows();
    keys.prepare(rows);
    int most = rows;
    for (int part = 0; part < parts.length; part++) {
      CellVector cells = parts[part];
      batch.copySlices(cells, columns[part]);
      for (NormaliseStep step : steps[part]) {
        step.apply(cells, rows);
      }
      if (steps[part].length > 0) {
        noteChanged(batch.column(columns[part]), cells, keys.changed, rows);
      }
      for (int row = 0; row < rows; row++) {
        most += 3 * (cells.ends[row] - cells.starts[row]) + 1;
      }
    }
    keys.ensureBytes(most);
    if (parts.length == 1) {
      encodeOne(parts[0], keys, rows);
    } else {
      encodeParts(keys, rows);
    }
    KeyHash.hashAll(keys);
  }

  private static void noteChanged(
      CellVector before, CellVector after, boolean[] changed, int rows) {
    boolean sameText = before.text == after.text;
    for (int row = 0; row < rows; row++) {
      int start = before.starts[row];
      int end = before.ends[row];
      boolean same =
          sameText
              ? start == after.starts[row] && end == after.ends[row]
              : end - start == after.ends[row] - after.starts[row]
                  && (start < 0 || sameCharacters(before, after, row));
      changed[row] |= !same;
    }
  }

  private static boolean sameCharacters(CellVector one, CellVector other, int row) {
    int at = one.starts[row];
    int to = other.starts[row];
    for (int end = one.ends[row]; at < end; at++, to++) {
      if (one.text[at] != other.text[to]) {
        return false;
      }
    }
    return true;
  }

  private static void encodeOne(CellVector cells, EncodedKeys keys, int rows) {
    byte[] bytes = keys.bytes;
    int at = 0;
    for (int row = 0; row < rows; row++) {
      int start = cells.starts[row];
      int end = cells.ends[row];
      if (start == end) {
        keys.blankParts[row] = 1;
      } else {
        at = encode(cells.text, start, end, bytes, at);
      }
      keys.ends[row + 1] = at;
    }
  }

  private void encodeParts(EncodedKeys keys, int rows) {
    byte[] bytes = keys.bytes;
    int at = 0;
    for (int row = 0; row < rows; row++) {
      for (int part = 0; part < parts.length; part++) {
        CellVector cells = parts[part];
        int start = cells.starts[row];
        int end = cells.ends[row];
        if (part > 0) {
          bytes[at++] = PART_END;
        }
        if (start == end) {
          keys.blankParts[row] |= 1 << part;
        } else {
          at = encode(cells.text, start, end, bytes, at);
        }
      }
      keys.ends[row + 1] = at;
    }
  }

  private static int encode(char[] text, int start, int end, byte[] bytes, int to) {
    int at = to;
    for (int i = start; i < end; i++) {
      char c = text[i];
      if (c >= 0x80) {
        return Utf8.encode(text, i, end, bytes, at);
      }
      bytes[at++] = (byte) c;
    }
    return at;
  }
}
