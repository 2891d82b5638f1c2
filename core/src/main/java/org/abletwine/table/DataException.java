package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/**
 * The data or a file stopped the run (exit status 1 on the command line). Where it is known, the
 * table, row and column are fields too, for a program.
 */
public final class DataException extends AbleTwineException {
  private static final long serialVersionUID = 1L;

  private final @Nullable String table;
  private final long row;
  private final @Nullable String column;

  /**
   * Tells what is wrong, of no row in particular.
   *
   * @param message what was found, where, and what to do next
   */
  public DataException(String message) {
    this(message, null, 0, null);
  }

  /**
   * Tells what is wrong with a row.
   *
   * @param message what was found, where, and what to do next
   * @param row the row of the table that it is of, 1-based, header not counted; 0 for no single row
   */
  public DataException(String message, long row) {
    this(message, null, row, null);
  }

  /**
   * Tells what is wrong with a cell, a row or a table.
   *
   * @param message what was found, where, and what to do next
   * @param table the table, or the file, that it is of; null when that is in the message only
   * @param row the row of it, 1-based, header not counted; 0 for no single row
   * @param column the column; null for none
   */
  public DataException(String message, @Nullable String table, long row, @Nullable String column) {
    super(message, null);
    this.table = table;
    this.row = row;
    this.column = column;
  }

  /**
   * Tells what is wrong, and what it comes from.
   *
   * @param message what was found, where, and what to do next
   * @param cause the technical cause, shown only when debugging
   */
  public DataException(String message, @Nullable Throwable cause) {
    super(message, cause);
    this.table = null;
    this.row = 0;
    this.column = null;
  }

  /** {@return the table, or the file, that it is of; null when only the message says} */
  public @Nullable String table() {
    return table;
  }

  /**
   * {@return the row of its table, 1-based, header not counted; 0 when it is of no single row, or
   * only the message says which}
   */
  public long row() {
    return row;
  }

  /** {@return the column that it is of; null when it is of none, or only the message says which} */
  public @Nullable String column() {
    return column;
  }
}
