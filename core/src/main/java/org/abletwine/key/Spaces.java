package org.abletwine.key;

/** What counts as a space: every Unicode white space, and the zero-width characters. */
public final class Spaces {
  private Spaces() {}

  /**
   * @param c a character
   * @return whether it is white space (Unicode property White_Space), a control character used as
   *     one, or has no width (U+200B to U+200D, U+2060, U+FEFF)
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
        || c >= 0x2000 && c <= 0x200D
        || c == 0x2028
        || c == 0x2029
        || c == 0x202F
        || c == 0x205F
        || c == 0x2060
        || c == 0x3000
        || c == 0xFEFF;
  }
}
