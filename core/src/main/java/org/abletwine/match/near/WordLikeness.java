package org.abletwine.match.near;

/** How alike two words are, from 0 to 1. Stateless. */
final class WordLikeness {
  /** A word that begins another: by how many letters it has. */
  private static final double INITIAL = 0.6;

  private static final double TWO_LETTERS = 0.75;
  private static final double BEGINNING = 0.7;
  private static final double BEGINNING_SHARE = 0.25;

  /** A word whose letters stand in another in their order, as in Intl for International. */
  private static final double SHORTENED = 0.8;

  private static final double SHORTENED_TO_TWO = 0.6;

  /** Words less alike by their edits are other words. */
  private static final double LEAST = 0.6;

  /** Two words written as one must be nearly the same. */
  private static final double LEAST_JOINED = 0.85;

  private WordLikeness() {}

  static double of(String one, String other) {
    if (one.equals(other)) {
      return 1;
    }
    String little = one.length() <= other.length() ? one : other;
    String large = little == one ? other : one;
    if (digits(little) || digits(large)) {
      return CodeLikeness.sameButZeros(little, large) ? 0.98 : 0;
    }
    double alike = little.charAt(0) == large.charAt(0) ? shortened(little, large) : 0;
    double edited = 1 - (double) Edits.between(little, large) / large.length();
    return edited >= LEAST ? Math.max(alike, edited) : alike;
  }

  private static double shortened(String little, String large) {
    int length = little.length();
    if (large.startsWith(little)) {
      return switch (length) {
        case 1 -> INITIAL;
        case 2 -> TWO_LETTERS;
        default -> BEGINNING + BEGINNING_SHARE * length / large.length();
      };
    }
    if (length < 2 || large.length() < length + 2 || !within(little, large)) {
      return 0;
    }
    boolean last = large.charAt(large.length() - 1) == little.charAt(length - 1);
    return length > 2 || last ? SHORTENED : SHORTENED_TO_TWO;
  }

  /** Whether the letters of a word stand in another in their order. */
  private static boolean within(String little, String large) {
    int at = 0;
    for (int i = 0; i < large.length() && at < little.length(); i++) {
      at += large.charAt(i) == little.charAt(at) ? 1 : 0;
    }
    return at == little.length();
  }

  /** Two words against one that may be both written together. */
  static double joined(String first, String second, String both) {
    int length = first.length() + second.length();
    int longest = Math.max(length, both.length());
    if (Math.abs(length - both.length()) > (1 - LEAST_JOINED) * longest) {
      return 0;
    }
    String together = first + second;
    double alike = together.equals(both) ? 1 : 1 - (double) Edits.between(together, both) / longest;
    return alike >= LEAST_JOINED ? alike : 0;
  }

  private static boolean digits(String word) {
    for (int i = 0; i < word.length(); i++) {
      if (Character.isDigit(word.charAt(i))) {
        return true;
      }
    }
    return false;
  }
}
