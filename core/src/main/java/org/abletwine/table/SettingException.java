package org.abletwine.table;

/** A setting, option or plan is wrong (exit status 2 on the command line). */
public final class SettingException extends AbleTwineException {
  private static final long serialVersionUID = 1L;

  /**
   * Tells what is wrong.
   *
   * @param message what was found, where, and what to do next
   */
  public SettingException(String message) {
    super(message, null);
  }
}
