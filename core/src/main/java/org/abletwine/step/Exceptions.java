package org.abletwine.step;

/**
 * Told about every row, key or reference row that needs a person's attention. Called by one thread,
 * in row order for each step.
 */
public interface Exceptions {
  /** Tells nobody. */
  Exceptions NONE = (step, kind, table, row, key, detail) -> {};

  /**
   * Something needs attention.
   *
   * @param step the step that met it
   * @param kind what it is: {@code unmatched}, {@code ambiguous}, {@code blank-key}, {@code
   *     duplicate left out} or {@code collision}
   * @param table the table it is in
   * @param row its row there, 1-based, header not counted
   * @param key the key as written; parts parted by a vertical bar
   * @param detail what else there is to say; may be empty
   */
  void found(String step, String kind, String table, long row, String key, String detail);
}
