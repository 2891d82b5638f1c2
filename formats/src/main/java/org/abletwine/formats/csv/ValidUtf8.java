package org.abletwine.formats.csv;

/**
 * Tells valid UTF-8 (Unicode, table 3-7), eight bytes at a time where they are ASCII. Stateless.
 */
final class ValidUtf8 {
  /** The bits of a word that no ASCII has. */
  static final long HIGHS = 0x80L * ByteSearch.EACH;

  private ValidUtf8() {}

  /**
   * How far bytes are whole, valid characters.
   *
   * @param bytes the bytes
   * @param from the first, 0-based: a character begins there
   * @param to end, exclusive
   * @return where the first character begins that is not valid, or goes on past the end; else the
   *     end
   */
  static int end(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to) {
      if (bytes[at] >= 0) {
        at++;
        while (at + Long.BYTES <= to && (ByteSearch.word(bytes, at) & HIGHS) == 0) {
          at += Long.BYTES;
        }
      } else {
        int length = length(bytes, at, to);
        if (length == 0) {
          return at;
        }
        at += length;
      }
    }
    return at;
  }

  /** Bytes of the character beyond ASCII that begins at a byte; 0 when it is not valid or whole. */
  private static int length(byte[] bytes, int at, int to) {
    int lead = bytes[at] & 0xFF;
    int length = lead < 0xC2 ? 0 : lead < 0xE0 ? 2 : lead < 0xF0 ? 3 : lead < 0xF5 ? 4 : 0;
    if (at + length > to) {
      return 0;
    }
    for (int i = at + 1; i < at + length; i++) {
      if ((bytes[i] & 0xC0) != 0x80) {
        return 0;
      }
    }
    int second = length == 0 ? 0 : bytes[at + 1] & 0xFF;
    boolean wrong =
        lead == 0xE0 && second < 0xA0 // shorter forms of other characters
            || lead == 0xED && second > 0x9F // surrogates
            || lead == 0xF0 && second < 0x90
            || lead == 0xF4 && second > 0x8F; // beyond U+10FFFF
    return wrong ? 0 : length;
  }
}
