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
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.abletwine.key.encode.Spaces;
import org.abletwine.table.spill.Spill;
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

  /** Texts are sifted by as many bits of their hash as there are texts, and so many more. */
  private static final int MORE_BITS = 11;

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
  private final Spill spill;

  /**
   * @param matched our keys that are there already
   * @param spill how much may be in memory
   */
  StepCandidates(DistinctKeys ours, DistinctKeys theirs, BitSet matched, Spill spill) {
    this.ours = ours;
    this.theirs = theirs;
    this.matched = matched;
    this.spill = spill;
  }

  /**
   * The steps, as an option writes them.
   *
   * @param affixes whether ends are among them, which are parts of values
   */
  List<String> all(boolean affixes) {
    List<String> steps = new ArrayList<>();
    if (ours.parts() == 1) {
      Map<String, Long> open = open();
      DistinctTexts known = DistinctTexts.of(theirs, spill);
      steps.addAll(affixes ? affixes(open, known) : List.of());
      steps.addAll(lengths(open.keySet(), known));
    }
    steps.addAll(dates());
    return steps;
  }

  /** Our keys that are not there, spaces around them aside, and how many rows have each. */
  private Map<String, Long> open() {
    Map<String, Long> open = new HashMap<>();
    ours.each(
        List.of(),
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows() && open.size() < MOST_KEYS; row++) {
            if (!matched.get(DistinctKeys.number(batch, row))) {
              String text = Spaces.trimmed(DistinctKeys.part(batch, row, 0)).toString();
              open.merge(text, ours.count(batch, row), Long::sum);
            }
          }
          return open.size() < MOST_KEYS;
        });
    return open;
  }

  /** How often an end is what stands between a key of one side and one of the other. */
  private static final class Wins {
    private long rows;
    private int keys;
    private boolean parted;
  }

  private static List<String> affixes(Map<String, Long> open, DistinctTexts known) {
    Map<String, Wins> wins = new TreeMap<>();
    BitSet looked = new BitSet();
    int beside = Integer.numberOfLeadingZeros(open.size()) - MORE_BITS;
    open.keySet().forEach(key -> eachRest(key, rest -> looked.set(hash(rest, beside))));
    // Of theirs only those are held that one of ours may end in, or begin with.
    Set<String> held = new HashSet<>();
    known.each(
        key -> {
          if (looked.get(hash(key, beside))) {
            held.add(key);
          }
          ends(key, open.keySet(), 1, wins);
        });
    open.forEach((key, rows) -> ends(key, held, rows, wins));
    return wins.entrySet().stream()
        .filter(one -> one.getValue().keys >= FEWEST || one.getValue().parted)
        .sorted(
            Comparator.comparingLong((Map.Entry<String, Wins> one) -> one.getValue().rows)
                .reversed())
        .limit(MOST_AFFIXES)
        .map(Map.Entry::getKey)
        .toList();
  }

  /**
   * Some bits of a text's hash.
   *
   * @param beside how many are left out
   */
  private static int hash(String text, int beside) {
    return text.hashCode() * 0x9E3779B1 >>> beside;
  }

  /** What is left of a key without an end. */
  private static void eachRest(String key, Consumer<String> taker) {
    for (int at = 1; at < key.length(); at++) {
      if (at <= LONGEST_AFFIX) {
        taker.accept(key.substring(at));
      }
      if (key.length() - at <= LONGEST_AFFIX) {
        taker.accept(key.substring(0, at));
      }
    }
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
  private static List<String> lengths(Set<String> open, DistinctTexts known) {
    Map<Integer, Integer> lengths = new HashMap<>();
    open.forEach(key -> lengths.merge(key.length(), 1, Integer::sum));
    known.each(key -> lengths.merge(key.length(), 1, Integer::sum));
    List<Cuts> cuts =
        lengths.entrySet().stream()
            .sorted(
                Map.Entry.<Integer, Integer>comparingByValue()
                    .reversed()
                    .thenComparing(Map.Entry.comparingByKey()))
            .limit(MOST_LENGTHS)
            .map(Map.Entry::getKey)
            .filter(length -> length > 1)
            .flatMap(
                length -> Stream.of(new Cuts(length, true, open), new Cuts(length, false, open)))
            .toList();
    if (!cuts.isEmpty()) {
      known.each(key -> cuts.forEach(one -> one.meet(key)));
    }
    return cuts.stream().filter(one -> one.met >= FEWEST).map(Cuts::step).toList();
  }

  /** So many of the first or last characters of our keys, as keys of theirs meet them. */
  private static final class Cuts {
    private final int length;
    private final boolean first;

    /** How many of our keys have each, as long as none of theirs has met it. */
    private final Map<String, Integer> unmet = new HashMap<>();

    private int met;

    Cuts(int length, boolean first, Set<String> open) {
      this.length = length;
      this.first = first;
      open.forEach(key -> unmet.merge(cut(key, length, first), 1, Integer::sum));
    }

    void meet(String key) {
      Integer keys = met >= FEWEST ? null : unmet.remove(cut(key, length, first));
      met += keys == null ? 0 : keys;
    }

    String step() {
      return (first ? "first=" : "last=") + length;
    }
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
    int[] seen = new int[2];
    keys.each(
        List.of(),
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows() && seen[0] < SAMPLE; row++) {
            String text = Spaces.trimmed(DistinctKeys.part(batch, row, part)).toString();
            seen[0]++;
            seen[1] += form.read(text) == null ? 0 : 1;
          }
          return seen[0] < SAMPLE;
        });
    return seen[0] == 0 ? 0 : (double) seen[1] / seen[0];
  }
}
