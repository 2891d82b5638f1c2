package org.abletwine.compute;

import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;

/** What a node needs to know while it is evaluated: the rows, and what to do with errors. */
class Frame {
  private final String what;
  private final boolean errorsAreNull;
  private final boolean hidden;
  private Batch batch = new Batch(0);
  private RowErrors errors = RowErrors.NONE;
  private final BitSet failed = new BitSet();

  /**
   * @param what the column or condition being computed, for messages
   * @param errorsAreNull whether a row with an error gets null, and not ends the run
   * @param hidden whether messages must not hold values
   */
  Frame(String what, boolean errorsAreNull, boolean hidden) {
    this.hidden = hidden;
    this.what = what;
    this.errorsAreNull = errorsAreNull;
  }

  void over(Batch rows) {
    batch = rows;
    failed.clear();
  }

  Batch batch() {
    return batch;
  }

  int rows() {
    return batch.rows();
  }

  /** Something cannot be computed for a row. */
  void error(int row, String message) {
    String why = hidden ? "it cannot be computed with a private value of this row" : message;
    String full = "row " + batch.rowNumber(row) + ", " + what + ": " + why;
    if (!errorsAreNull) {
      throw new DataException(
          full
              + "; correct the row, guard the expression with CASE or NULLIF, or state errors:"
              + " null",
          batch.rowNumber(row));
    }
    if (failed.get(row)) {
      return; // a row counts once, however many of its parts cannot be computed
    }
    failed.set(row);
    long number = batch.rowNumber(row);
    boolean first = number < errors.row();
    errors =
        new RowErrors(
            errors.count() + 1, first ? number : errors.row(), first ? full : errors.example());
  }

  /** Whether a row of the batch could not be computed. */
  boolean failed(int row) {
    return failed.get(row);
  }

  /** Adds rows that others could not compute, or takes them in place of none. */
  void add(RowErrors others) {
    errors = errors.and(others);
  }

  /** Rows that could not be computed. */
  RowErrors errors() {
    return errors;
  }

  /** Evaluating to see whether it can be: a row that cannot is noted, and nobody is told. */
  static final class Trial extends Frame {
    private final Map<Integer, String> messages = new HashMap<>();

    Trial() {
      super("", true, false);
    }

    @Override
    void over(Batch rows) {
      super.over(rows);
      messages.clear();
    }

    @Override
    void error(int row, String message) {
      messages.putIfAbsent(row, message);
    }

    @Override
    boolean failed(int row) {
      return messages.containsKey(row);
    }

    int failures() {
      return messages.size();
    }

    /** Why a row that failed could not be computed. */
    String message(int row) {
      return messages.getOrDefault(row, "");
    }
  }
}
