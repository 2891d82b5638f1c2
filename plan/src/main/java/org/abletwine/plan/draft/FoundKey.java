package org.abletwine.plan.draft;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How the transactions and a reference join.
 *
 * @param kind by which rule
 * @param equal columns that must be equal
 * @param ours our column that the rule is about; null where all are equal
 * @param theirs their column that it is about, the lower end of a band; null likewise
 * @param theirsTo the upper end of a band; null where there is none
 * @param matched share of the sampled rows with a key that match, from 0 to 1
 * @param unique share of the reference's rows that have a key of their own
 */
record FoundKey(
    Kind kind,
    List<Pair> equal,
    @Nullable String ours,
    @Nullable String theirs,
    @Nullable String theirsTo,
    double matched,
    double unique) {

  /** The rules that are looked for. */
  enum Kind {
    EQUAL,
    AT_OR_BELOW,
    BETWEEN,
    WILDCARD,
    CORRECTION
  }

  /**
   * Two columns that hold the same keys.
   *
   * @param ours our column
   * @param theirs their column
   * @param matched share of our rows with a value that is there, from 0 to 1
   * @param likeness of their names, from 0 to 1
   */
  record Pair(String ours, String theirs, double matched, double likeness) {
    double score() {
      return matched + likeness / 2;
    }
  }

  /** The columns of the reference that the key takes. */
  List<String> theirColumns() {
    List<String> columns = new java.util.ArrayList<>(equal.stream().map(Pair::theirs).toList());
    if (theirs != null) {
      columns.add(theirs);
    }
    if (theirsTo != null) {
      columns.add(theirsTo);
    }
    return columns;
  }
}
