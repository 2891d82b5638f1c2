package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.List;
import org.abletwine.match.NearMiss;
import org.jspecify.annotations.Nullable;

/**
 * How far two keys agree.
 *
 * @param rows transactions
 * @param blankRows transactions with a null or blank key part
 * @param notMeasured transactions whose measure is no number
 * @param keys distinct keys of the transactions, as written
 * @param referenceRows reference rows
 * @param referenceKeys distinct keys of the reference, as written
 * @param matchedRows transactions whose key is in the reference as written
 * @param matchedKeys distinct keys in the reference as written
 * @param usedReferenceKeys reference keys that some transaction has, after the best steps
 * @param alone what each step would win by itself, most first
 * @param best the best small set of steps, each with what it adds in that order
 * @param steps the best set in the order to apply it
 * @param bestMatchedRows transactions matched after the best set
 * @param unmatched keys still unmatched after the best set, most rows first
 * @param unmatchedKeys how many of them there are
 * @param nearLeftOut whether nothing near was looked for, since the reference's keys did not fit in
 *     memory
 */
public record OverlapReport(
    long rows,
    long blankRows,
    long notMeasured,
    long keys,
    long referenceRows,
    long referenceKeys,
    long matchedRows,
    long matchedKeys,
    long usedReferenceKeys,
    List<Gain> alone,
    List<Gain> best,
    List<String> steps,
    long bestMatchedRows,
    List<Unmatched> unmatched,
    long unmatchedKeys,
    boolean nearLeftOut) {

  /** Copies the lists. */
  public OverlapReport {
    alone = List.copyOf(alone);
    best = List.copyOf(best);
    steps = List.copyOf(steps);
    unmatched = List.copyOf(unmatched);
  }

  /**
   * What a step wins.
   *
   * @param step the step as an option writes it
   * @param rows further transactions matched
   * @param collisions reference keys it makes equal to another one
   * @param lossy whether it leaves characters out, so that keys may match that should not
   */
  public record Gain(String step, long rows, long collisions, boolean lossy) {}

  /**
   * A key that is not in the reference.
   *
   * @param key the key as written
   * @param rows transactions that have it
   * @param measure the measure's total over these rows; null when nothing is measured
   * @param firstRow the first of them, 1-based
   * @param near the reference keys most like it
   */
  public record Unmatched(
      String key, long rows, @Nullable BigDecimal measure, long firstRow, List<NearMiss> near) {
    /** Copies the list. */
    public Unmatched {
      near = List.copyOf(near);
    }
  }
}
