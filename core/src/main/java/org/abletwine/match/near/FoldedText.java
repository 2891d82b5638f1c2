package org.abletwine.match.near;

import java.text.Normalizer;
import org.abletwine.key.encode.Spaces;

/**
 * A text without what people do not compare by: case, accents, punctuation, forms of one letter.
 * Its words are parted by single spaces. Parts of a key stay parted.
 */
final class FoldedText {
  /** Parts the parts of a key of several. */
  static final char PART = '\u001F';

  private static final char OTHER_APOSTROPHE = '\u2019';
  private static final char LETTER_APOSTROPHE = '\u02BC';

  private FoldedText() {}

  /**
   * Folds a text (Unicode Standard Annex 15 for accents and forms of letters). In a part without
   * spaces that has a digit, such as {@code WV-1204/7}, signs part no words: it is a code.
   */
  static String of(String text) {
    String plain = text;
    for (int i = 0; i < text.length(); i++) {
      if (text.charAt(i) > 0x7F) {
        plain = Normalizer.normalize(text, Normalizer.Form.NFKD);
        break;
      }
    }
    StringBuilder folded = new StringBuilder(plain.length());
    int start = 0;
    for (int end = plain.indexOf(PART); end >= 0; end = plain.indexOf(PART, start)) {
      part(plain, start, end, folded);
      folded.append(PART);
      start = end + 1;
    }
    part(plain, start, plain.length(), folded);
    return folded.toString();
  }

  private static void part(String plain, int start, int end, StringBuilder folded) {
    boolean parts = !codeLike(plain, start, end);
    boolean gap = false;
    for (int i = start; i < end; ) {
      int c = plain.codePointAt(i);
      i += Character.charCount(c);
      if (Character.isLetterOrDigit(c)) {
        if (gap && inWord(folded)) {
          folded.append(' ');
        }
        gap = false;
        letter(c, folded);
      } else if (parts && (c == '&' || c == '+')) {
        folded.append(inWord(folded) ? " and" : "and");
        gap = true;
      } else {
        gap |= parts && !left(c);
      }
    }
  }

  private static boolean codeLike(String plain, int start, int end) {
    int from = start;
    int to = end;
    while (from < to && Spaces.isSpace(plain.charAt(from))) {
      from++;
    }
    while (to > from && Spaces.isSpace(plain.charAt(to - 1))) {
      to--;
    }
    boolean digit = false;
    for (int i = from; i < to; i++) {
      if (Spaces.isSpace(plain.charAt(i))) {
        return false;
      }
      digit |= Character.isDigit(plain.charAt(i));
    }
    return digit;
  }

  private static boolean inWord(StringBuilder folded) {
    return folded.length() > 0 && folded.charAt(folded.length() - 1) != PART;
  }

  /** Whether a character is left out without parting words. */
  private static boolean left(int c) {
    int type = Character.getType(c);
    return type == Character.NON_SPACING_MARK
        || type == Character.ENCLOSING_MARK
        || type == Character.FORMAT
        || c == '\''
        || c == '`'
        || c == OTHER_APOSTROPHE
        || c == LETTER_APOSTROPHE;
  }

  private static void letter(int c, StringBuilder into) {
    switch (c) {
      case '\u00DF' -> into.append("ss");
      case '\u00E6', '\u00C6' -> into.append("ae");
      case '\u0153', '\u0152' -> into.append("oe");
      case '\u00F8', '\u00D8' -> into.append('o');
      case '\u0142', '\u0141' -> into.append('l');
      case '\u0111', '\u0110', '\u00F0', '\u00D0' -> into.append('d');
      case '\u00FE', '\u00DE' -> into.append("th");
      case '\u0131' -> into.append('i');
      default -> into.appendCodePoint(Character.toLowerCase(c));
    }
  }

  /**
   * Whether a folded text is a code: one word with a digit in it.
   *
   * @param folded a part of a key, folded
   */
  static boolean code(String folded) {
    boolean digit = false;
    for (int i = 0; i < folded.length(); i++) {
      char c = folded.charAt(i);
      if (c == ' ' || c == PART) {
        return false;
      }
      digit |= Character.isDigit(c);
    }
    return digit;
  }

  /** A word without the zeros that it begins with. */
  static String withoutZeros(String word) {
    int at = 0;
    while (at < word.length() - 1 && word.charAt(at) == '0') {
      at++;
    }
    return word.substring(at);
  }
}
