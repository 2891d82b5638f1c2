package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/** The data or a file stopped the run (exit status 1 on the command line). */
public final class DataException extends AbleTwineException {
  private static final long serialVersionUID = 1L;

  /**
   * @param message what was found, where, and what to do next
   */
  public DataException(String message) {
    super(message, null);
  }

  /**
   * @param message what was found, where, and what to do next
   * @param cause the technical cause, shown only when debugging
   */
  public DataException(String message, @Nullable Throwable cause) {
    super(message, cause);
  }
}
