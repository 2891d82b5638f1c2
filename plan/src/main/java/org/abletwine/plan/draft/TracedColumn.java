package org.abletwine.plan.draft;

import org.jspecify.annotations.Nullable;

/**
 * Where a column of a table made by hand comes from.
 *
 * @param made its name there
 * @param kind from what
 * @param from the column of the plan that it is: one of the transactions, or one fetched; empty for
 *     one that is computed or not traced
 * @param formula how it is computed; null where it is not
 * @param fill what stands where nothing was fetched; null for nothing
 * @param agreement the share of its rows that agree, from 0 to 1
 */
record TracedColumn(
    String made,
    Kind kind,
    String from,
    @Nullable Formula formula,
    @Nullable String fill,
    double agreement) {

  /** What a column is. */
  enum Kind {
    COPIED,
    FETCHED,
    COMPUTED,
    UNKNOWN
  }
}
