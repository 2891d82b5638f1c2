package org.abletwine.table.text;

import java.util.Arrays;

/**
 * How alike two texts are by their letters: how many they have in common at about the same place
 * and in which order (Jaro 1989, "Advances in record-linkage methodology as applied to matching the
 * 1985 census of Tampa, Florida"), and more where their beginnings agree (Winkler 1990, "String
 * comparator metrics and enhanced decision rules"; the prefix counts from 0.7 on, as in his
 * program). In the product of the two lengths at worst. Stateless.
 */
public final class JaroWinkler {
  private static final int LONGEST_PREFIX = 4;
  private static final double PREFIX_WEIGHT = 0.1;
  private static final double PREFIX_FROM = 0.7;

  private JaroWinkler() {}

  /**
   * Compares two texts, by UTF-16 code unit.
   *
   * @param one a text
   * @param other another
   * @return 0 for nothing in common, up to 1 for equal
   */
  public static double similarity(String one, String other) {
    if (one.equals(other)) {
      return 1;
    }
    String few = one.length() > other.length() ? other : one;
    String many = one.length() > other.length() ? one : other;
    int reach = Math.max(many.length() / 2 - 1, 0);
    int[] partner = new int[few.length()];
    boolean[] taken = new boolean[many.length()];
    int common = 0;
    for (int i = 0; i < partner.length; i++) {
      partner[i] = partner(few.charAt(i), many, taken, i - reach, i + reach);
      common += partner[i] < 0 ? 0 : 1;
    }
    if (common == 0) {
      return 0;
    }
    double share = common;
    double jaro =
        (share / one.length()
                + share / other.length()
                + (share - outOfOrder(few, many, partner, taken) / 2.0) / share)
            / 3;
    return jaro < PREFIX_FROM ? jaro : jaro + PREFIX_WEIGHT * prefix(few, many) * (1 - jaro);
  }

  /** The first place of a letter within reach that no other has taken; -1 for none. */
  private static int partner(char letter, String many, boolean[] taken, int from, int to) {
    for (int at = Math.max(from, 0); at < Math.min(to + 1, many.length()); at++) {
      if (!taken[at] && many.charAt(at) == letter) {
        taken[at] = true;
        return at;
      }
    }
    return -1;
  }

  /** Of the letters in common, taken in the order of each text, how many differ. */
  private static int outOfOrder(String few, String many, int[] partner, boolean[] taken) {
    int differ = 0;
    int at = -1;
    for (int i = 0; i < partner.length; i++) {
      if (partner[i] < 0) {
        continue;
      }
      do {
        at++;
      } while (!taken[at]);
      differ += few.charAt(i) == many.charAt(at) ? 0 : 1;
    }
    return differ;
  }

  private static int prefix(String few, String many) {
    int most = Math.min(LONGEST_PREFIX, few.length());
    int differs = Arrays.mismatch(few.toCharArray(), 0, most, many.toCharArray(), 0, most);
    return differs < 0 ? most : differs;
  }
}
