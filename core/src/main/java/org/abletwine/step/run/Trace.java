package org.abletwine.step.run;

import org.jspecify.annotations.Nullable;

/**
 * Told what each step makes of a single row, by the very step that makes it. Called by one thread.
 */
public interface Trace {
  /** Tells nobody. */
  Trace NONE = (label, detail) -> {};

  /**
   * Something a step saw or did.
   *
   * @param label what it is about, such as a column
   * @param detail what was seen or done
   */
  void note(String label, String detail);

  /**
   * A value as a person is shown it.
   *
   * @param value the value; null for null
   * @return the value in double quotes, spaces that cannot be seen written as code points
   */
  static String shown(@Nullable String value) {
    if (value == null) {
      return "null";
    }
    StringBuilder text = new StringBuilder("\"");
    value
        .codePoints()
        .forEach(
            c -> {
              boolean unseen =
                  c != ' ' && (Character.isSpaceChar(c) || Character.isISOControl(c))
                      || Character.getType(c) == Character.FORMAT;
              if (unseen) {
                text.append(String.format("<U+%04X>", c));
              } else {
                text.appendCodePoint(c);
              }
            });
    return text.append('"').toString();
  }
}
