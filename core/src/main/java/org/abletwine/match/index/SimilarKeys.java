package org.abletwine.match.index;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.table.text.JaroWinkler;
import org.jspecify.annotations.Nullable;

/**
 * Finds the reference keys most similar to a text, by Jaro-Winkler.
 *
 * <p>Up to 10,000 keys all that could be it are compared. Beyond that comparing every key with
 * every other is out of the question, so candidates are blocked by the sorted neighbourhood method
 * (Hernández and Stolfo, 1995): the reference keys are sorted in three orders (as they are, from
 * the back, and by their first half and then from the back), and only the neighbours of a key's
 * place in each order are compared. A slip near the end, near the beginning or in the second half
 * leaves the right key close by in one of them; two slips far apart may be missed. Immutable; safe
 * to share between threads.
 */
public final class SimilarKeys {
  private static final int NEIGHBOURS = 10;
  private static final int FEW = 10_000;

  private final String[] keys;
  private final String[][] orders = new String[3][];
  private final int[][] ranks = new int[3][];

  @GuardedBy("this") private @Nullable SimilarityBound bound;

  /**
   * @param keys the reference keys
   */
  public SimilarKeys(List<String> keys) {
    this.keys = keys.toArray(String[]::new);
    for (int order = 0; order < orders.length; order++) {
      sort(order);
    }
  }

  private void sort(int order) {
    String[] forms = new String[keys.length];
    Integer[] places = new Integer[keys.length];
    for (int i = 0; i < keys.length; i++) {
      forms[i] = form(keys[i], order);
      places[i] = i;
    }
    Arrays.sort(places, Comparator.comparing(i -> forms[i]));
    orders[order] = new String[keys.length];
    ranks[order] = new int[keys.length];
    for (int i = 0; i < keys.length; i++) {
      orders[order][i] = forms[places[i]];
      ranks[order][i] = places[i];
    }
  }

  private static String form(String key, int order) {
    return switch (order) {
      case 0 -> key;
      case 1 -> new StringBuilder(key).reverse().toString();
      default -> {
        int half = key.length() / 2;
        yield key.substring(0, half) + new StringBuilder(key.substring(half)).reverse();
      }
    };
  }

  /**
   * The most similar keys: one, or several that are equally similar. Up to 10,000 keys all that
   * could be it are compared, beyond that the neighbours.
   *
   * @param key the key to compare with
   * @param atLeast the least similarity, 0 to 1
   * @return the most similar, by themselves; empty when none is similar enough
   */
  public List<Similar> mostSimilar(String key, double atLeast) {
    List<Similar> best = new ArrayList<>();
    // The neighbours first: what is most similar is mostly among them, and then few others can be.
    Set<Integer> neighbours = candidates(key);
    neighbours.forEach(i -> compare(key, keys[i], atLeast, best));
    if (keys.length <= FEW) {
      SimilarityBound all = bound();
      SimilarityBound.Counts counts = SimilarityBound.counts(key);
      for (int i = 0; i < keys.length; i++) {
        boolean possible = all.most(i, key.length(), counts) >= wanted(atLeast, best);
        if (possible && !neighbours.contains(i)) {
          compare(key, keys[i], atLeast, best);
        }
      }
    }
    best.sort(Comparator.comparing(Similar::key));
    return best;
  }

  /**
   * A similar key.
   *
   * @param key the key
   * @param similarity from 0 to 1
   */
  public record Similar(String key, double similarity) {}

  private static double wanted(double atLeast, List<Similar> best) {
    return best.isEmpty() ? atLeast : best.get(0).similarity();
  }

  private static void compare(String key, String other, double atLeast, List<Similar> best) {
    double similarity = JaroWinkler.similarity(key, other);
    double wanted = wanted(atLeast, best);
    if (similarity > wanted) {
      best.clear();
    }
    if (similarity >= wanted) {
      best.add(new Similar(other, similarity));
    }
  }

  private synchronized SimilarityBound bound() {
    SimilarityBound made = bound == null ? new SimilarityBound(keys) : bound;
    bound = made;
    return made;
  }

  private Set<Integer> candidates(String key) {
    Set<Integer> candidates = new HashSet<>();
    for (int order = 0; order < orders.length; order++) {
      int at = Arrays.binarySearch(orders[order], form(key, order));
      int place = at < 0 ? -at - 1 : at;
      for (int i = Math.max(0, place - NEIGHBOURS);
          i < Math.min(keys.length, place + NEIGHBOURS);
          i++) {
        candidates.add(ranks[order][i]);
      }
    }
    return candidates;
  }

  @Override
  public String toString() {
    return "SimilarKeys[" + keys.length + " keys]";
  }
}
