package org.abletwine.key.encode;

import java.util.Arrays;
import java.util.List;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.ByteHash;
import org.abletwine.table.text.ShortCopy;

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

  /** The slices of a part before its steps, to tell what they changed. */
  private int[] starts = new int[0];

  private int[] ends = new int[0];

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
    int most = parts.length * rows;
    for (int part = 0; part < parts.length; part++) {
      CellVector cells = parts[part];
      batch.copySlices(cells, columns[part]);
      if (steps[part].length > 0) {
        normalise(steps[part], cells, keys.changed, rows);
      }
      for (int row = 0; row < rows; row++) {
        most += cells.ends[row] - cells.starts[row];
      }
    }
    keys.ensureBytes(most);
    if (parts.length == 1) {
      encodeOne(parts[0], keys, rows);
    } else {
      encodeParts(keys, rows);
    }
    hash(keys);
  }

  private void normalise(NormaliseStep[] toApply, CellVector cells, boolean[] changed, int rows) {
    if (starts.length < rows) {
      starts = new int[rows];
      ends = new int[rows];
    }
    byte[] text = cells.text;
    System.arraycopy(cells.starts, 0, starts, 0, rows);
    System.arraycopy(cells.ends, 0, ends, 0, rows);
    for (NormaliseStep step : toApply) {
      CellsStep.apply(step, cells, rows);
    }
    boolean sameText = text == cells.text;
    for (int row = 0; row < rows; row++) {
      boolean samePlace = starts[row] == cells.starts[row] && ends[row] == cells.ends[row];
      changed[row] |=
          !(sameText && samePlace
              || starts[row] < 0
              || Arrays.equals(
                  text, starts[row], ends[row], cells.text, cells.starts[row], cells.ends[row]));
    }
  }

  private static void hash(EncodedKeys keys) {
    int start = keys.ends[0];
    for (int row = 0; row < keys.rows(); row++) {
      int end = keys.ends[row + 1];
      keys.hashes[row] = (int) (ByteHash.of(keys.bytes, start, end) >>> 32);
      start = end;
    }
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
        at = copy(cells.text, start, end, bytes, at);
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
          at = copy(cells.text, start, end, bytes, at);
        }
      }
      keys.ends[row + 1] = at;
    }
  }

  private static int copy(byte[] text, int start, int end, byte[] bytes, int to) {
    ShortCopy.copy(text, start, end - start, bytes, to);
    return to + end - start;
  }
}
