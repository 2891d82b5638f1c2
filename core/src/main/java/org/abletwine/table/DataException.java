package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/** The data or a file stopped the run (exit status 1 on the command line). */
public final class DataException extends AbleTwineException {
  private static final long serialVersionUID = 1L;

  /**
   * The row of its table, 1-based; 0 when it is of no single row, or that is in the message only.
   */
  private final long row;

  /**
   * @param message what was found, where, and what to do next
   */
  public DataException(String message) {
    this(message, 0);
  }

  /**
   * @param message what was found, where, and what to do next
   * @param row the row of the table that it is of, 1-based, header not counted; 0 for no single row
   */
  public DataException(String message, long row) {
    super(message, null);
    this.row = row;
  }

  /**
   * @param message what was found, where, and what to do next
   * @param cause the technical cause, shown only when debugging
   */
  public DataException(String message, @Nullable Throwable cause) {
    super(message, cause);
    this.row = 0;
  }

  /**
   * Returns the row of the table that it is of, 1-based, header not counted; 0 when it is of no
   * single row, or only the message says which.
   */
  public long row() {
    return row;
  }
}
