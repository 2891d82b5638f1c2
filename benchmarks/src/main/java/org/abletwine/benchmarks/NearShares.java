package org.abletwine.benchmarks;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;

/**
 * How often the name meant is the first near miss, or among the first three, by kind of variation;
 * how often the first is clear, and right when it is; and how long many searches take.
 */
public final class NearShares {
  private static final int MOST = 3;
  private static final double HUNDRED = 100.0;

  private final Map<String, int[]> byKind = new LinkedHashMap<>();
  private final int[] all = new int[COUNTS];

  private static final int PAIRS = 0;
  private static final int FIRST = 1;
  private static final int THREE = 2;
  private static final int CLEAR = 3;
  private static final int CLEAR_RIGHT = 4;
  private static final int COUNTS = 5;

  /**
   * Counts.
   *
   * @param pairs what was searched for
   * @param found what was found for each
   */
  public NearShares(List<NameLists.Pair> pairs, List<List<NearMiss>> found) {
    for (int i = 0; i < pairs.size(); i++) {
      List<String> keys = found.get(i).stream().map(NearMiss::key).toList();
      int at = keys.indexOf(pairs.get(i).meant());
      boolean clear = !keys.isEmpty() && found.get(i).get(0).clear();
      int[] counts = byKind.computeIfAbsent(pairs.get(i).kind(), kind -> new int[COUNTS]);
      for (int[] into : List.of(counts, all)) {
        into[PAIRS]++;
        into[FIRST] += at == 0 ? 1 : 0;
        into[THREE] += at >= 0 ? 1 : 0;
        into[CLEAR] += clear ? 1 : 0;
        into[CLEAR_RIGHT] += clear && at == 0 ? 1 : 0;
      }
    }
  }

  /** Returns the share of names whose first near miss is right, in per cent. */
  public double first() {
    return HUNDRED * all[FIRST] / all[PAIRS];
  }

  /** Returns the share of names that are among the first three, in per cent. */
  public double three() {
    return HUNDRED * all[THREE] / all[PAIRS];
  }

  /** Returns the share of names whose first near miss is clear, in per cent. */
  public double clear() {
    return HUNDRED * all[CLEAR] / all[PAIRS];
  }

  /** Returns the share of clear near misses that are right, in per cent. */
  public double clearRight() {
    return HUNDRED * all[CLEAR_RIGHT] / all[CLEAR];
  }

  private void print() {
    System.out.printf(
        "%-38s %7s %7s %7s %7s %7s%n", "kind", "pairs", "first", "three", "clear", "right");
    byKind.forEach(NearShares::line);
    line("all", all);
  }

  private static void line(String name, int[] counts) {
    System.out.printf(
        "%-38s %,7d %6.1f%% %6.1f%% %6.1f%% %6.1f%%%n",
        name,
        counts[PAIRS],
        HUNDRED * counts[FIRST] / counts[PAIRS],
        HUNDRED * counts[THREE] / counts[PAIRS],
        HUNDRED * counts[CLEAR] / counts[PAIRS],
        counts[CLEAR] == 0 ? 0 : HUNDRED * counts[CLEAR_RIGHT] / counts[CLEAR]);
  }

  /**
   * Makes a list and searches it.
   *
   * @param seed what the list depends on
   * @param names how many names it has
   * @param wanted how many of them are searched for
   */
  public static NearShares of(long seed, int names, int wanted) {
    return of(seed, names, wanted, false);
  }

  /**
   * As {@link #of(long, int, int)}, by the method of a textbook.
   *
   * @param seed what the list depends on
   * @param names how many names it has
   * @param wanted how many of them are searched for
   */
  public static NearShares plain(long seed, int names, int wanted) {
    return of(seed, names, wanted, true);
  }

  private static NearShares of(long seed, int names, int wanted, boolean plain) {
    NameLists lists = new NameLists(seed, names);
    List<String> list = lists.names(names);
    List<NameLists.Pair> pairs = lists.pairs(list.subList(0, wanted), Set.copyOf(list));
    List<String> shuffled = new ArrayList<>(list);
    Collections.shuffle(shuffled, new Random(seed));
    List<String> asked = pairs.stream().map(NameLists.Pair::written).toList();
    if (plain) {
      PlainNear textbook = new PlainNear(shuffled);
      return new NearShares(
          pairs, asked.parallelStream().map(name -> textbook.nearest(name, MOST)).toList());
    }
    NearKeys near = new NearKeys(shuffled);
    return new NearShares(pairs, near.nearest(asked, MOST));
  }

  /**
   * Prints the shares per kind, then times a large search.
   *
   * @param args names of the labelled list, names of the large one, and how many it is searched for
   */
  public static void main(String[] args) {
    of(1, Integer.parseInt(args[0]), Integer.parseInt(args[0])).print();
    NearShares textbook = plain(1, Integer.parseInt(args[0]), Integer.parseInt(args[0]));
    line("all, by the method of a textbook", textbook.all);
    int names = Integer.parseInt(args[1]);
    int wanted = Integer.parseInt(args[2]);
    if (names == 0) {
      return;
    }
    NameLists lists = new NameLists(2, names);
    List<String> list = lists.names(names);
    List<String> written =
        lists.pairs(list.subList(0, wanted), Set.of()).stream()
            .map(NameLists.Pair::written)
            .toList();
    long before = System.nanoTime();
    NearKeys near = new NearKeys(list);
    long built = System.nanoTime();
    near.nearest(written, MOST);
    long ended = System.nanoTime();
    System.out.printf(
        "%,d against %,d names: %.1f s, of which %.1f for the index; %d bytes a name%n",
        wanted, names, (ended - before) / 1e9, (built - before) / 1e9, near.bytes() / names);
  }
}
