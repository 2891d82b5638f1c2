package org.abletwine.match.near;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * How alike two keys are, from 0 to 1, word by word. 1 means that only what nobody compares by
 * differs. Belongs to one thread.
 */
final class Likeness {
  /** The share of the vectors' direction; the words have the rest. */
  private static final double DIRECTION = 0.35;

  /** How much it counts that one of them is contained in the other. */
  private static final double CONTAINED = 0.1;

  /** What is left when both have numbers, and not the same. */
  private static final double OTHER_NUMBERS = 0.6;

  /** And when only one has any. */
  private static final double NUMBERS_MISSING = 0.9;

  /** The same words in another order. */
  private static final double SWAPPED = 0.98;

  /** The most that texts have that differ. */
  private static final double NOT_THE_SAME = 0.97;

  /** What a word weighs that every key has. */
  private static final double LEAST_WEIGHT = 0.1;

  private final PieceIndex index;
  private String[] ours = {};
  private String folded = "";

  Likeness(PieceIndex index) {
    this.index = index;
  }

  /** States the key that others are compared with, folded. */
  void of(String key) {
    folded = key;
    ours = parts(key);
  }

  private static String[] parts(String key) {
    return key.split(String.valueOf(FoldedText.PART), -1);
  }

  /**
   * Compares.
   *
   * @param other the other key, folded
   * @param direction how far their vectors point the same way
   */
  double to(String other, double direction) {
    if (folded.equals(other)) {
      return 1;
    }
    String[] theirs = parts(other);
    if (ours.length == 1 || theirs.length != ours.length) {
      return part(folded, other, direction);
    }
    // Of several parts the least alike counts most: a person names the one that disagrees.
    double least = 1;
    double sum = 0;
    for (int i = 0; i < ours.length; i++) {
      double one = ours[i].equals(theirs[i]) ? 1 : part(ours[i], theirs[i], 0);
      least = Math.min(least, one);
      sum += one;
    }
    return (least + sum / ours.length) / 2;
  }

  private double part(String one, String other, double direction) {
    if (one.isEmpty() || other.isEmpty()) {
      return 0;
    }
    if (one.indexOf(' ') < 0
        && other.indexOf(' ') < 0
        && (FoldedText.code(one) || FoldedText.code(other))) {
      return CodeLikeness.of(one, other);
    }
    String[] words = one.split(" ");
    String[] others = other.split(" ");
    double soft = soft(words, others);
    if (soft >= 1 - 1e-9) {
      return SWAPPED;
    }
    double mixed = direction == 0 ? soft : DIRECTION * direction + (1 - DIRECTION) * soft;
    return Math.min(NOT_THE_SAME, mixed * numbers(words, others));
  }

  private static double numbers(String[] words, String[] others) {
    Set<String> mine = numbers(words);
    Set<String> theirs = numbers(others);
    if (mine.equals(theirs)) {
      return 1;
    }
    return mine.isEmpty() || theirs.isEmpty() ? NUMBERS_MISSING : OTHER_NUMBERS;
  }

  private static Set<String> numbers(String[] words) {
    Set<String> numbers = new TreeSet<>();
    for (String word : words) {
      int at = 0;
      while (at < word.length()) {
        int end = at;
        while (end < word.length() && Character.isDigit(word.charAt(end))) {
          end++;
        }
        if (end > at) {
          numbers.add(FoldedText.withoutZeros(word.substring(at, end)));
        }
        at = end + 1;
      }
    }
    return numbers;
  }

  private double weight(String word) {
    return index.rarity(index.at(TextPieces.word(word))) - 1 + LEAST_WEIGHT;
  }

  /** Words of ours that stand for words of theirs: the first of each, and how many, 1 or 2. */
  private record Pair(int first, int count, int other, int otherCount, double alike, double gain) {}

  /**
   * The weight of the words that have a like one, in both; the harmonic mean of the two shares, and
   * a little of the greater.
   */
  private double soft(String[] words, String[] others) {
    double[] weights = weights(words);
    double[] otherWeights = weights(others);
    boolean[] used = new boolean[words.length];
    boolean[] otherUsed = new boolean[others.length];
    double matched = 0;
    double otherMatched = 0;
    double all = 0;
    double otherAll = 0;
    for (Pair pair : pairs(words, others, weights, otherWeights)) {
      if (taken(used, pair.first(), pair.count())
          || taken(otherUsed, pair.other(), pair.otherCount())) {
        continue;
      }
      take(used, pair.first(), pair.count());
      take(otherUsed, pair.other(), pair.otherCount());
      double mine = sum(weights, pair.first(), pair.count());
      double theirs = sum(otherWeights, pair.other(), pair.otherCount());
      if (pair.alike() < 1 || pair.count() != pair.otherCount()) {
        mine = Math.min(mine, theirs); // a word misspelt is as common as the one meant
        theirs = mine;
      }
      matched += pair.alike() * mine;
      otherMatched += pair.alike() * theirs;
      all += mine;
      otherAll += theirs;
    }
    all += unused(weights, used);
    otherAll += unused(otherWeights, otherUsed);
    double mine = matched / all;
    double theirs = otherMatched / otherAll;
    double both = mine + theirs == 0 ? 0 : 2 * mine * theirs / (mine + theirs);
    return (1 - CONTAINED) * both + CONTAINED * Math.max(mine, theirs);
  }

  private double[] weights(String[] words) {
    double[] weights = new double[words.length];
    for (int i = 0; i < words.length; i++) {
      weights[i] = weight(words[i]);
    }
    return weights;
  }

  private static List<Pair> pairs(
      String[] words, String[] others, double[] weights, double[] otherWeights) {
    List<Pair> pairs = new ArrayList<>();
    for (int i = 0; i < words.length; i++) {
      for (int j = 0; j < others.length; j++) {
        double alike = WordLikeness.of(words[i], others[j]);
        if (alike > 0) {
          pairs.add(new Pair(i, 1, j, 1, alike, alike * Math.min(weights[i], otherWeights[j])));
        }
        if (i + 1 < words.length) {
          double joined = WordLikeness.joined(words[i], words[i + 1], others[j]);
          if (joined > 0) {
            pairs.add(new Pair(i, 2, j, 1, joined, joined * otherWeights[j]));
          }
        }
        if (j + 1 < others.length) {
          double joined = WordLikeness.joined(others[j], others[j + 1], words[i]);
          if (joined > 0) {
            pairs.add(new Pair(i, 1, j, 2, joined, joined * weights[i]));
          }
        }
      }
    }
    pairs.sort((one, other) -> Double.compare(other.gain(), one.gain()));
    return pairs;
  }

  private static boolean taken(boolean[] used, int from, int count) {
    return used[from] || used[from + count - 1];
  }

  private static void take(boolean[] used, int from, int count) {
    used[from] = true;
    used[from + count - 1] = true;
  }

  private static double sum(double[] weights, int from, int count) {
    return count == 1 ? weights[from] : weights[from] + weights[from + 1];
  }

  private static double unused(double[] weights, boolean[] used) {
    double sum = 0;
    for (int i = 0; i < weights.length; i++) {
      sum += used[i] ? 0 : weights[i];
    }
    return sum;
  }
}
