package org.abletwine.audit;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.stream.Collectors;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

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

  /** About how many bytes a key takes that is searched for what is near others. */
  private static final long NEAR_BYTES = 400;

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

  /** What steps win, which is asked for again and again. */
  private record Measured(long rows, long collisions) {}

  private final DistinctKeys ours;
  private final DistinctKeys theirs;
  private final Map<List<String>, Measured> known = new HashMap<>();

  /** Whether a part of the key is private on either side: none of its values are told then. */
  private final boolean hidden;

  private final Spill spill;

  private OverlapAudit(DistinctKeys ours, DistinctKeys theirs, boolean hidden, Spill spill) {
    this.spill = spill;
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
  public static Report compare(
      Table transactions,
      int[] ourColumns,
      Table reference,
      int[] theirColumns,
      int measure,
      List<String> fixed,
      int mostUnmatched) {
    try (Spill spill = new Spill(0, null)) {
      return compare(
          transactions, ourColumns, reference, theirColumns, measure, fixed, mostUnmatched, spill);
    }
  }

  /**
   * The same, with a stated amount of memory for the keys; those that do not fit are kept on disk
   * meanwhile, divided by their hash, and compared part by part.
   *
   * @param transactions the transactions
   * @param ourColumns the key's column numbers there
   * @param reference the reference
   * @param theirColumns the key's column numbers there, in the same order
   * @param measure a column of the transactions to total by key, or -1
   * @param fixed steps that are applied to both sides whatever they win
   * @param mostUnmatched how many unmatched keys to report, most rows first
   * @param spill how much may be in memory
   * @return what was found
   */
  @SuppressWarnings("exports") // for the command line
  public static Report compare(
      Table transactions,
      int[] ourColumns,
      Table reference,
      int[] theirColumns,
      int measure,
      List<String> fixed,
      int mostUnmatched,
      Spill spill) {
    Objects.requireNonNull(transactions, "transactions");
    Objects.requireNonNull(ourColumns, "ourColumns");
    Objects.requireNonNull(reference, "reference");
    Objects.requireNonNull(theirColumns, "theirColumns");
    Objects.requireNonNull(fixed, "fixed");
    Objects.requireNonNull(spill, "spill");
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
    DistinctKeys theirs = DistinctKeys.read(reference, theirColumns, -1, hidden, spill);
    DistinctKeys ours = DistinctKeys.read(transactions, ourColumns, measure, hidden, spill);
    return new OverlapAudit(ours, theirs, any, spill).report(fixed, mostUnmatched);
  }

  private static boolean isPrivate(Table table, int column) {
    return table.isPrivate(table.schema().names().get(column));
  }

  private Report report(List<String> fixed, int mostUnmatched) {
    KeysCompared asGiven = compared(fixed);
    Measured plain = new Measured(asGiven.rows(), asGiven.collisions());
    known.put(fixed, plain);
    List<String> candidates = new ArrayList<>(STEPS);
    candidates.addAll(new StepCandidates(ours, theirs, asGiven.matched(), spill).all(!hidden));
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
    DistinctKeys.Counts read = ours.counts();
    while (best.size() < MOST_STEPS && now.rows() < read.rows() - read.blank()) {
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
    KeysCompared last = chosen.equals(fixed) ? asGiven : compared(chosen);
    List<Unmatched> unmatched =
        hidden || !nearFits() || mostUnmatched == 0
            ? told(last.matched(), List.of(), mostUnmatched)
            : near(last.matched(), Normalise.parse(chosen), mostUnmatched);
    return new Report(
        read.rows(),
        read.blank(),
        read.notNumbers(),
        ours.size(),
        theirs.counts().rows(),
        theirs.size(),
        plain.rows(),
        asGiven.matched().cardinality(),
        last.used().cardinality(),
        alone,
        best,
        chosen,
        now.rows(),
        unmatched,
        (long) ours.size() - last.matched().cardinality(),
        !nearFits());
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
    Measured measured = known.get(steps);
    if (measured == null) {
      KeysCompared compared = compared(steps);
      measured = new Measured(compared.rows(), compared.collisions());
      known.put(steps, measured);
    }
    return measured;
  }

  private KeysCompared compared(List<String> steps) {
    return KeysCompared.of(ours, theirs, Normalise.parse(steps), spill);
  }

  /** An unmatched key, as it is compared, and its number. */
  private record Open(Unmatched told, String compared, int number) {
    /** Those with the greatest totals first, or else with most rows; of equals the first. */
    static final Comparator<Open> MOST_FIRST =
        Comparator.comparing(Open::weight).reversed().thenComparingInt(Open::number);

    private BigDecimal weight() {
      BigDecimal measure = told.measure();
      return measure == null ? BigDecimal.valueOf(told.rows()) : measure;
    }
  }

  /** The unmatched keys to be told of, in the order in which they are. */
  private List<Open> open(BitSet matched, List<NormaliseStep> steps, int most) {
    PriorityQueue<Open> open = new PriorityQueue<>(Open.MOST_FIRST.reversed());
    ours.each(
        List.of(),
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows() && most > 0; row++) {
            int number = DistinctKeys.number(batch, row);
            if (!matched.get(number)) {
              open.add(
                  new Open(
                      new Unmatched(
                          ours.shown(batch, row),
                          ours.count(batch, row),
                          ours.sum(batch, row),
                          ours.firstRow(batch, row),
                          List.of()),
                      compared(batch, row, ours.parts(), steps),
                      number));
              if (open.size() > most) {
                open.remove();
              }
            }
          }
          return true;
        });
    return open.stream().sorted(Open.MOST_FIRST).toList();
  }

  private List<Unmatched> told(BitSet matched, List<NormaliseStep> steps, int most) {
    return open(matched, steps, most).stream().map(Open::told).toList();
  }

  /** Whether all keys of the reference fit in memory to be searched for what is near others. */
  private boolean nearFits() {
    return !theirs.onDisk() && NEAR_BYTES * theirs.size() <= spill.left();
  }

  /** The unmatched keys, with what is near them. */
  private List<Unmatched> near(BitSet matched, List<NormaliseStep> steps, int most) {
    List<Open> open = open(matched, steps, most);
    if (open.isEmpty()) {
      return List.of();
    }
    List<String> shown = new ArrayList<>(theirs.size());
    List<String> compared = new ArrayList<>(theirs.size());
    theirs.each(
        List.of(),
        (batch, encoded) -> {
          for (int row = 0; row < batch.rows(); row++) {
            shown.add(theirs.shown(batch, row));
            compared.add(compared(batch, row, theirs.parts(), steps));
          }
          return true;
        });
    List<List<NearMiss>> near =
        new NearKeys(compared, shown)
            .nearest(open.stream().map(Open::compared).toList(), MOST_NEAR);
    List<Unmatched> unmatched = new ArrayList<>();
    for (int i = 0; i < open.size(); i++) {
      Unmatched told = open.get(i).told();
      unmatched.add(
          new Unmatched(told.key(), told.rows(), told.measure(), told.firstRow(), near.get(i)));
    }
    return unmatched;
  }

  /** A key as it is compared: the steps applied to each of its parts. */
  private static String compared(Batch batch, int row, int parts, List<NormaliseStep> steps) {
    StringBuilder compared = new StringBuilder();
    for (int part = 0; part < parts; part++) {
      String text = DistinctKeys.part(batch, row, part);
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

  /**
   * How far two keys agree.
   *
   * @param rows transactions
   * @param blankRows transactions with a null or blank key part
   * @param notMeasured transactions whose measure is no number
   * @param keys distinct keys of the transactions, as written
   * @param referenceRows reference rows
   * @param referenceKeys distinct keys of the reference, as written
   * @param matchedRows transactions whose key is in the reference as written
   * @param matchedKeys distinct keys in the reference as written
   * @param usedReferenceKeys reference keys that some transaction has, after the best steps
   * @param alone what each step would win by itself, most first
   * @param best the best small set of steps, each with what it adds in that order
   * @param steps the best set in the order to apply it
   * @param bestMatchedRows transactions matched after the best set
   * @param unmatched keys still unmatched after the best set, most rows first
   * @param unmatchedKeys how many of them there are
   * @param nearLeftOut whether nothing near was looked for, since the reference's keys did not fit
   *     in memory
   */
  public record Report(
      long rows,
      long blankRows,
      long notMeasured,
      long keys,
      long referenceRows,
      long referenceKeys,
      long matchedRows,
      long matchedKeys,
      long usedReferenceKeys,
      List<Gain> alone,
      List<Gain> best,
      List<String> steps,
      long bestMatchedRows,
      List<Unmatched> unmatched,
      long unmatchedKeys,
      boolean nearLeftOut) {

    /** Copies the lists. */
    public Report {
      alone = List.copyOf(alone);
      best = List.copyOf(best);
      steps = List.copyOf(steps);
      unmatched = List.copyOf(unmatched);
    }
  }

  /**
   * What a step wins.
   *
   * @param step the step as an option writes it
   * @param rows further transactions matched
   * @param collisions reference keys it makes equal to another one
   * @param lossy whether it leaves characters out, so that keys may match that should not
   */
  public record Gain(String step, long rows, long collisions, boolean lossy) {}

  /**
   * A key that is not in the reference.
   *
   * @param key the key as written
   * @param rows transactions that have it
   * @param measure the measure's total over these rows; null when nothing is measured
   * @param firstRow the first of them, 1-based
   * @param near the reference keys most like it
   */
  public record Unmatched(
      String key, long rows, @Nullable BigDecimal measure, long firstRow, List<NearMiss> near) {
    /** Copies the list. */
    public Unmatched {
      near = List.copyOf(near);
    }
  }
}
