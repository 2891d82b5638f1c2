package org.abletwine.table.batch;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Which of the rows read into a batch are kept, in which order, and their numbers in the table.
 * Belongs to the batch's owner.
 */
final class KeptRows {
  private long first;

  /** How far each row read is from the first, where rows were left out in between. */
  private int[] distances = new int[0];

  private boolean sparse;
  private int[] places = new int[0];
  private boolean picked;
  private int count;

  /** Begins anew with a first row of that number. */
  void clear(long firstNumber) {
    first = firstNumber;
    sparse = false;
    picked = false;
    count = 0;
  }

  /** All rows read are kept: so many. */
  void all(int rows) {
    count = rows;
  }

  /** The number of a row read; then to be stated for every one. */
  void number(int row, long number) {
    sparse = true;
    if (distances.length <= row) {
      distances = Arrays.copyOf(distances, Math.max(row + 1, distances.length * 2));
    }
    distances[row] = (int) (number - first);
  }

  void first(long number) {
    first = number;
  }

  /** The number of the first row read. */
  long first() {
    return first;
  }

  int count() {
    return count;
  }

  /** Where a row kept was read. */
  int place(int row) {
    return picked ? places[row] : row;
  }

  long number(int row) {
    int at = place(row);
    return first + (sparse ? distances[at] : at);
  }

  /** Where the rows kept were read; null when all are kept. */
  int @Nullable [] places() {
    return picked ? Arrays.copyOf(places, count) : null;
  }

  /** Keeps what {@link #places} returned once. */
  void keep(int @Nullable [] placesThen, int rowsRead) {
    picked = placesThen != null;
    if (placesThen != null) {
      places = placesThen;
    }
    count = placesThen == null ? rowsRead : placesThen.length;
  }

  /** Keeps some of the rows kept so far, perhaps several times. */
  void pick(int[] wanted, int howMany) {
    int[] next = new int[Math.max(howMany, 1)];
    for (int i = 0; i < howMany; i++) {
      next[i] = place(wanted[i]);
    }
    places = next;
    picked = true;
    count = howMany;
  }
}
