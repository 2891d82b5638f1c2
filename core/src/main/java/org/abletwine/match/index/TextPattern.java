package org.abletwine.match.index;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * A pattern with two signs: one for any run of characters, one for any single character (a code
 * point). The whole text must fit. Immutable; safe to share between threads.
 *
 * <p>The signs for runs part the pattern into pieces. The first piece must stand at the start, the
 * last at the end, and each of the others is taken where it is first found after the one before:
 * taking it later could never help, so nothing is tried twice. Pieces without a sign are found in
 * linear time (Knuth, Morris and Pratt, 1977); one with signs for single characters costs its
 * length at each place at most.
 */
public final class TextPattern implements Serializable {
  private static final long serialVersionUID = 1L;

  /** Stands for any single character in a piece. */
  private static final int ANY = -1;

  private final int[][] pieces;

  /** For each piece without a sign, how far to go on after a mismatch; null for the others. */
  private final int[][] back;

  private TextPattern(List<int[]> pieces) {
    this.pieces = pieces.toArray(int[][]::new);
    this.back = new int[this.pieces.length][];
    for (int i = 1; i + 1 < this.pieces.length; i++) {
      int[] piece = this.pieces[i];
      back[i] = Arrays.stream(piece).anyMatch(c -> c == ANY) ? new int[0] : borders(piece);
    }
  }

  /**
   * Reads a pattern.
   *
   * @param pattern the pattern
   * @param run the sign for any run of characters
   * @param one the sign for any single character
   * @param escape the character after which both signs, and itself, stand for themselves; negative
   *     for none
   * @return the pattern
   * @throws IllegalArgumentException when the escape character stands before anything else
   */
  public static TextPattern of(String pattern, char run, char one, int escape) {
    List<int[]> pieces = new ArrayList<>();
    int[] points = pattern.codePoints().toArray();
    int[] piece = new int[points.length];
    int length = 0;
    for (int i = 0; i < points.length; i++) {
      int c = points[i];
      if (c == escape) {
        boolean sign =
            i + 1 < points.length
                && (points[i + 1] == run || points[i + 1] == one || points[i + 1] == escape);
        if (!sign) {
          throw new IllegalArgumentException(
              "the escape character must stand before " + run + ", " + one + " or itself");
        }
        piece[length++] = points[++i];
      } else if (c == run) {
        pieces.add(Arrays.copyOf(piece, length));
        length = 0;
      } else {
        piece[length++] = c == one ? ANY : c;
      }
    }
    pieces.add(Arrays.copyOf(piece, length));
    return new TextPattern(pieces);
  }

  /**
   * @param text a text
   * @return whether the whole of it fits
   */
  public boolean fits(String text) {
    int at = end(pieces[0], text, 0);
    if (pieces.length == 1 || at < 0) {
      return at == text.length();
    }
    int[] last = pieces[pieces.length - 1];
    int tail = text.length();
    for (int i = 0; i < last.length; i++) {
      if (tail <= at) {
        return false;
      }
      tail -= Character.charCount(text.codePointBefore(tail));
    }
    if (tail < at || end(last, text, tail) != text.length()) {
      return false;
    }
    for (int i = 1; i + 1 < pieces.length && at >= 0; i++) {
      int[] piece = pieces[i];
      at =
          back[i].length == piece.length
              ? find(piece, back[i], text, at, tail)
              : findAny(piece, text, at, tail);
    }
    return at >= 0;
  }

  /** Where a piece that stands at a place ends; negative when it does not stand there. */
  private static int end(int[] piece, String text, int from) {
    int at = from;
    for (int c : piece) {
      if (at >= text.length()) {
        return -1;
      }
      int here = text.codePointAt(at);
      if (c != ANY && c != here) {
        return -1;
      }
      at += Character.charCount(here);
    }
    return at;
  }

  /** The end of a piece's first occurrence between two places; negative when there is none. */
  private static int find(int[] piece, int[] back, String text, int from, int to) {
    int matched = 0;
    int at = from;
    while (matched < piece.length) {
      if (at >= to) {
        return -1;
      }
      int here = text.codePointAt(at);
      while (matched > 0 && piece[matched] != here) {
        matched = back[matched - 1];
      }
      matched += piece[matched] == here ? 1 : 0;
      at += Character.charCount(here);
    }
    return at;
  }

  /** As {@link #find}, for a piece with signs for single characters. */
  private static int findAny(int[] piece, String text, int from, int to) {
    int at = from;
    while (at < to) {
      int end = end(piece, text, at);
      if (end >= 0) {
        return end <= to ? end : -1;
      }
      at += Character.charCount(text.codePointAt(at));
    }
    return -1;
  }

  /** For each beginning of a piece the longest shorter beginning that it ends with. */
  private static int[] borders(int[] piece) {
    int[] borders = new int[piece.length];
    int matched = 0;
    for (int i = 1; i < piece.length; i++) {
      while (matched > 0 && piece[matched] != piece[i]) {
        matched = borders[matched - 1];
      }
      matched += piece[matched] == piece[i] ? 1 : 0;
      borders[i] = matched;
    }
    return borders;
  }

  @Override
  public String toString() {
    return "TextPattern[" + pieces.length + " pieces]";
  }
}
