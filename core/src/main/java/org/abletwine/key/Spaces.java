package org.abletwine.key;

/** What counts as a space: every Unicode white space, and characters without width. */
public final class Spaces {
  private Spaces() {}

  /**
   * @param c a character
   * @return whether it is white space (Unicode property White_Space), a control character used as
   *     one, or has no width (U+200B to U+200F, U+202A to U+202E, U+2060, U+2066 to U+2069, U+FEFF:
   *     joiners, marks of the direction of writing, and the byte-order mark)
   */
  public static boolean isSpace(char c) {
    if (c <= ' ') {
      return c == ' ' || c >= '\t' && c <= '\r' || c >= 0x1C;
    }
    if (c < 0x85) {
      return false;
    }
    return c == 0x85
        || c == 0xA0
        || c == 0x1680
        || c == 0x180E
        || c >= 0x2000 && c <= 0x200F
        || c >= 0x2028 && c <= 0x202F
        || c == 0x205F
        || c == 0x2060
        || c >= 0x2066 && c <= 0x2069
        || c == 0x3000
        || c == 0xFEFF;
  }

  /**
   * Leaves out what counts as a space at both ends.
   *
   * @param text a text
   * @return the text without
   */
  public static String trimmed(String text) {
    int start = 0;
    int end = text.length();
    while (start < end && isSpace(text.charAt(start))) {
      start++;
    }
    while (start < end && isSpace(text.charAt(end - 1))) {
      end--;
    }
    return text.substring(start, end);
  }
}
