package org.abletwine.table;

import java.io.IOException;
import java.util.Objects;

/** Whoever read an output as it was written has gone away: nothing is left to be done for them. */
public final class ReaderGoneException extends AbleTwineException {
  private static final long serialVersionUID = 1L;

  /**
   * Tells which output nobody reads any more.
   *
   * @param name the output
   * @param cause what writing to it gave
   */
  public ReaderGoneException(String name, IOException cause) {
    super("whoever read " + name + " has gone away", cause);
  }

  /**
   * Whether an error means that a reader has gone away.
   *
   * @param error what writing gave
   * @return whether it does
   */
  public static boolean means(IOException error) {
    Objects.requireNonNull(error, "error");
    return String.valueOf(error.getMessage()).contains("Broken pipe");
  }
}
