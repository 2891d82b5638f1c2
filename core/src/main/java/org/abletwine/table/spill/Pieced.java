package org.abletwine.table.spill;

import java.util.Arrays;
import org.abletwine.table.output.StoredBytes;

/**
 * Pieces of other bytes, as if they followed each other. Pieces are added by one thread; after
 * that, many may read.
 */
public final class Pieced implements StoredBytes {
  private final StoredBytes of;

  /** Where each piece begins there. */
  private long[] places = new long[4];

  /** Where each piece ends here. */
  private long[] ends = new long[4];

  private int count;

  /**
   * @param of where the pieces are
   */
  public Pieced(StoredBytes of) {
    this.of = of;
  }

  /**
   * Puts a piece behind those there are.
   *
   * @param place its first byte, 0-based
   * @param length how many it has
   */
  public void add(long place, long length) {
    if (length == 0) {
      return;
    }
    if (count == places.length) {
      places = Arrays.copyOf(places, 2 * count);
      ends = Arrays.copyOf(ends, 2 * count);
    }
    places[count] = place;
    ends[count] = size() + length;
    count++;
  }

  @Override
  public long size() {
    return count == 0 ? 0 : ends[count - 1];
  }

  @Override
  public int read(long at, byte[] into, int from) {
    int found = Arrays.binarySearch(ends, 0, count, at);
    int piece = found >= 0 ? found + 1 : -found - 1;
    int read = 0;
    while (piece < count && from + read < into.length) {
      long begins = piece == 0 ? 0 : ends[piece - 1];
      long here = at + read;
      int room = into.length - from - read;
      int most = (int) Math.min(room, ends[piece] - here);
      byte[] some = most == room ? into : new byte[most]; // as much as there is room for is read
      int got = of.read(places[piece] + here - begins, some, most == room ? from + read : 0);
      if (most < room) {
        System.arraycopy(some, 0, into, from + read, got);
      }
      if (got <= 0) {
        break;
      }
      read += got;
      piece += here + got == ends[piece] ? 1 : 0;
    }
    return read;
  }

  @Override
  public void append(byte[] bytes, int length) {
    throw new UnsupportedOperationException("pieces of other bytes are only read");
  }

  @Override
  public String toString() {
    return "Pieced[" + count + " of " + of + "]";
  }
}
