package org.abletwine.match;

/**
 * How similar keys can be to a text at most, so that most need not be compared. Similarity by Jaro
 * counts characters that both have, {@code m} of them: it is at most {@code (m / a + m / b + 1) /
 * 3} for lengths {@code a} and {@code b}, and Winkler adds a tenth of what is missing for each of
 * up to four first characters that are equal (Jaro, 1989; Winkler, 1990). And {@code m} is at most
 * what sixteen classes of characters have in common: counts of four bits in a long, all looked at
 * at once. About ten nanoseconds a key, where comparing takes some hundred. Immutable.
 */
final class SimilarityBound {
  private static final int CLASSES = 16;
  private static final int MOST_COUNT = 15;
  private static final int PREFIX = 4;
  private static final double SCALE = 0.1;
  private static final long LOW = 0x0F0F0F0F0F0F0F0FL;
  private static final long TOPS = 0x8080808080808080L;
  private static final long ONES = 0x0101010101010101L;

  /** Stands for a text that has more of a class than can be counted: anything may be similar. */
  private static final long TOO_MANY = -1;

  private final String[] keys;
  private final long[] counts;

  /**
   * How often a text has each class of characters.
   *
   * @param packed four bits for each class
   */
  record Counts(long packed) {}

  /**
   * @param keys the keys; not copied
   */
  SimilarityBound(String[] keys) {
    this.keys = keys;
    counts = new long[keys.length];
    for (int i = 0; i < keys.length; i++) {
      counts[i] = counts(keys[i]).packed();
    }
  }

  static Counts counts(String text) {
    int[] each = new int[CLASSES];
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (++each[(c ^ c >>> 4) & CLASSES - 1] > MOST_COUNT - 1) {
        return new Counts(TOO_MANY);
      }
    }
    long packed = 0;
    for (int i = 0; i < CLASSES; i++) {
      packed |= (long) each[i] << 4 * i;
    }
    return new Counts(packed);
  }

  /**
   * @param key which key, 0-based
   * @param text the text
   * @param of its counts
   * @return their similarity is not greater
   */
  double most(int key, String text, Counts of) {
    long mine = counts[key];
    int a = text.length();
    int b = keys[key].length();
    if (mine == TOO_MANY || of.packed() == TOO_MANY || a == 0 || b == 0) {
      return 1;
    }
    double common = common(mine, of.packed());
    double jaro = (common / a + common / b + 1) / 3;
    int prefix = 0;
    int most = Math.min(PREFIX, Math.min(a, b));
    while (prefix < most && text.charAt(prefix) == keys[key].charAt(prefix)) {
      prefix++;
    }
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
