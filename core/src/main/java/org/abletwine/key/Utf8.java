package org.abletwine.key;

/**
 * Encodes characters as UTF-8 into an array that is known to be large enough. A lone surrogate,
 * which no valid file contains but a program may pass, is encoded like any other code point of its
 * range, so that distinct texts stay distinct.
 */
public final class Utf8 {
  private Utf8() {}

  /**
   * @param text the characters
   * @param start first character, 0-based
   * @param end end, exclusive
   * @param bytes where to write; must have room for three bytes a character
   * @param to where to start writing, 0-based
   * @return where writing ended, exclusive
   */
  public static int encode(char[] text, int start, int end, byte[] bytes, int to) {
    int at = to;
    for (int i = start; i < end; i++) {
      char c = text[i];
      if (c < 0x80) {
        bytes[at++] = (byte) c;
      } else if (c < 0x800) {
        bytes[at++] = (byte) (0xC0 | c >> 6);
        bytes[at++] = (byte) (0x80 | c & 0x3F);
      } else if (Character.isHighSurrogate(c)
          && i + 1 < end
          && Character.isLowSurrogate(text[i + 1])) {
        int point = Character.toCodePoint(c, text[++i]);
        bytes[at++] = (byte) (0xF0 | point >> 18);
        bytes[at++] = (byte) (0x80 | point >> 12 & 0x3F);
        bytes[at++] = (byte) (0x80 | point >> 6 & 0x3F);
        bytes[at++] = (byte) (0x80 | point & 0x3F);
      } else {
        bytes[at++] = (byte) (0xE0 | c >> 12);
        bytes[at++] = (byte) (0x80 | c >> 6 & 0x3F);
        bytes[at++] = (byte) (0x80 | c & 0x3F);
      }
    }
    return at;
  }
}
