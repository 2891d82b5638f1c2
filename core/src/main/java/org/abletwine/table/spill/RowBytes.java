package org.abletwine.table.spill;

import java.util.Arrays;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * A growing run of bytes with numbers and cells written one behind the other. A number takes seven
 * bits a byte, low bits first; a cell is its length and one, or 0 for null, and then its UTF-8.
 * Belongs to one thread.
 */
public final class RowBytes {
  private static final byte[] NONE = {};

  private byte[] bytes = NONE;
  private int used;

  /** Returns the bytes; those from {@link #used} on mean nothing. */
  public byte[] bytes() {
    return bytes;
  }

  /** Returns how many bytes are written. */
  public int used() {
    return used;
  }

  /** Forgets what was written. */
  public void clear() {
    used = 0;
  }

  private void room(int more) {
    if (used + more > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(used + more, Math.max(256, bytes.length * 2)));
    }
  }

  /** Writes a number: small ones take few bytes, those below 0 ten. */
  public void number(long value) {
    room(10);
    long rest = value;
    while (rest >>> 7 != 0) {
      bytes[used++] = (byte) (rest | 0x80);
      rest >>>= 7;
    }
    bytes[used++] = (byte) rest;
  }

  /** Writes a cell. */
  public void cell(byte[] text, int start, int end) {
    if (start < 0) {
      number(0);
      return;
    }
    number(end - start + 1L);
    room(end - start);
    System.arraycopy(text, start, bytes, used, end - start);
    used += end - start;
  }

  /** Writes a text; null for null. */
  public void text(@Nullable String value) {
    if (value == null) {
      number(0);
      return;
    }
    byte[] utf8 = value.getBytes(java.nio.charset.StandardCharsets.UTF_8);
    cell(utf8, 0, utf8.length);
  }

  /** Writes a cell of a column, whose text it must have. */
  public void cell(CellVector column, int row) {
    cell(column.text, column.starts[row], column.ends[row]);
  }

  /** Puts other bytes behind. */
  public void add(byte[] from, int start, int end) {
    room(end - start);
    System.arraycopy(from, start, bytes, used, end - start);
    used += end - start;
  }
}
