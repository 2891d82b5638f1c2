package org.abletwine.audit;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.text.DatePatterns;

/**
 * Steps with an argument that may make two keys agree, found in the keys themselves: what stands
 * before or after a key that is there, how many of its first or last characters are, how its dates
 * are written. What they win is measured by whoever asks; here only what wins nothing is left out.
 */
final class StepCandidates {
  private static final int MOST_AFFIXES = 4;
  private static final int LONGEST_AFFIX = 8;
  private static final int MOST_LENGTHS = 4;

  /** Different keys that an end must stand at, unless a sign parts it from them. */
  private static final int FEWEST = 2;

  private static final int SAMPLE = 300;

  /** Unmatched keys that are looked at: an end or a form that wins much is met among these. */
  private static final int MOST_KEYS = 50_000;

  private static final String ISO = "yyyy-MM-dd";
  private static final List<String> DATES =
      List.of(
          "d.M.yyyy",
          "d/M/yyyy",
          "M/d/yyyy",
          "d-M-yyyy",
          "yyyyMMdd",
          "yyyy/M/d",
          "d MMM yyyy",
          "d MMMM yyyy");

  private final DistinctKeys ours;
  private final DistinctKeys theirs;
  private final BitSet matched;

  /**
   * @param matched our keys that are there already
   */
  StepCandidates(DistinctKeys ours, DistinctKeys theirs, BitSet matched) {
    this.ours = ours;
    this.theirs = theirs;
    this.matched = matched;
  }

  /**
   * The steps, as an option writes them.
   *
   * @param affixes whether ends are among them, which are parts of values
   */
  List<String> all(boolean affixes) {
    List<String> steps = new ArrayList<>();
    if (ours.parts() == 1) {
      Set<String> open = new HashSet<>();
      Map<String, Long> counts = new HashMap<>();
      for (int key = matched.nextClearBit(0);
          key < ours.size() && open.size() < MOST_KEYS;
          key = matched.nextClearBit(key + 1)) {
        String text = Spaces.trimmed(ours.part(key, 0)).toString();
        open.add(text);
        counts.merge(text, ours.count(key), Long::sum);
      }
      Set<String> known = new HashSet<>();
      for (int key = 0; key < theirs.size(); key++) {
        known.add(Spaces.trimmed(theirs.part(key, 0)).toString());
      }
      steps.addAll(affixes ? affixes(open, known, counts) : List.of());
      steps.addAll(lengths(open, known));
    }
    steps.addAll(dates());
    return steps;
  }

  /** How often an end is what stands between a key of one side and one of the other. */
  private static final class Wins {
    private long rows;
    private int keys;
    private boolean parted;
  }

  private static List<String> affixes(
      Set<String> open, Set<String> known, Map<String, Long> counts) {
    Map<String, Wins> wins = new TreeMap<>();
    open.forEach(key -> ends(key, known, counts.getOrDefault(key, 0L), wins));
    known.forEach(key -> ends(key, open, 1, wins));
    return wins.entrySet().stream()
        .filter(one -> one.getValue().keys >= FEWEST || one.getValue().parted)
        .sorted(
            Comparator.comparingLong((Map.Entry<String, Wins> one) -> one.getValue().rows)
                .reversed())
        .limit(MOST_AFFIXES)
        .map(Map.Entry::getKey)
        .toList();
  }

  private static void ends(String key, Set<String> others, long rows, Map<String, Wins> wins) {
    for (int at = 1; at < key.length(); at++) {
      boolean front = at <= LONGEST_AFFIX && others.contains(key.substring(at));
      boolean back = key.length() - at <= LONGEST_AFFIX && others.contains(key.substring(0, at));
      if (front) {
        note("drop-prefix=" + key.substring(0, at), key.charAt(at - 1), rows, wins);
      }
      if (back) {
        note("drop-suffix=" + key.substring(at), key.charAt(at), rows, wins);
      }
    }
  }

  private static void note(String step, char next, long rows, Map<String, Wins> wins) {
    boolean space = Spaces.isSpace(next);
    boolean zeros = step.matches("drop-prefix=0+"); // drop-leading-zeros does that
    if (zeros || step.indexOf(',') >= 0 || space && step.endsWith("=" + next)) {
      return; // a comma parts steps, and spaces go by trim
    }
    Wins one = wins.computeIfAbsent(step, s -> new Wins());
    one.rows += rows;
    one.keys++;
    one.parted |= !Character.isLetterOrDigit(next) && !space;
  }

  /** So many of the first or last characters, where keys of one side are that long. */
  private static List<String> lengths(Set<String> open, Set<String> known) {
    List<String> steps = new ArrayList<>();
    Map<Integer, Integer> lengths = new HashMap<>();
    open.forEach(key -> lengths.merge(key.length(), 1, Integer::sum));
    known.forEach(key -> lengths.merge(key.length(), 1, Integer::sum));
    List<Integer> most =
        lengths.entrySet().stream()
            .sorted(
                Map.Entry.<Integer, Integer>comparingByValue()
                    .reversed()
                    .thenComparing(Map.Entry.comparingByKey()))
            .limit(MOST_LENGTHS)
            .map(Map.Entry::getKey)
            .filter(length -> length > 1)
            .toList();
    for (int length : most) {
      if (meets(open, known, length, true)) {
        steps.add("first=" + length);
      }
      if (meets(open, known, length, false)) {
        steps.add("last=" + length);
      }
    }
    return steps;
  }

  private static boolean meets(Set<String> open, Set<String> known, int length, boolean first) {
    Set<String> cut = new HashSet<>();
    known.forEach(key -> cut.add(cut(key, length, first)));
    int found = 0;
    for (String key : open) {
      found += cut.contains(cut(key, length, first)) ? 1 : 0;
      if (found >= FEWEST) {
        return true;
      }
    }
    return false;
  }

  private static String cut(String key, int length, boolean first) {
    if (key.length() <= length) {
      return key;
    }
    return first ? key.substring(0, length) : key.substring(key.length() - length);
  }

  /** Forms of dates, where most of either side are written in one that is not ISO 8601. */
  private List<String> dates() {
    Set<String> forms = new HashSet<>();
    for (int part = 0; part < ours.parts(); part++) {
      List<String> here = forms(ours, part);
      List<String> there = forms(theirs, part);
      boolean either = !here.isEmpty() || !there.isEmpty();
      if (either
          && (!here.isEmpty() || iso(ours, part))
          && (!there.isEmpty() || iso(theirs, part))) {
        for (String one : here.isEmpty() ? List.of(ISO) : here) {
          for (String other : there.isEmpty() ? List.of(ISO) : there) {
            if (!one.equals(other)) {
              forms.add(one.equals(ISO) ? other : other.equals(ISO) ? one : one + " | " + other);
            }
          }
        }
      }
    }
    return forms.stream().sorted().map(form -> "as-date=" + form).toList();
  }

  private static boolean iso(DistinctKeys keys, int part) {
    return share(keys, part, new DatePatterns(List.of())) * 2 > 1;
  }

  private static List<String> forms(DistinctKeys keys, int part) {
    return iso(keys, part)
        ? List.of()
        : DATES.stream()
            .filter(form -> share(keys, part, new DatePatterns(List.of(form))) * 2 > 1)
            .toList();
  }

  private static double share(DistinctKeys keys, int part, DatePatterns form) {
    int most = Math.min(SAMPLE, keys.size());
    int read = 0;
    for (int key = 0; key < most; key++) {
      read += form.read(Spaces.trimmed(keys.part(key, part)).toString()) == null ? 0 : 1;
    }
    return most == 0 ? 0 : (double) read / most;
  }
}
