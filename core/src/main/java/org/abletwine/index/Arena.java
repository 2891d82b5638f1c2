package org.abletwine.index;

import java.io.Serializable;
import java.util.Arrays;
import org.abletwine.table.DataException;

/**
 * Bytes that only grow, in pages, addressed by a position that fits an int: entries start at
 * multiples of four bytes, so up to 8 GiB can be addressed by a position that is not negative. An
 * entry never straddles pages; one larger than a page gets a page of its own. The first page starts
 * small and doubles, so a small reference costs little.
 */
final class Arena implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final int UNIT_BITS = 2;
  private static final int PAGE_UNIT_BITS = 18;
  private static final int PAGE_BYTES = 1 << PAGE_UNIT_BITS + UNIT_BITS;
  private static final int FIRST_BYTES = 1 << 12;
  private static final int UNIT_MASK = (1 << PAGE_UNIT_BITS) - 1;

  private byte[][] pages = {new byte[FIRST_BYTES]};
  private int page;
  private int used;

  /**
   * Makes room for an entry.
   *
   * @param bytes its size
   * @return its position
   */
  int allocate(int bytes) {
    return allocate(bytes, bytes);
  }

  /**
   * Makes room for an entry that is written with something behind its end.
   *
   * @param room bytes that may be written
   * @param bytes how many of them are the entry
   * @return its position
   */
  int allocate(int room, int bytes) {
    if (used + room > pages[page].length) {
      grow(room);
    }
    int position = page << PAGE_UNIT_BITS | used >>> UNIT_BITS;
    used = used + bytes + (1 << UNIT_BITS) - 1 & -(1 << UNIT_BITS);
    return position;
  }

  private void grow(int bytes) {
    byte[] current = pages[page];
    if (page == 0 && current.length < PAGE_BYTES && used + bytes <= PAGE_BYTES) {
      int length = current.length;
      while (length < used + bytes) {
        length *= 2;
      }
      pages[0] = Arrays.copyOf(current, length);
      return;
    }
    page++;
    if (page >= 1 << 31 - PAGE_UNIT_BITS) {
      throw new DataException(
          "a reference takes more than 8 GiB in memory; bring fewer columns of it, or leave out rows"
              + " with where:");
    }
    if (page == pages.length) {
      pages = Arrays.copyOf(pages, pages.length * 2);
    }
    pages[page] = new byte[Math.max(PAGE_BYTES, bytes)];
    used = 0;
  }

  /** The page a position is in. */
  byte[] page(int position) {
    return pages[position >>> PAGE_UNIT_BITS];
  }

  /** Where in its page a position is, in bytes. */
  static int offset(int position) {
    return (position & UNIT_MASK) << UNIT_BITS;
  }

  /** Bytes held, used or not. */
  long bytes() {
    long sum = 0;
    for (byte[] held : pages) {
      sum += held == null ? 0 : held.length;
    }
    return sum;
  }
}
