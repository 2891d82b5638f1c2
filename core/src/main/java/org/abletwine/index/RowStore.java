package org.abletwine.index;

import java.io.Serializable;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.util.Arrays;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.ByteHash;
import org.abletwine.table.text.QuoteSigns;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * Some columns of every row of a reference, packed. Rows are numbered from 0 in file order.
 *
 * <p>A row is four bytes that hold its number and belong to the index, a header (twice the length
 * of its key, plus one when normalising changed it), the key's comparison bytes, and its cells one
 * after another. So whoever has found a key has the row in the cache too. A cell is a header and
 * its UTF-8. The header is 0 for null, else 1 + twice the length in bytes + 1 when the cell might
 * need quotes in some output. Fetching a row touches one place in memory, whatever the number of
 * columns. Equal cells have equal bytes. Filled by one thread; safe to read from many once
 * published.
 */
public final class RowStore implements Serializable {
  private static final long serialVersionUID = 1L;

  /** Reads and writes the number of a row where the row begins. */
  static final VarHandle NUMBER =
      MethodHandles.byteArrayViewVarHandle(int[].class, ByteOrder.BIG_ENDIAN);

  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  /** A key of so many bytes is copied as two words, and its header is one byte. */
  private static final int SHORT = 16;

  /** Most rows straddle two cache lines: a byte that is in the second one. */
  private static final int NEXT_LINE = 48;

  /** Bytes before the key: they belong to the index. */
  private static final int KEY_AT = 4;

  private static final byte[] NO_BYTES = {};

  /** Few rows: what is seldom done would be left out of what is compiled, and be missed there. */
  private static final int CHUNK_BITS = 11;

  private static final int CHUNK = 1 << CHUNK_BITS;

  private final int cells;
  private final Arena arena = new Arena();
  private int[][] positions = {new int[16]};
  private int rows;
  private transient byte[] scratch = NO_BYTES;

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
   * @param keys the keys of the same batch
   */
  public void add(CellVector[] columns, int row, EncodedKeys keys) {
    add(columns, row, keys, row);
  }

  /**
   * Appends the first row of some vectors.
   *
   * @param columns a vector per cell, in cell order
   * @param keys keys of a batch
   * @param key which of them is the row's
   */
  public void addUnderKey(CellVector[] columns, EncodedKeys keys, int key) {
    add(columns, 0, keys, key);
  }

  private void add(CellVector[] columns, int row, EncodedKeys keys, int key) {
    int start = keys.ends[key];
    int keyLength = keys.ends[key + 1] - start;
    if (columns.length == 0 && keyLength <= SHORT && start + SHORT <= keys.bytes.length) {
      addShort(keys, key, start, keyLength);
      return;
    }
    if (scratch == null || keyLength + 10 > scratch.length) { // null once deserialised
      scratch = new byte[2 * keyLength + 256];
    }
    NUMBER.set(scratch, 0, rows);
    int length = Varint.write(scratch, KEY_AT, keyLength << 1 | (keys.changed[key] ? 1 : 0));
    System.arraycopy(keys.bytes, start, scratch, length, keyLength);
    length += keyLength;
    for (CellVector column : columns) {
      length = pack(column, row, length);
    }
    int position = arena.allocate(length + CellVector.SLACK, length); // read by words
    System.arraycopy(scratch, 0, arena.page(position), Arena.offset(position), length);
    setPosition(rows, position);
    rows++;
  }

  /** A row without cells, and with a key of up to sixteen bytes, is written where it stays. */
  private void addShort(EncodedKeys keys, int key, int start, int length) {
    int position = arena.allocate(KEY_AT + 1 + SHORT, KEY_AT + 1 + length);
    byte[] page = arena.page(position);
    int at = Arena.offset(position);
    NUMBER.set(page, at, rows);
    page[at + KEY_AT] = (byte) (length << 1 | (keys.changed[key] ? 1 : 0));
    WORD.set(page, at + KEY_AT + 1, (long) WORD.get(keys.bytes, start)); // what is too much is
    WORD.set(page, at + KEY_AT + 9, (long) WORD.get(keys.bytes, start + 8)); // written over
    setPosition(rows, position);
    rows++;
  }

  /**
   * @param row a row, 0-based
   * @return its place, for {@link #fetch}
   */
  public int place(int row) {
    return positions[row >>> CHUNK_BITS][row & CHUNK - 1];
  }

  /**
   * @param place a row's place
   * @return the row's number, 0-based; or the complement of its group's, where a {@link HashIndex}
   *     has given it one
   */
  public int numberAt(int place) {
    return (int) NUMBER.get(arena.page(place), Arena.offset(place));
  }

  /**
   * @param place a row's place
   * @return whether normalising changed the row's key
   */
  public boolean keyChanged(int place) {
    return (arena.page(place)[Arena.offset(place) + KEY_AT] & 1) != 0;
  }

  Arena arena() {
    return arena;
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
    if (to + length + 5 > scratch.length) {
      scratch = Arrays.copyOf(scratch, 2 * (to + length + 5));
    }
    if (start < 0) {
      scratch[to] = 0;
      return to + 1;
    }
    byte[] text = column.text;
    boolean special = length == 0 || QuoteSigns.any(text, start, start + length);
    int at = Varint.write(scratch, to, 1 + (length << 1 | (special ? 1 : 0)));
    System.arraycopy(text, start, scratch, at, length);
    return at + length;
  }

  /**
   * Loads rows into the cache, all at once and none waiting for another, for whoever will fetch
   * them one by one. An index that compared their keys has done so already.
   *
   * @param places places of rows; those that are negative are passed over
   * @param count how many
   * @return a meaningless number, which the compiler must take for a use of the rows
   */
  public int touch(int[] places, int count) {
    int seen = 0;
    for (int i = 0; i < count; i++) {
      if (places[i] >= 0) {
        seen += touch(places[i]);
      }
    }
    return seen;
  }

  /** Loads one row into the cache. */
  int touch(int place) {
    byte[] page = arena.page(place);
    int at = Arena.offset(place);
    return page[at] + page[Math.min(at + NEXT_LINE, page.length - 1)];
  }

  /** Whether a row has the key that is the given bytes, after which eight more can be read. */
  boolean hasKey(int place, byte[] bytes, int start, int length) {
    byte[] page = arena.page(place);
    int at = Arena.offset(place) + KEY_AT;
    if (length <= SHORT) {
      int from = at + 1;
      return page[at] >>> 1 == length
          && ByteHash.word(page, from, from + length) == ByteHash.word(bytes, start, start + length)
          && (length <= Long.BYTES
              || ByteHash.word(page, from + 8, from + length)
                  == ByteHash.word(bytes, start + 8, start + length));
    }
    int header = Varint.read(page, at);
    int from = at + Varint.size(header);
    return header >>> 1 == length
        && Arrays.equals(page, from, from + length, bytes, start, start + length);
  }

  /**
   * Appends a row's first cells to vectors.
   *
   * @param place where the row is held, from {@link #place} or the index
   * @param targets a vector per cell, from the first cell on; null to pass one over
   * @param nulls counts up by one at the cell's place for each null cell met
   * @param fills for each cell what to append in place of null; null to append null
   */
  public void fetch(
      int place, @Nullable CellVector[] targets, long[] nulls, @Nullable String[] fills) {
    byte[] page = arena.page(place);
    int at = cellsAt(page, Arena.offset(place));
    for (int cell = 0; cell < targets.length; cell++) {
      int header = page[at++];
      if (header < 0) {
        header = Varint.read(page, at - 1);
        at += Varint.size(header) - 1;
      }
      CellVector target = targets[cell];
      if (header == 0) {
        if (target != null) {
          target.append(fills[cell]);
          nulls[cell]++;
        }
        continue;
      }
      int size = header - 1 >>> 1;
      if (target != null) {
        target.append(page, at, at + size, (header - 1 & 1) == 0);
      }
      at += size;
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
    int place = place(row);
    byte[] page = arena.page(place);
    int at = skip(page, cellsAt(page, Arena.offset(place)), cell);
    int header = Varint.read(page, at);
    if (header == 0) {
      return null;
    }
    int start = at + Varint.size(header);
    return Utf8.text(page, start, start + (header - 1 >>> 1));
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
    return agree(one, other, 0, count);
  }

  /**
   * Whether two rows agree in some cells; null agrees with null here.
   *
   * @param one a row, 0-based
   * @param other another row, 0-based
   * @param from the first cell to compare, 0-based
   * @param to end of these cells, exclusive
   * @return whether all of them are the same
   */
  public boolean agree(int one, int other, int from, int to) {
    int a = place(one);
    int b = place(other);
    byte[] pageA = arena.page(a);
    byte[] pageB = arena.page(b);
    int fromA = skip(pageA, cellsAt(pageA, Arena.offset(a)), from);
    int fromB = skip(pageB, cellsAt(pageB, Arena.offset(b)), from);
    return Arrays.equals(
        pageA, fromA, skip(pageA, fromA, to - from), pageB, fromB, skip(pageB, fromB, to - from));
  }

  private static int cellsAt(byte[] page, int from) {
    int header = Varint.read(page, from + KEY_AT);
    return from + KEY_AT + Varint.size(header) + (header >>> 1);
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
   * @param from the first cell looked at, 0-based
   * @param to the end of these cells, exclusive
   * @return how many of them are null
   */
  public int nulls(int row, int from, int to) {
    int position = place(row);
    byte[] page = arena.page(position);
    int at = cellsAt(page, Arena.offset(position));
    int nulls = 0;
    for (int cell = 0; cell < to; cell++) {
      int header = Varint.read(page, at);
      at += Varint.size(header) + (header == 0 ? 0 : header - 1 >>> 1);
      nulls += header == 0 && cell >= from ? 1 : 0;
    }
    return nulls;
  }

  @Override
  public String toString() {
    return "RowStore[" + rows + " rows of " + cells + " cells]";
  }
}
