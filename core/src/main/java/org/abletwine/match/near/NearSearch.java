package org.abletwine.match.near;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.match.NearMiss;

/** Searches the keys of a reference. For one thread; it holds two bytes for each key. */
public final class NearSearch {
  /** Entries of lists that are gone through for a key, rarest pieces first. */
  private static final int MOST_ENTRIES = 20_000;

  /** Parts that weights are counted in; the pieces of some thousand characters fit. */
  private static final int SCALE = 8;

  /** Keys that are compared as whole vectors. */
  private static final int CANDIDATES = 40;

  /** Of these, keys that are compared word by word. */
  private static final int COMPARED = 16;

  /** Codes that are compared because they are one slip apart. */
  private static final int MOST_CODES = 64;

  /** What is less alike is not near at all. */
  private static final double LEAST = 0.25;

  private final NearKeys keys;
  private final PieceIndex index;
  private final Likeness likeness;
  private final TextPieces pieces = new TextPieces();
  private final TextPieces theirs = new TextPieces();

  /** What each key shares with the one searched for, in {@link #SCALE}ths: small, to stay near. */
  private final char[] sums;

  private int[] touched = new int[1024];
  private int touchedCount;
  private long[] byRarity = new long[64];

  NearSearch(NearKeys keys) {
    this.keys = keys;
    index = keys.index();
    likeness = new Likeness(index);
    sums = new char[keys.size()];
  }

  /** A key that may be near. */
  private record Candidate(int key, double likeness) {}

  /**
   * The nearest keys.
   *
   * @param key what did not match, as it is compared
   * @param most how many to give at most
   * @return the nearest first, of equals the first by its text; empty when none is near
   */
  public List<NearMiss> nearest(String key, int most) {
    String folded = FoldedText.of(key);
    int[] found = candidates(folded);
    double length = length();
    double[] alike = new double[found.length];
    for (int i = 0; i < found.length; i++) {
      alike[i] = cosine(found[i], length);
    }
    Integer[] order = new Integer[found.length];
    Arrays.setAll(order, i -> i);
    Arrays.sort(order, (one, other) -> Double.compare(alike[other], alike[one]));
    likeness.of(folded);
    List<Candidate> near = new ArrayList<>();
    for (int i = 0; i < Math.min(COMPARED, order.length); i++) {
      int at = found[order[i]];
      near.add(new Candidate(at, likeness.to(keys.folded(at), alike[order[i]])));
    }
    for (int at : codes(folded)) {
      if (near.stream().noneMatch(one -> one.key() == at)) {
        near.add(new Candidate(at, likeness.to(keys.folded(at), 0)));
      }
    }
    near.sort(this::nearestFirst);
    return judged(folded, near, most);
  }

  private int nearestFirst(Candidate one, Candidate other) {
    int nearer = Double.compare(other.likeness(), one.likeness());
    return nearer != 0 ? nearer : keys.shown(one.key()).compareTo(keys.shown(other.key()));
  }

  private List<NearMiss> judged(String folded, List<Candidate> near, int most) {
    boolean chance = !near.isEmpty() && byChance(folded, keys.folded(near.get(0).key()));
    List<NearMiss> misses = new ArrayList<>();
    for (int i = 0; i < Math.min(most, near.size()); i++) {
      double own = near.get(i).likeness();
      if (own < LEAST) {
        break;
      }
      double next = near.size() > i + 1 ? near.get(i + 1).likeness() : 0;
      misses.add(
          new NearMiss(
              keys.shown(near.get(i).key()),
              own,
              i == 0 && Judgement.clear(own, own - next) && (!chance || own >= CodeLikeness.PADDED),
              Judgement.weak(own)));
    }
    return misses;
  }

  /** Whether two codes may be one edit apart by chance, so close do the keys lie together. */
  private boolean byChance(String code, String nearest) {
    String longer = nearest.length() > code.length() ? nearest : code;
    return FoldedText.code(code)
        && FoldedText.code(nearest)
        && CodeLikeness.byChance(longer, keys.size()) > Judgement.MOST_BY_CHANCE;
  }

  /** The keys that share the most of rare pieces, in no order. */
  private int[] candidates(String folded) {
    pieces.of(folded);
    int count = 0;
    byRarity = pieces.count() > byRarity.length ? new long[2 * pieces.count()] : byRarity;
    for (int i = 0; i < pieces.count(); i++) {
      int at = index.at(pieces.piece(i));
      if (TextPieces.isLong(pieces.piece(i)) && index.count(at) > 0) {
        byRarity[count++] = (long) index.count(at) << Integer.SIZE | at;
      }
    }
    Arrays.sort(byRarity, 0, count);
    touchedCount = 0;
    long entries = 0;
    for (int i = 0; i < count; i++) {
      int at = (int) byRarity[i];
      entries += index.count(at);
      if (entries > MOST_ENTRIES && touchedCount > 0) {
        break;
      }
      double rarity = index.rarity(at);
      int weight = (int) (SCALE * rarity * rarity);
      for (int entry = index.start(at); entry < index.end(at); entry++) {
        int key = index.key(entry);
        int sum = sums[key];
        if (sum == 0) {
          touch(key);
        }
        sums[key] = (char) Math.min(Character.MAX_VALUE, sum + weight);
      }
    }
    return best();
  }

  private void touch(int key) {
    if (touchedCount == touched.length) {
      touched = Arrays.copyOf(touched, 2 * touchedCount);
    }
    touched[touchedCount++] = key;
  }

  /** The best of the keys touched; their sums are taken back. Equal ones go by their number. */
  private int[] best() {
    int[] best = new int[Math.min(CANDIDATES, touchedCount)];
    float[] scores = new float[best.length];
    int held = 0;
    for (int i = 0; i < touchedCount; i++) {
      int key = touched[i];
      float score = sums[key] / index.length(key);
      sums[key] = 0;
      if (held < best.length) {
        up(best, scores, held++, key, score);
      } else if (better(score, key, scores[0], best[0])) {
        down(best, scores, key, score);
      }
    }
    return best;
  }

  private static boolean better(float score, int key, float other, int otherKey) {
    return score > other || score == other && key < otherKey;
  }

  /** Puts a key into a heap whose worst stands first. */
  private static void up(int[] best, float[] scores, int end, int key, float score) {
    int at = end;
    while (at > 0) {
      int parent = (at - 1) / 2;
      if (!better(scores[parent], best[parent], score, key)) {
        break;
      }
      best[at] = best[parent];
      scores[at] = scores[parent];
      at = parent;
    }
    best[at] = key;
    scores[at] = score;
  }

  /** Puts a key in the place of the worst. */
  private static void down(int[] best, float[] scores, int key, float score) {
    int at = 0;
    int length = best.length;
    while (2 * at + 1 < length) {
      int child = 2 * at + 1;
      if (child + 1 < length
          && better(scores[child], best[child], scores[child + 1], best[child + 1])) {
        child++;
      }
      if (!better(score, key, scores[child], best[child])) {
        break;
      }
      best[at] = best[child];
      scores[at] = scores[child];
      at = child;
    }
    best[at] = key;
    scores[at] = score;
  }

  /** The length of the key as a vector of all its pieces. */
  private double length() {
    double sum = 0;
    for (int i = 0; i < pieces.count(); i++) {
      double rarity = index.rarity(index.at(pieces.piece(i)));
      sum += rarity * rarity;
    }
    return Math.sqrt(sum);
  }

  /** How far two vectors point the same way: 1 for the same way, 0 for nothing in common. */
  private double cosine(int key, double length) {
    theirs.of(keys.folded(key));
    double common = 0;
    double sum = 0;
    int mine = 0;
    for (int i = 0; i < theirs.count(); i++) {
      long piece = theirs.piece(i);
      double rarity = index.rarity(index.at(piece));
      sum += rarity * rarity;
      while (mine < pieces.count() && pieces.piece(mine) < piece) {
        mine++;
      }
      if (mine < pieces.count() && pieces.piece(mine) == piece) {
        common += rarity * rarity;
      }
    }
    return sum == 0 || length == 0 ? 0 : common / (length * Math.sqrt(sum));
  }

  /** The codes that are one slip from a code. */
  private int[] codes(String folded) {
    if (!FoldedText.code(folded)) {
      return new int[0];
    }
    theirs.ofCode(folded);
    int[] found = new int[MOST_CODES];
    int count = 0;
    for (int i = 0; i < theirs.count(); i++) {
      int at = index.at(theirs.piece(i));
      for (int entry = index.start(at); entry < index.end(at) && count < MOST_CODES; entry++) {
        found[count++] = index.key(entry);
      }
    }
    return Arrays.stream(found, 0, count).sorted().distinct().toArray();
  }
}
