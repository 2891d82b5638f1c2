package org.abletwine.lookup;

import java.util.Arrays;
import java.util.Objects;
import org.abletwine.figures.LookupFigures;
import org.abletwine.table.DataException;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.ByteCursor;
import org.abletwine.table.spill.RowBytes;
import org.jspecify.annotations.Nullable;

/**
 * What a lookup has found for every row that reaches it, in the order of the rows, where its
 * reference is too large for rows to ask it as they pass. Written by one thread; safe to read from
 * many once that is done.
 *
 * <p>An answer is the row's number, the length of what follows, the outcome, which of the
 * references gave it, what there is to say of it, into how many rows it becomes, and for each of
 * these the cells brought. Every so many answers the place of one is noted, so that a worker finds
 * the answers for its rows without those before.
 */
final class Answers {
  private static final int NOTED = 256;

  private final SpillFile file;
  private final RowBytes pending = new RowBytes();
  private long[] numbers = new long[64];
  private long[] places = new long[64];
  private int noted;
  private long count;
  private @Nullable Found found;
  private @Nullable DataException stoppedBy;

  Answers(SpillFile file) {
    this.file = file;
  }

  /**
   * What was found beside the rows.
   *
   * @param tally the counts, of a worker to which all others were added
   * @param facts what was found in the reference
   * @param spilled how it was divided
   * @param large the reference, divided
   * @param known which parts of keys it knows
   * @param told what needs attention in the reference
   */
  record Found(
      LookupWorker tally,
      ReferenceFacts facts,
      LookupFigures.Spilled spilled,
      LargeReference large,
      KnownParts known,
      ToldOfParts told) {}

  /**
   * States what ends the run at the row after the last that has an answer.
   *
   * @param failure what it is; null when all rows have one
   */
  void stoppedBy(@Nullable DataException failure) {
    stoppedBy = failure;
  }

  /** What a row has met that has no answer. */
  RuntimeException none(long row) {
    DataException stopped = stoppedBy;
    return stopped == null ? new IllegalStateException("row " + row + " has no answer") : stopped;
  }

  /** Whether there are answers from a place on. */
  boolean more(long place) {
    return place < file.size();
  }

  void found(Found all) {
    found = all;
  }

  Found found() {
    return Objects.requireNonNull(found, "all rows are answered");
  }

  /** Puts an answer behind those there are; rows come in order. */
  void add(long number, byte[] bytes, int from, int length) {
    if (count++ % NOTED == 0) {
      if (noted == numbers.length) {
        numbers = Arrays.copyOf(numbers, noted * 2);
        places = Arrays.copyOf(places, noted * 2);
      }
      numbers[noted] = number;
      places[noted++] = file.size() + pending.used();
    }
    pending.number(number);
    pending.number(length);
    pending.add(bytes, from, from + length);
    if (pending.used() > 1 << 20) {
      putOut();
    }
  }

  /** All answers are there. */
  void putOut() {
    file.append(pending.bytes(), pending.used());
    pending.clear();
  }

  long bytes() {
    return file.size();
  }

  ByteCursor cursor() {
    return new ByteCursor(file, 1 << 16);
  }

  /** A place at or before the first answer of a row. */
  long before(long number) {
    int at = Arrays.binarySearch(numbers, 0, noted, number);
    // A row may have several answers, the first of them before the place that was found.
    int from = at >= 0 ? at : -at - 2;
    while (from > 0 && numbers[from] >= number) {
      from--;
    }
    return from < 0 || noted == 0 ? 0 : places[from];
  }
}
