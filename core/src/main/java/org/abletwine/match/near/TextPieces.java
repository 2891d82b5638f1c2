package org.abletwine.match.near;

import java.util.Arrays;

/**
 * The pieces of a folded text as numbers: its words, and the two- and three-letter pieces of each,
 * whose beginning and end count as a letter. Each piece stands once. Belongs to one thread.
 */
final class TextPieces {
  /** Codes of up to so many characters are found with any one of them left out. */
  private static final int LONGEST_CODE = 16;

  private static final int SHORTEST_CODE = 3;

  private static final int WORD = 3;
  private static final int CODE = 4;
  private static final long KIND = 0x9E3779B97F4A7C15L;
  private static final long BASIS = 0xCBF29CE484222325L;
  private static final long PRIME = 0x100000001B3L;

  /** Numbers of the long pieces (words, three letters) are even, of those of two letters odd. */
  private static final long SHORT = 1;

  private long[] pieces = new long[64];
  private int count;

  /** Takes the pieces of a text. */
  void of(String folded) {
    count = 0;
    int length = folded.length();
    int start = 0;
    while (start < length) {
      int end = start;
      while (end < length && !gap(folded.charAt(end))) {
        end++;
      }
      if (end > start) {
        word(folded, start, end);
      }
      start = end + 1;
    }
    distinct();
  }

  private static boolean gap(char c) {
    return c == ' ' || c == FoldedText.PART;
  }

  private void word(String text, int start, int end) {
    add(longPiece(WORD, text, start, end));
    for (int i = start - 1; i < end; i++) {
      int first = i < start ? 0 : text.charAt(i);
      int second = i + 1 < end ? text.charAt(i + 1) : 0;
      add(hash(2, first, second, 0) | SHORT);
      if (i + 1 < end) {
        int third = i + 2 < end ? text.charAt(i + 2) : 0;
        add(hash(1, first, second, third) & ~SHORT);
      }
    }
  }

  /**
   * Takes what finds a code of which one character is wrong, missing or too many, or two changed
   * places: the code without any one of its characters (the symmetric deletes of Bocek, Hunt and
   * Stiller, "Fast similarity search in large dictionaries", 2007).
   */
  void ofCode(String folded) {
    count = 0;
    String code = FoldedText.withoutZeros(folded);
    int length = code.length();
    if (length < SHORTEST_CODE || length > LONGEST_CODE) {
      return;
    }
    add(longPiece(CODE, code, 0, length));
    for (int out = 0; out < length; out++) {
      long hash = BASIS ^ CODE * KIND;
      for (int i = 0; i < length; i++) {
        hash = i == out ? hash : (hash ^ code.charAt(i)) * PRIME;
      }
      add(spread(hash) & ~SHORT);
    }
    distinct();
  }

  /** The number of a word. */
  static long word(String word) {
    return longPiece(WORD, word, 0, word.length());
  }

  private static long longPiece(int kind, String text, int start, int end) {
    long hash = BASIS ^ kind * KIND;
    for (int i = start; i < end; i++) {
      hash = (hash ^ text.charAt(i)) * PRIME;
    }
    return spread(hash) & ~SHORT;
  }

  private static long hash(int kind, int first, int second, int third) {
    return spread(kind * KIND ^ ((long) first << 32 | (long) second << 16 | third) * PRIME);
  }

  /** Spreads bits, and is never zero once its lowest bit is set or cleared. */
  private static long spread(long hash) {
    long spread = (hash ^ hash >>> 32) * KIND;
    spread ^= spread >>> 29;
    return spread >>> 1 == 0 ? 2 : spread;
  }

  private void add(long piece) {
    if (count == pieces.length) {
      pieces = Arrays.copyOf(pieces, 2 * count);
    }
    pieces[count++] = piece;
  }

  private void distinct() {
    Arrays.sort(pieces, 0, count);
    int kept = 0;
    for (int i = 0; i < count; i++) {
      if (i == 0 || pieces[i] != pieces[i - 1]) {
        pieces[kept++] = pieces[i];
      }
    }
    count = kept;
  }

  /** Returns how many there are. */
  int count() {
    return count;
  }

  /** Returns a piece; they are in the order of their numbers. */
  long piece(int at) {
    return pieces[at];
  }

  /** Whether a piece is a word or has three letters. */
  static boolean isLong(long piece) {
    return (piece & SHORT) == 0;
  }
}
