package org.abletwine.key.encode;

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
   * The space that begins at a byte. Beyond ASCII every space takes two or three bytes, the first
   * of which is one of five.
   *
   * @param text UTF-8
   * @param at the byte, 0-based
   * @param end end of the text, exclusive
   * @return how many bytes it takes; 0 when there is none
   */
  public static int length(byte[] text, int at, int end) {
    byte b = text[at];
    if (b >= 0) {
      return b <= ' ' && isSpace((char) b) ? 1 : 0;
    }
    if (b == (byte) 0xC2) {
      return at + 1 < end && isSpace((char) (text[at + 1] & 0xFF)) ? 2 : 0;
    }
    boolean may = b == (byte) 0xE1 || b == (byte) 0xE2 || b == (byte) 0xE3 || b == (byte) 0xEF;
    return may && at + 2 < end && isSpace(three(text, at)) ? 3 : 0;
  }

  /**
   * The space that ends before a byte.
   *
   * @param text UTF-8
   * @param start the first byte that may belong to it, 0-based
   * @param end the byte, exclusive; after {@code start}
   * @return how many bytes it takes; 0 when there is none
   */
  public static int lengthBefore(byte[] text, int start, int end) {
    if (text[end - 1] >= 0) {
      return length(text, end - 1, end);
    }
    int two = end - start >= 2 ? length(text, end - 2, end) : 0;
    if (two == 2) {
      return 2;
    }
    return end - start >= 3 && length(text, end - 3, end) == 3 ? 3 : 0;
  }

  private static char three(byte[] text, int at) {
    return (char) ((text[at] & 0xF) << 12 | (text[at + 1] & 0x3F) << 6 | text[at + 2] & 0x3F);
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
