package org.abletwine.compute;

import org.jspecify.annotations.Nullable;

/**
 * Part of an expression. Evaluated over all rows of a batch, or only over those that a CASE, a
 * COALESCE or an AND has left: a row that is not asked for cannot cause an error.
 */
abstract class Node {
  final Kind kind;
  final Values out = new Values();

  Node(Kind kind) {
    this.kind = kind;
  }

  /**
   * Evaluates.
   *
   * @param frame the rows
   * @param asked which rows are asked for; null for all
   * @return the values; for rows not asked for they mean nothing
   */
  Values eval(Frame frame, boolean @Nullable [] asked) {
    out.prepare(frame.rows(), kind);
    compute(frame, asked);
    return out;
  }

  /** The value all rows have; null when it is not known before they are there. */
  @Nullable Integer constant() {
    return null;
  }

  abstract void compute(Frame frame, boolean @Nullable [] asked);

  static boolean skip(boolean @Nullable [] asked, int row) {
    return asked != null && !asked[row];
  }
}
