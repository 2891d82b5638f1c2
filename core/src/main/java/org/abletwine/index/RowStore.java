package org.abletwine.index;

import java.io.Serializable;
import java.util.Arrays;
import org.abletwine.table.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * Some columns of every row of a reference, packed. Rows are numbered from 0 in file order.
 *
 * <p>A row is its cells one after another: a header (0 for null, else one plus twice the length in
 * bytes, plus one when wide) and the characters, one byte each when all are below U+0100, else two.
 * Fetching a row touches one place in memory, whatever the number of columns. A cell has one
 * encoding only, so equal cells have equal bytes. Filled by one thread; safe to read from many once
 * published.
 */
public final class RowStore implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final int CHUNK_BITS = 14;
  private static final int CHUNK = 1 << CHUNK_BITS;

  private final int cells;
  private final Arena arena = new Arena();
  private int[][] positions = {new int[16]};
  private int rows;
  private transient byte[] scratch = new byte[256];

  /**
   * @param cells how many cells each row has
   */
  public RowStore(int cells) {
    this.cells = cells;
  }

  /** Returns how many rows are held. */
  public int rows() {
    return rows;
  }

  /** Returns the memory held, in bytes. */
  public long bytes() {
    long sum = arena.bytes();
    for (int[] chunk : positions) {
      sum += chunk == null ? 0 : 4L * chunk.length;
    }
    return sum;
  }

  /**
   * Appends one row.
   *
   * @param columns a vector per cell, in cell order
   * @param row the row to take from each vector, 0-based
   */
  public void add(CellVector[] columns, int row) {
    int length = 0;
    for (CellVector column : columns) {
      length = pack(column, row, length);
    }
    int position = arena.allocate(length);
    System.arraycopy(scratch, 0, arena.page(position), Arena.offset(position), length);
    setPosition(rows, position);
    rows++;
  }

  private void setPosition(int row, int position) {
    int chunk = row >>> CHUNK_BITS;
    if (chunk == positions.length) {
      positions = Arrays.copyOf(positions, chunk * 2);
    }
    int[] held = positions[chunk];
    int at = row & CHUNK - 1;
    if (held == null) {
      held = new int[CHUNK];
      positions[chunk] = held;
    } else if (at == held.length) {
      held = Arrays.copyOf(held, at * 2);
      positions[chunk] = held;
    }
    held[at] = position;
  }

  private int pack(CellVector column, int row, int to) {
    int start = column.starts[row];
    int length = column.ends[row] - start;
    if (to + 2 * length + 5 > scratch.length) {
      scratch = Arrays.copyOf(scratch, 2 * (to + 2 * length + 5));
    }
    if (start < 0) {
      scratch[to] = 0;
      return to + 1;
    }
    char[] text = column.text;
    int any = 0;
    for (int i = 0; i < length; i++) {
      any |= text[start + i];
    }
    boolean wide = any >= 0x100;
    int at = Varint.write(scratch, to, 1 + (length << 1 + (wide ? 1 : 0)) + (wide ? 1 : 0));
    if (wide) {
      for (int i = 0; i < length; i++) {
        char c = text[start + i];
        scratch[at++] = (byte) (c >> 8);
        scratch[at++] = (byte) c;
      }
    } else {
      for (int i = 0; i < length; i++) {
        scratch[at++] = (byte) text[start + i];
      }
    }
    return at;
  }

  private int position(int row) {
    return positions[row >>> CHUNK_BITS][row & CHUNK - 1];
  }

  /**
   * Appends a row's first cells to vectors.
   *
   * @param row the row, 0-based
   * @param targets a vector per cell, from the first cell on; null to pass one over
   * @param nulls counts up by one at the cell's place for each null cell appended
   */
  public void fetch(int row, @Nullable CellVector[] targets, long[] nulls) {
    int position = position(row);
    byte[] page = arena.page(position);
    int at = Arena.offset(position);
    for (int cell = 0; cell < targets.length; cell++) {
      int header = Varint.read(page, at);
      at += Varint.size(header);
      int size = header == 0 ? 0 : header - 1 >>> 1;
      CellVector target = targets[cell];
      if (target != null) {
        if (header == 0) {
          target.appendNull();
          nulls[cell]++;
        } else {
          unpack(page, at, size, (header - 1 & 1) != 0, target);
        }
      }
      at += size;
    }
  }

  private static void unpack(byte[] page, int from, int size, boolean wide, CellVector target) {
    if (wide) {
      int to = target.claim(size >> 1);
      char[] text = target.text;
      for (int i = 0; i < size; i += 2) {
        text[to + (i >> 1)] = (char) (page[from + i] << 8 | page[from + i + 1] & 0xFF);
      }
      target.finish(to, to + (size >> 1));
    } else {
      int to = target.claim(size);
      char[] text = target.text;
      for (int i = 0; i < size; i++) {
        text[to + i] = (char) (page[from + i] & 0xFF);
      }
      target.finish(to, to + size);
    }
  }

  /**
   * One cell as text.
   *
   * @param row the row, 0-based
   * @param cell the cell, 0-based
   * @return its text, or null
   */
  public @Nullable String get(int row, int cell) {
    CellVector one = new CellVector();
    one.clear();
    @Nullable CellVector[] targets = new CellVector[cell + 1];
    targets[cell] = one;
    fetch(row, targets, new long[cell + 1]);
    return one.get(0);
  }

  /**
   * Whether two rows agree in their first cells; null agrees with null here.
   *
   * @param one a row, 0-based
   * @param other another row, 0-based
   * @param count how many cells to compare, from the first on
   * @return whether all of them are the same
   */
  public boolean agree(int one, int other, int count) {
    int a = position(one);
    int b = position(other);
    byte[] pageA = arena.page(a);
    byte[] pageB = arena.page(b);
    int fromA = Arena.offset(a);
    int fromB = Arena.offset(b);
    return Arrays.equals(
        pageA, fromA, skip(pageA, fromA, count), pageB, fromB, skip(pageB, fromB, count));
  }

  private static int skip(byte[] page, int from, int count) {
    int at = from;
    for (int cell = 0; cell < count; cell++) {
      int header = Varint.read(page, at);
      at += Varint.size(header) + (header == 0 ? 0 : header - 1 >>> 1);
    }
    return at;
  }

  /**
   * Counts null cells.
   *
   * @param row the row, 0-based
   * @return how many of its cells are null
   */
  public int nulls(int row) {
    int position = position(row);
    byte[] page = arena.page(position);
    int at = Arena.offset(position);
    int nulls = 0;
    for (int cell = 0; cell < cells; cell++) {
      int header = Varint.read(page, at);
      at += Varint.size(header) + (header == 0 ? 0 : header - 1 >>> 1);
      nulls += header == 0 ? 1 : 0;
    }
    return nulls;
  }

  @Override
  public String toString() {
    return "RowStore[" + rows + " rows of " + cells + " cells]";
  }
}
