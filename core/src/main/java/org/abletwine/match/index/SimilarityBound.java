package org.abletwine.match.index;

/**
 * How similar keys can be to a text at most, so that most need not be compared. Similarity by Jaro
 * counts characters that both have, {@code m} of them: it is at most {@code (m / a + m / b + 1) /
 * 3} for lengths {@code a} and {@code b}, and Winkler adds a tenth of what is missing for each of
 * up to four first characters that are equal (Jaro, 1989; Winkler, 1990). And {@code m} is at most
 * what thirty-two classes of characters have in common: counts of four bits in two longs, all
 * looked at at once. Some nanoseconds a key, where comparing takes some hundred. Immutable.
 */
final class SimilarityBound {
  private static final int CLASSES = 32;
  private static final int IN_A_LONG = 16;
  private static final int MOST_COUNT = 15;
  private static final int PREFIX = 4;
  private static final double SCALE = 0.1;
  private static final long LOW = 0x0F0F0F0F0F0F0F0FL;
  private static final long TOPS = 0x8080808080808080L;
  private static final long ONES = 0x0101010101010101L;

  /** Stands for a text that has more of a class than can be counted: anything may be similar. */
  private static final long TOO_MANY = -1;

  private final int[] lengths;

  /** The first four characters of each key, the first lowest; zeros where there are fewer. */
  private final long[] starts;

  /** Two for each key. */
  private final long[] counts;

  /**
   * How often a text has each class of characters.
   *
   * @param first four bits for each of the first classes
   * @param second and for each of the others
   * @param start the first four characters, the first lowest
   */
  record Counts(long first, long second, long start) {}

  /**
   * @param keys the keys
   */
  SimilarityBound(String[] keys) {
    lengths = new int[keys.length];
    starts = new long[keys.length];
    counts = new long[2 * keys.length];
    for (int i = 0; i < keys.length; i++) {
      Counts of = counts(keys[i]);
      lengths[i] = keys[i].length();
      starts[i] = of.start();
      counts[2 * i] = of.first();
      counts[2 * i + 1] = of.second();
    }
  }

  static Counts counts(String text) {
    int[] each = new int[CLASSES];
    for (int i = 0; i < text.length(); i++) {
      if (++each[text.charAt(i) & CLASSES - 1] > MOST_COUNT - 1) {
        return new Counts(TOO_MANY, TOO_MANY, 0);
      }
    }
    long start = 0;
    for (int i = Math.min(PREFIX, text.length()) - 1; i >= 0; i--) {
      start = start << Character.SIZE | text.charAt(i);
    }
    return new Counts(packed(each, 0), packed(each, IN_A_LONG), start);
  }

  private static long packed(int[] each, int from) {
    long packed = 0;
    for (int i = 0; i < IN_A_LONG; i++) {
      packed |= (long) each[from + i] << 4 * i;
    }
    return packed;
  }

  /**
   * @param key which key, 0-based
   * @param length characters of the text
   * @param of its counts
   * @return their similarity is not greater
   */
  double most(int key, int length, Counts of) {
    long mine = counts[2 * key];
    int a = length;
    int b = lengths[key];
    if (mine == TOO_MANY || of.first() == TOO_MANY || a == 0 || b == 0) {
      return 1;
    }
    double common = common(mine, of.first()) + common(counts[2 * key + 1], of.second());
    double jaro = (common / a + common / b + 1) / 3;
    int equal = Long.numberOfTrailingZeros(starts[key] ^ of.start()) / Character.SIZE;
    int prefix = Math.min(equal, Math.min(a, b));
    // A little more, for the rounding of the sum.
    return jaro + SCALE * prefix * (1 - jaro) + 1e-9;
  }

  /** The sum of the lesser counts of each class. */
  static int common(long one, long other) {
    return lesser(one & LOW, other & LOW) + lesser(one >>> 4 & LOW, other >>> 4 & LOW);
  }

  /** The same for counts that have a byte each. */
  private static int lesser(long one, long other) {
    long notLess = ((one | TOPS) - other & TOPS) >>> 7;
    long mask = notLess * 0xFF;
    long least = other & mask | one & ~mask;
    return (int) (least * ONES >>> 56);
  }
}
