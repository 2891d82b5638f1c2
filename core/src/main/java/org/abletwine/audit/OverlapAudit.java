package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.abletwine.audit.OverlapReport.Gain;
import org.abletwine.audit.OverlapReport.Unmatched;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.CellVector;

/**
 * Compares the keys of two tables, both ways, reading each once: what matches as written, what each
 * normalise step would win alone, the best small set of steps, and the keys left with their near
 * misses. All measuring is done on the distinct keys.
 *
 * <p>The best set is found greedily: in each round the step that wins most rows is added, as long
 * as it makes no two reference keys equal and leaves no characters out of the middle. Stateless.
 */
public final class OverlapAudit {
  private static final int MOST_STEPS = 5;
  private static final int MOST_LOSSY = 3;
  private static final int MOST_KEYS_TRIED = 200_000;
  private static final int MOST_NEAR = 3;
  private static final List<String> STEPS =
      List.of(
          "trim",
          "collapse-spaces",
          "ignore-case",
          "ignore-accents",
          "drop-leading-zeros",
          "as-number",
          "ignore-punctuation",
          "digits-only");

  /**
   * Steps that leave characters out, beside first and last: measured and shown, but never part of
   * the best set.
   */
  private static final List<String> LOSSY = List.of("digits-only", "ignore-punctuation");

  /** Whether a step leaves characters out that may tell keys apart. */
  private static boolean lossy(String step) {
    return LOSSY.contains(step) || step.startsWith("first=") || step.startsWith("last=");
  }

  private record Measured(BitSet matched, BitSet used, long rows, long collisions) {}

  private final DistinctKeys ours;
  private final DistinctKeys theirs;
  private final Map<List<String>, Measured> known = new HashMap<>();

  /** Whether a part of the key is private on either side: none of its values are told then. */
  private final boolean hidden;

  private OverlapAudit(DistinctKeys ours, DistinctKeys theirs, boolean hidden) {
    this.hidden = hidden;
    this.ours = ours;
    this.theirs = theirs;
  }

  /**
   * Compares two keys.
   *
   * @param transactions the transactions
   * @param ourColumns the key's column numbers there
   * @param reference the reference
   * @param theirColumns the key's column numbers there, in the same order
   * @param measure a column of the transactions to total by key, or -1; the unmatched keys then
   *     come in the order of their totals
   * @param fixed steps that are applied to both sides whatever they win
   * @param mostUnmatched how many unmatched keys to report, most rows first
   * @return what was found
   */
  public static OverlapReport compare(
      Table transactions,
      int[] ourColumns,
      Table reference,
      int[] theirColumns,
      int measure,
      List<String> fixed,
      int mostUnmatched) {
    Objects.requireNonNull(transactions, "transactions");
    Objects.requireNonNull(ourColumns, "ourColumns");
    Objects.requireNonNull(reference, "reference");
    Objects.requireNonNull(theirColumns, "theirColumns");
    Objects.requireNonNull(fixed, "fixed");
    boolean[] hidden = new boolean[ourColumns.length];
    boolean any = false;
    if (measure >= 0 && isPrivate(transactions, measure)) {
      throw new SettingException(
          "measure: \""
              + transactions.schema().names().get(measure)
              + "\" is private, and a total of it may be one row's value; choose another column");
    }
    for (int part = 0; part < hidden.length; part++) {
      hidden[part] =
          isPrivate(transactions, ourColumns[part]) || isPrivate(reference, theirColumns[part]);
      any |= hidden[part];
    }
    DistinctKeys theirs = DistinctKeys.read(reference, theirColumns, -1, hidden);
    DistinctKeys ours = DistinctKeys.read(transactions, ourColumns, measure, hidden);
    return new OverlapAudit(ours, theirs, any).report(fixed, mostUnmatched);
  }

  private static boolean isPrivate(Table table, int column) {
    return table.isPrivate(table.schema().names().get(column));
  }

  private OverlapReport report(List<String> fixed, int mostUnmatched) {
    Measured plain = measured(fixed);
    List<String> candidates = new ArrayList<>(STEPS);
    candidates.addAll(new StepCandidates(ours, theirs, plain.matched()).all(!hidden));
    List<Gain> alone = new ArrayList<>();
    for (String step : candidates) {
      Measured with = fixed.contains(step) ? plain : measured(plus(fixed, step));
      if (with.rows() > plain.rows()) {
        alone.add(new Gain(step, with.rows() - plain.rows(), with.collisions(), lossy(step)));
      }
    }
    alone.sort(Comparator.comparingLong(Gain::rows).reversed());
    alone.removeIf(gain -> gain.lossy() && gain.collisions() * 2 > theirs.size());
    alone.removeAll(alone.stream().filter(Gain::lossy).skip(MOST_LOSSY).toList());
    List<String> chosen = new ArrayList<>(fixed);
    List<Gain> best = new ArrayList<>();
    Measured now = plain;
    // A step may win only after another; where keys are very many, only those are tried that win
    // alone.
    boolean few = ours.size() + theirs.size() <= MOST_KEYS_TRIED;
    Set<String> winning = alone.stream().map(Gain::step).collect(Collectors.toSet());
    while (best.size() < MOST_STEPS && now.rows() < ours.rows() - ours.blankRows()) {
      Gain next = null;
      Measured nextMeasured = now;
      for (String step : candidates) {
        if (!chosen.contains(step) && !lossy(step) && (few || winning.contains(step))) {
          Measured with = measured(plus(chosen, step));
          if (with.collisions() <= plain.collisions() && with.rows() > nextMeasured.rows()) {
            next = new Gain(step, with.rows() - now.rows(), 0, false);
            nextMeasured = with;
          }
        }
      }
      if (next == null) {
        break;
      }
      chosen = plus(chosen, next.step());
      best.add(next);
      now = nextMeasured;
    }
    List<Unmatched> unmatched = unmatched(now.matched(), Normalise.parse(chosen), mostUnmatched);
    return new OverlapReport(
        ours.rows(),
        ours.blankRows(),
        ours.notNumbers(),
        ours.size(),
        theirs.rows(),
        theirs.size(),
        plain.rows(),
        plain.matched().cardinality(),
        now.used().cardinality(),
        alone,
        best,
        chosen,
        now.rows(),
        unmatched,
        (long) ours.size() - now.matched().cardinality());
  }

  /**
   * A list of steps in the order they apply: spaces go first, then ends, which are compared exactly
   * and so must be seen before anything changes their letters.
   */
  private static List<String> plus(List<String> steps, String step) {
    List<String> more = new ArrayList<>(steps);
    more.add(step);
    more.sort(Comparator.comparingInt(OverlapAudit::rank));
    return more;
  }

  private static int rank(String step) {
    return step.equals("trim")
        ? 0
        : step.equals("collapse-spaces")
            ? 1
            : step.startsWith("drop-") && step.contains("=") ? 2 : 3;
  }

  private Measured measured(List<String> steps) {
    return known.computeIfAbsent(steps, s -> measure(Normalise.parse(s)));
  }

  private Measured measure(List<NormaliseStep> steps) {
    RowStore store = new RowStore(0);
    HashIndex index = new HashIndex(store);
    long[] collisions = new long[1];
    theirs.forEachBatch(
        steps,
        (encoded, from) -> {
          for (int i = 0; i < encoded.rows(); i++) {
            store.add(new CellVector[0], i, encoded);
            if (encoded.blankParts[i] == 0 && index.add(encoded, i, from + i) != HashIndex.ABSENT) {
              collisions[0]++;
            }
          }
        });
    BitSet matched = new BitSet();
    BitSet used = new BitSet();
    long[] rows = new long[1];
    int[][] found = {new int[0]};
    ours.forEachBatch(
        steps,
        (encoded, from) -> {
          if (found[0].length < encoded.rows()) {
            found[0] = new int[encoded.rows()];
          }
          index.probe(encoded, found[0]);
          for (int i = 0; i < encoded.rows(); i++) {
            int at = found[0][i];
            if (at != HashIndex.ABSENT) {
              matched.set(from + i);
              rows[0] += ours.count(from + i);
              used.set(at >= 0 ? index.rowAt(at) : index.groups().firstRow(~at));
            }
          }
        });
    return new Measured(matched, used, rows[0], collisions[0]);
  }

  private Comparator<Integer> byTotal(Comparator<Integer> byRows) {
    return (one, other) -> {
      BigDecimal a = ours.sum(one);
      BigDecimal b = ours.sum(other);
      return a == null || b == null ? byRows.compare(one, other) : a.compareTo(b);
    };
  }

  private List<Unmatched> unmatched(BitSet matched, List<NormaliseStep> steps, int most) {
    List<Integer> keys = new ArrayList<>();
    for (int key = matched.nextClearBit(0);
        key < ours.size();
        key = matched.nextClearBit(key + 1)) {
      keys.add(key);
    }
    Comparator<Integer> byRows = Comparator.comparingLong((Integer key) -> ours.count(key));
    keys.sort(byTotal(byRows).reversed().thenComparing(Comparator.naturalOrder()));
    if (keys.isEmpty() || most == 0) {
      return List.of();
    }
    List<String> shown = new ArrayList<>(theirs.size());
    List<String> compared = new ArrayList<>(theirs.size());
    for (int key = 0; key < theirs.size() && !hidden; key++) {
      shown.add(theirs.shown(key));
      compared.add(compared(theirs, key, steps));
    }
    List<Integer> told = keys.subList(0, Math.min(most, keys.size()));
    List<List<NearMiss>> near =
        hidden
            ? List.of()
            : new NearKeys(compared, shown)
                .nearest(told.stream().map(key -> compared(ours, key, steps)).toList(), MOST_NEAR);
    List<Unmatched> unmatched = new ArrayList<>();
    for (int i = 0; i < told.size(); i++) {
      int key = told.get(i);
      List<NearMiss> misses = hidden ? List.of() : near.get(i);
      unmatched.add(
          new Unmatched(
              ours.shown(key), ours.count(key), ours.sum(key), ours.firstRow(key), misses));
    }
    return unmatched;
  }

  /** A key as it is compared: the steps applied to each of its parts. */
  private static String compared(DistinctKeys keys, int key, List<NormaliseStep> steps) {
    StringBuilder compared = new StringBuilder();
    for (int part = 0; part < keys.parts(); part++) {
      String text = keys.part(key, part);
      for (NormaliseStep step : steps) {
        text = step.apply(text);
      }
      compared.append(part == 0 ? "" : NearKeys.PART).append(text);
    }
    return compared.toString();
  }

  @Override
  public String toString() {
    return "OverlapAudit[" + ours.size() + " keys against " + theirs.size() + "]";
  }
}
