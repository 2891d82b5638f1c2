package org.abletwine.table.spill;

import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import org.abletwine.table.output.StoredBytes;

/**
 * Merges files whose entries are each in order: two numbers to order by, and then whatever the
 * taker reads. All files are read at once, so each is given only a little memory.
 */
public final class OrderedRuns {
  private static final int BLOCK = 1 << 15;

  private OrderedRuns() {}

  /** Takes what is behind the numbers of an entry, all of it. */
  public interface Taker {
    /**
     * Takes an entry.
     *
     * @param first the first number that it is ordered by
     * @param rest stands behind the numbers; to be left behind the entry
     */
    void take(long first, ByteCursor rest);
  }

  /**
   * Goes through the entries of all files in one order.
   *
   * @param files each with its entries in order; those alike in both numbers are in one file
   * @param taker takes them
   */
  public static void merge(List<? extends StoredBytes> files, Taker taker) {
    PriorityQueue<Run> queue =
        new PriorityQueue<>(
            Comparator.comparingLong((Run run) -> run.first).thenComparingLong(run -> run.second));
    for (StoredBytes file : files) {
      Run run = new Run(file);
      if (run.go()) {
        queue.add(run);
      }
    }
    while (!queue.isEmpty()) {
      Run run = queue.remove();
      taker.take(run.first, run.cursor);
      if (run.go()) {
        queue.add(run);
      }
    }
  }

  /** One file, at its next entry. */
  private static final class Run {
    private final StoredBytes file;
    private final ByteCursor cursor;
    private long first;
    private long second;

    Run(StoredBytes file) {
      this.file = file;
      cursor = new ByteCursor(file, BLOCK);
    }

    /** Goes to the next entry; returns whether there is one. */
    boolean go() {
      if (cursor.place() == file.size()) {
        return false;
      }
      first = cursor.number();
      second = cursor.number();
      return true;
    }
  }
}
