package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/**
 * Something a person can put right: the message says what was found, where, and what to do next.
 * Never thrown itself, always as one of the kinds below.
 */
public abstract sealed class AbleTwineException extends RuntimeException
    permits DataException, ReaderGoneException, SettingException {
  private static final long serialVersionUID = 1L;

  AbleTwineException(String message, @Nullable Throwable cause) {
    super(message, cause);
  }
}
