package org.abletwine.plan;

import java.util.List;
import java.util.Map;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/** The delimiters by name or by character. */
public final class Delimiters {
  private static final Map<String, Character> NAMED =
      Map.of("comma", ',', "semicolon", ';', "tab", '\t', "pipe", '|');

  private Delimiters() {}

  /**
   * @param text a name or a single character
   * @return the character, or null when it is neither
   */
  public static @Nullable Character parse(String text) {
    Character named = NAMED.get(text);
    if (named != null) {
      return named;
    }
    char first = text.isEmpty() ? 'x' : text.charAt(0);
    boolean one = text.length() == 1 && first < 0x80 && !Character.isLetterOrDigit(first);
    return one ? first : null;
  }

  /**
   * @param text what could not be read
   * @return a message that says what was expected
   */
  public static String expected(String text) {
    return "expected comma, semicolon, tab, pipe or one ASCII character, found \""
        + text
        + "\"; "
        + NearestName.hint(text, List.of("comma", "semicolon", "tab", "pipe"));
  }
}
