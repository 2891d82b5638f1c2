package org.abletwine.match.near;

/** How alike two codes are, from 0 to 1. Stateless. */
final class CodeLikeness {
  /** Codes that only differ in the zeros they begin with. */
  static final double PADDED = 0.95;

  /** What an edit costs when two characters changed places. */
  private static final double SWAP = 0.7;

  /** A code that another begins or ends with. */
  private static final double PART = 0.7;

  private static final double PART_SHARE = 0.2;
  private static final double LEAST = 0.5;
  private static final int DIGITS = 10;
  private static final int LETTERS = 26;

  private CodeLikeness() {}

  static double of(String one, String other) {
    if (sameButZeros(one, other)) {
      return PADDED;
    }
    String a = FoldedText.withoutZeros(one);
    String b = FoldedText.withoutZeros(other);
    int longest = Math.max(one.length(), other.length());
    double edits = swapped(a, b) ? SWAP : Edits.between(a, b);
    double alike = Math.max(0, 1 - edits / longest);
    String little = a.length() <= b.length() ? a : b;
    String large = little.equals(a) ? b : a;
    if (little.length() >= 2 && contained(little, large)) {
      alike = Math.max(alike, PART + PART_SHARE * little.length() / large.length());
    }
    return alike >= LEAST ? alike : 0;
  }

  /** Whether a code has another, and letters behind or before its digits or the other way round. */
  private static boolean contained(String little, String large) {
    int length = little.length();
    int rest = large.length() - length;
    return rest > 0
        && (large.startsWith(little) && parted(large, length)
            || large.endsWith(little) && parted(large, rest));
  }

  private static boolean parted(String code, int at) {
    return Character.isDigit(code.charAt(at - 1)) != Character.isDigit(code.charAt(at));
  }

  /**
   * How many of some codes would be one edit from a code by chance, were they any of its length.
   *
   * @param codes how many there are
   */
  static double byChance(String code, int codes) {
    double space = 1;
    for (int i = 0; i < code.length(); i++) {
      space *= Character.isDigit(code.charAt(i)) ? DIGITS : LETTERS;
    }
    return codes * (double) DIGITS * code.length() / space;
  }

  /** Whether codes are the same once both are padded. */
  static boolean sameButZeros(String one, String other) {
    return FoldedText.withoutZeros(one).equals(FoldedText.withoutZeros(other));
  }

  private static boolean swapped(String one, String other) {
    return one.length() == other.length()
        && Edits.between(one, other) == 1
        && one.chars().sum() == other.chars().sum();
  }
}
