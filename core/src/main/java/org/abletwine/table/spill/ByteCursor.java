package org.abletwine.table.spill;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.abletwine.table.output.StoredBytes;
import org.jspecify.annotations.Nullable;

/**
 * Reads what {@link RowBytes} wrote, from any place on. Belongs to one thread; several may read the
 * same bytes.
 */
public final class ByteCursor {
  private static final int BLOCK = 1 << 18;

  private final StoredBytes file;
  private byte[] bytes;
  private long base;
  private int at;
  private int end;

  /**
   * @param file where to read
   */
  public ByteCursor(StoredBytes file) {
    this(file, BLOCK);
  }

  /**
   * @param file where to read
   * @param block bytes to read at once
   */
  public ByteCursor(StoredBytes file, int block) {
    this.file = file;
    this.bytes = new byte[block];
  }

  /** Returns the place in the file. */
  public long place() {
    return base + at;
  }

  /** Goes to a place in the file. */
  public void seek(long place) {
    if (place >= base && place <= base + end) {
      at = (int) (place - base);
    } else {
      base = place;
      at = 0;
      end = 0;
    }
  }

  /** Makes so many bytes lie in the buffer from here on. */
  private void need(int count) {
    if (end - at >= count) {
      return;
    }
    System.arraycopy(bytes, at, bytes, 0, end - at);
    base += at;
    end -= at;
    at = 0;
    if (count > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(count, bytes.length * 2));
    }
    end += file.read(base + end, bytes, end);
    if (end < count) {
      throw new IllegalStateException("the file ends within a row");
    }
  }

  /** Reads a number. */
  public long number() {
    long value = 0;
    for (int shift = 0; ; shift += 7) {
      need(1);
      byte b = bytes[at++];
      value |= (long) (b & 0x7F) << shift;
      if (b >= 0) {
        return value;
      }
    }
  }

  /**
   * Goes past a cell.
   *
   * @return where its bytes begin in {@link #bytes}, until anything else is read; -1 for null
   */
  public int cell() {
    long size = number();
    if (size == 0) {
      length = 0;
      return -1;
    }
    length = (int) (size - 1);
    need(length);
    at += length;
    return at - length;
  }

  /**
   * Goes past bytes.
   *
   * @return where they begin in {@link #bytes}, until anything else is read
   */
  public int past(int count) {
    need(count);
    at += count;
    return at - count;
  }

  private int length;

  /** Reads a text that is not null. */
  public String text() {
    int start = cell();
    return new String(bytes, start, length, StandardCharsets.UTF_8);
  }

  /** Reads a text; null for null. */
  public @Nullable String textOrNull() {
    int start = cell();
    return start < 0 ? null : new String(bytes, start, length, StandardCharsets.UTF_8);
  }

  /** Returns how many bytes the cell has that was gone past last. */
  public int length() {
    return length;
  }

  /** Returns the buffer. */
  public byte[] bytes() {
    return bytes;
  }
}
