package org.abletwine.table.text;

import java.nio.charset.StandardCharsets;
import org.abletwine.table.DataException;

/**
 * Text as UTF-8, the one form in which cells are held. Byte order of UTF-8 is the order of code
 * points. Half of a surrogate pair, which no valid file contains but a program may pass, is
 * refused: it has no form in UTF-8. Safe for use by several threads.
 */
public final class Utf8 {
  /** Bytes that a character (UTF-16 unit) takes at most. */
  public static final int MOST_BYTES = 3;

  private Utf8() {}

  /**
   * Writes a text.
   *
   * @param text the text
   * @param into where to write; must have room for {@link #MOST_BYTES} a character
   * @param from where to start writing, 0-based
   * @return where writing ended, exclusive
   * @throws DataException when the text holds half of a surrogate pair
   */
  public static int write(CharSequence text, byte[] into, int from) {
    int at = from;
    int length = text.length();
    int ascii = text instanceof String string ? ascii(string, into, from) : 0;
    at += ascii;
    for (int i = ascii; i < length; i++) {
      char c = text.charAt(i);
      if (c < 0x80) {
        into[at++] = (byte) c;
      } else if (c < 0x800) {
        into[at++] = (byte) (0xC0 | c >> 6);
        into[at++] = (byte) (0x80 | c & 0x3F);
      } else if (!Character.isSurrogate(c)) {
        into[at++] = (byte) (0xE0 | c >> 12);
        into[at++] = (byte) (0x80 | c >> 6 & 0x3F);
        into[at++] = (byte) (0x80 | c & 0x3F);
      } else {
        at = pair(text, i++, into, at);
      }
    }
    return at;
  }

  /**
   * Writes the ASCII that a text begins with; returns how much. Apart, so that one kind of text is
   * met.
   */
  private static int ascii(String text, byte[] into, int from) {
    int length = text.length();
    int at = 0;
    while (at < length) {
      char c = text.charAt(at);
      if (c >= 0x80) {
        return at;
      }
      into[from + at++] = (byte) c;
    }
    return at;
  }

  private static int pair(CharSequence text, int i, byte[] into, int from) {
    char high = text.charAt(i);
    if (!Character.isHighSurrogate(high)
        || i + 1 == text.length()
        || !Character.isLowSurrogate(text.charAt(i + 1))) {
      throw new DataException(
          String.format(
              "a text holds U+%04X, half of a surrogate pair, at character %d: that is no character;"
                  + " pass both halves or neither",
              (int) high, i + 1));
    }
    int point = Character.toCodePoint(high, text.charAt(i + 1));
    into[from] = (byte) (0xF0 | point >> 18);
    into[from + 1] = (byte) (0x80 | point >> 12 & 0x3F);
    into[from + 2] = (byte) (0x80 | point >> 6 & 0x3F);
    into[from + 3] = (byte) (0x80 | point & 0x3F);
    return from + 4;
  }

  /**
   * A text's bytes.
   *
   * @param text the text
   * @throws DataException when the text holds half of a surrogate pair
   */
  public static byte[] bytes(String text) {
    byte[] room = new byte[MOST_BYTES * text.length()];
    return java.util.Arrays.copyOf(room, write(text, room, 0));
  }

  /**
   * A text from its bytes.
   *
   * @param bytes valid UTF-8
   * @param start the first byte, 0-based
   * @param end end, exclusive
   */
  public static String text(byte[] bytes, int start, int end) {
    return new String(bytes, start, end - start, StandardCharsets.UTF_8);
  }

  /**
   * Counts characters (code points).
   *
   * @param bytes valid UTF-8
   * @param start the first byte, 0-based
   * @param end end, exclusive
   */
  public static int points(byte[] bytes, int start, int end) {
    int points = 0;
    for (int i = start; i < end; i++) {
      points += leads(bytes[i]) ? 1 : 0;
    }
    return points;
  }

  /**
   * @param b a byte of valid UTF-8
   * @return whether a character begins with it
   */
  public static boolean leads(byte b) {
    return (b & 0xC0) != 0x80;
  }

  /**
   * @param bytes UTF-8
   * @param start the first byte, 0-based
   * @param end end, exclusive
   * @return whether all characters are ASCII
   */
  public static boolean ascii(byte[] bytes, int start, int end) {
    int any = 0;
    for (int i = start; i < end; i++) {
      any |= bytes[i];
    }
    return any >= 0;
  }
}
