package org.abletwine.lookup;

import java.util.Arrays;
import java.util.stream.Collectors;
import org.abletwine.figures.LookupFigures;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowSets;
import org.abletwine.match.RuleIndex;
import org.abletwine.step.Exceptions;
import org.abletwine.step.StepRunner;
import org.abletwine.step.Trace;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * A lookup at work. For each batch, in stages: find the rows of every key, settle each row's
 * outcome, try further references for rows still without a match, gather the attributes, treat the
 * rows. Counters go up by one for each row in the stage that settles it, and nowhere else.
 */
final class LookupRunner implements StepRunner {
  private static final Outcome[] OUTCOMES = Outcome.values();
  private static final byte MATCHED = (byte) Outcome.MATCHED.ordinal();
  private static final byte UNMATCHED = (byte) Outcome.UNMATCHED.ordinal();
  private static final byte AMBIGUOUS = (byte) Outcome.AMBIGUOUS.ordinal();
  private static final byte BLANK_KEY = (byte) Outcome.BLANK_KEY.ordinal();
  private static final int NO_SET = -1;

  /** Rows that one batch may become: all of them are in memory at once. */
  private static final int MOST_EXPANDED = 10_000_000;

  private static final int[] ITSELF = {0};

  private final Lookup lookup;
  private final Source[] sources;
  private final Source own;
  private final int[] keyColumns;
  private final String transactions;
  private final Exceptions exceptions;
  private final Trace trace;
  private final StepGains gains;
  private final int measure;
  private final LookupCounts counts;
  private final ConstantWatch watch;
  private final Misses misses = new Misses();
  private final int attributes;
  private final @Nullable String[][] fills;
  private final boolean drops;
  private final boolean expands;

  /** For each row of the batch: the place fetched from, or why there is none. */
  private int[] found = new int[0];

  private int[] tried = new int[0];
  private int[] inLeftOut = new int[0];
  private byte[] outcomes = new byte[0];
  private byte[] source = new byte[0];

  /** For each row of the batch: the set its key fits, of its source, or {@link #NO_SET}. */
  private int[] sets = new int[0];

  private int[] kept = new int[0];

  LookupRunner(Lookup lookup, Source[] sources, int[] keyColumns, Fills fills, Telling telling) {
    this.lookup = lookup;
    this.sources = sources.clone();
    this.own = sources[0];
    this.keyColumns = keyColumns.clone();
    this.transactions = telling.transactions();
    this.exceptions = telling.exceptions();
    this.trace = telling.trace();
    this.measure = telling.measure();
    this.counts = new LookupCounts(lookup, this.sources, measure >= 0);
    this.watch = new ConstantWatch(lookup, own.reference);
    this.gains = new StepGains(lookup, this.keyColumns, own.reference.rows());
    this.attributes = lookup.bring.size();
    this.fills = fills.byOutcome();
    this.drops =
        lookup.treatments.values().stream().anyMatch(t -> t.action() == Treatment.Action.DROP);
    this.expands = Arrays.stream(this.sources).anyMatch(from -> from.expands);
    if (exceptions != Exceptions.NONE) {
      tellReference();
    }
  }

  /** Whom to tell about rows that need attention. */
  record Telling(String transactions, Exceptions exceptions, Trace trace, int measure) {}

  /** What to put in place of null, for each outcome and attribute. */
  record Fills(@Nullable String[][] byOutcome) {
    static Fills of(Lookup lookup) {
      @Nullable String[][] fills = new @Nullable String[OUTCOMES.length][lookup.bring.size()];
      for (Outcome outcome : OUTCOMES) {
        for (int a = 0; a < lookup.bring.size(); a++) {
          fills[outcome.ordinal()][a] =
              lookup.treatments.get(outcome).fill().values().get(lookup.bring.get(a).as());
        }
      }
      return new Fills(fills);
    }
  }

  @Override
  public void apply(Batch batch) {
    int count = batch.rows();
    if (found.length < count) {
      found = new int[count];
      tried = new int[count];
      inLeftOut = new int[count];
      outcomes = new byte[count];
      source = new byte[count];
      sets = new int[count];
      kept = new int[count];
    }
    own.find(batch, found);
    settle(batch, count);
    gains.count(batch, found, own.probe.keys().changed);
    for (int further = 1; further < sources.length; further++) {
      tryFurther(batch, count, further);
    }
    countMisses(batch, count);
    if (!own.reference.leftOut().isEmpty()) {
      countWouldMatch(count);
    }
    count(batch, count);
    if (exceptions != Exceptions.NONE) {
      tell(batch, count);
    }
    if (trace != Trace.NONE) {
      for (int row = 0; row < count; row++) {
        traced(batch, row);
      }
    }
    if (expands) {
      count = expand(batch, count);
    }
    gather(batch, count);
    if (lookup.mark != null) {
      mark(batch.addColumn(), count);
    }
    if (drops) {
      drop(batch, count);
    }
  }

  /** Settles what the lookup's own reference has to say. */
  private void settle(Batch batch, int count) {
    for (int row = 0; row < count; row++) {
      source[row] = 0;
      sets[row] = NO_SET;
      int at = found[row];
      if (at >= 0) {
        outcomes[row] = MATCHED;
      } else if (at > RuleIndex.LAST_MISS) {
        outcomes[row] = fromSet(0, row, ~at);
      } else {
        boolean blank = own.probe.blankParts(row) != 0 || at == RuleIndex.UNFIT;
        outcomes[row] = blank ? BLANK_KEY : UNMATCHED;
      }
    }
    counts.rows += count;
  }

  /** Counts how the rows missed for which no reference had a row. */
  private void countMisses(Batch batch, int count) {
    for (int row = 0; row < count; row++) {
      int at = found[row];
      if (outcomes[row] != UNMATCHED && outcomes[row] != BLANK_KEY) {
        continue;
      }
      int blank = own.probe.blankParts(row);
      if (at != HashIndex.ABSENT) {
        misses.count(own, row, at, batch.rowNumber(row));
        blank |= at == RuleIndex.UNFIT ? 1 << own.probe.unfitPart(own.reference.finder(), row) : 0;
      }
      counts.blankParts(blank);
    }
  }

  /** Takes a row of a set, by the rule of its source. */
  private byte fromSet(int from, int row, int set) {
    Choices choices = sources[from].reference.choices();
    counts.expanding += sources[from].reference.finder().sets().size(set) - 1;
    sets[row] = set;
    found[row] = choices.place(set);
    if (found[row] == Choices.DISAGREE) {
      return AMBIGUOUS;
    }
    counts.picked += choices.conflicting(set) ? 1 : 0;
    return MATCHED;
  }

  private void tryFurther(Batch batch, int count, int further) {
    boolean open = false;
    for (int row = 0; row < count && !open; row++) {
      open = outcomes[row] == UNMATCHED || outcomes[row] == BLANK_KEY;
    }
    if (!open) {
      return;
    }
    sources[further].find(batch, tried);
    for (int row = 0; row < count; row++) {
      int at = tried[row];
      boolean hit = at >= 0 || at > RuleIndex.LAST_MISS;
      if (hit && (outcomes[row] == UNMATCHED || outcomes[row] == BLANK_KEY)) {
        source[row] = (byte) further;
        found[row] = at;
        outcomes[row] = at >= 0 ? MATCHED : fromSet(further, row, ~at);
        sources[further].matched += outcomes[row] == MATCHED ? 1 : 0;
      }
    }
  }

  private void count(Batch batch, int count) {
    long[] byOutcome = counts.outcomes;
    for (int row = 0; row < count; row++) {
      byOutcome[outcomes[row]]++;
    }
    if (measure >= 0) {
      CellVector cells = batch.column(measure);
      for (int row = 0; row < count; row++) {
        counts.measured[outcomes[row]].add(cells, row);
      }
    }
    for (Outcome outcome : OUTCOMES) {
      if (lookup.treatments.get(outcome).action() == Treatment.Action.FAIL) {
        for (int row = 0; row < count; row++) {
          if (outcomes[row] == outcome.ordinal()) {
            throw failure(batch, row, outcome);
          }
        }
      }
    }
  }

  /**
   * Reference rows left out by a rule for duplicates, and keys that only normalising made equal.
   */
  private void tellReference() {
    LoadedReference reference = own.reference;
    int keyCell = attributes;
    for (LoadedReference.LeftOutDuplicate duplicate : reference.duplicates()) {
      exceptions.found(
          new Exceptions.Found(
              lookup.name,
              "duplicate left out",
              reference.name(),
              reference.numbers().of(duplicate.row()),
              String.valueOf(reference.rows().get(duplicate.row(), keyCell)),
              "row "
                  + reference.numbers().of(duplicate.stays())
                  + " stays ("
                  + lookup.duplicates
                  + ")",
              null));
    }
    for (String example : reference.collisionExamples()) {
      String detail = "equal only by normalising";
      exceptions.found(
          new Exceptions.Found(
              lookup.name, "collision", reference.name(), 0, example, detail, null));
    }
  }

  private void tell(Batch batch, int count) {
    for (int row = 0; row < count; row++) {
      if (outcomes[row] != MATCHED) {
        StringBuilder key = new StringBuilder();
        for (int part = 0; part < keyColumns.length; part++) {
          String value = batch.column(keyColumns[part]).get(row);
          key.append(part == 0 ? "" : " | ").append(value == null ? "" : value);
        }
        exceptions.found(
            new Exceptions.Found(
                lookup.name,
                OUTCOMES[outcomes[row]].label(),
                transactions,
                batch.rowNumber(row),
                key.toString(),
                detail(row),
                measure < 0 ? null : batch.column(measure).get(row)));
      }
    }
  }

  /** The reference rows an ambiguous key stands on, or how a value missed. */
  private String detail(int row) {
    if (outcomes[row] == AMBIGUOUS) {
      return "rows " + candidates(row) + " of " + sources[source[row]].reference.name();
    }
    return found[row] == HashIndex.ABSENT ? "" : own.describeMiss(row, found[row]);
  }

  private String candidates(int row) {
    LoadedReference reference = sources[source[row]].reference;
    return reference.numbers().list(reference.finder().sets().rows(sets[row]));
  }

  /** Tells how this row's outcome came about, from what the stages before have left. */
  private void traced(Batch batch, int row) {
    Source from = sources[source[row]];
    LookupTrace telling = new LookupTrace(lookup, trace);
    telling.key(batch, row, keyColumns);
    if (source[row] > 0) {
      trace.note("not in " + own.reference.name(), "tried otherwise: " + from.lookup.name);
    }
    if (outcomes[row] == MATCHED || outcomes[row] == AMBIGUOUS) {
      int[] rowsOf =
          sets[row] == NO_SET
              ? new int[] {from.reference.rowAt(found[row])}
              : from.reference.finder().sets().rows(sets[row]);
      telling.candidates(from, rowsOf);
      telling.choice(from, rowsOf, found[row], sets[row]);
    } else {
      String miss = detail(row);
      trace.note(
          "outcome",
          OUTCOMES[outcomes[row]].label()
              + (miss.isEmpty() ? "" : ": " + miss)
              + (outcomes[row] == UNMATCHED && !own.reference.leftOut().isEmpty() && wouldMatch(row)
                  ? "; a row that the reference's condition left out would match"
                  : ""));
    }
    telling.fills(fills[outcomes[row]], outcomes[row] == MATCHED);
  }

  private void countWouldMatch(int count) {
    own.probe.findAside(own.reference.leftOut(), inLeftOut);
    for (int row = 0; row < count; row++) {
      if (outcomes[row] == UNMATCHED && wouldMatch(row)) {
        counts.wouldMatch++;
      }
    }
  }

  /** Whether a row of the reference that its condition left out fits this row's key. */
  private boolean wouldMatch(int row) {
    return inLeftOut[row] >= 0 || inLeftOut[row] > RuleIndex.LAST_MISS;
  }

  private DataException failure(Batch batch, int row, Outcome outcome) {
    String key =
        lookup.key.stream()
            .map(part -> part.ours() + " " + shown(batch, row, lookup.key.indexOf(part)))
            .collect(Collectors.joining(", "));
    String detail = detail(row);
    return new DataException(
        "row "
            + batch.rowNumber(row)
            + " is "
            + outcome.label()
            + " in lookup "
            + lookup.name
            + " ("
            + key
            + (detail.isEmpty() ? "" : ": " + detail)
            + "), and the plan says "
            + outcome.label()
            + ": fail."
            + " Correct the row or "
            + own.reference.name()
            + ", or use leave, drop or fill");
  }

  private String shown(Batch batch, int row, int part) {
    String value = batch.column(keyColumns[part]).get(row);
    return value == null ? "null" : "\"" + value + "\"";
  }

  /**
   * Repeats each row whose key fits rows that disagree, once for each of them, where the rule of
   * the reference that had them says so.
   */
  private int expand(Batch batch, int count) {
    int[] rowsOut = new int[count];
    int[] places = new int[count];
    byte[] from = new byte[count];
    byte[] results = new byte[count];
    int[] ofSets = new int[count];
    int out = 0;
    for (int row = 0; row < count; row++) {
      Source at = sources[source[row]];
      boolean several =
          sets[row] != NO_SET && at.expands && at.reference.choices().conflicting(sets[row]);
      RowSets found = at.reference.finder().sets();
      int[] members = several ? found.rows(sets[row]) : ITSELF;
      if (out + members.length > MOST_EXPANDED) {
        throw tooMany(batch, row, members.length);
      }
      if (out + members.length > rowsOut.length) {
        int room = Math.max(out + members.length, rowsOut.length * 2);
        rowsOut = Arrays.copyOf(rowsOut, room);
        places = Arrays.copyOf(places, room);
        from = Arrays.copyOf(from, room);
        results = Arrays.copyOf(results, room);
        ofSets = Arrays.copyOf(ofSets, room);
      }
      for (int member : members) {
        rowsOut[out] = row;
        places[out] = several ? at.reference.rows().place(member) : this.found[row];
        from[out] = source[row];
        ofSets[out] = several ? NO_SET : sets[row];
        results[out++] = outcomes[row];
      }
    }
    if (out == count) {
      return count;
    }
    batch.pick(rowsOut, out);
    counts.expanded += out - count;
    this.found = places;
    source = from;
    outcomes = results;
    tried = new int[places.length];
    inLeftOut = new int[places.length];
    sets = ofSets;
    kept = new int[places.length];
    return out;
  }

  private DataException tooMany(Batch batch, int row, int members) {
    return new DataException(
        "lookup "
            + lookup.name
            + ", several: expand: rows "
            + batch.rowNumber(0)
            + " to "
            + batch.rowNumber(row)
            + " alone become more than "
            + MOST_EXPANDED
            + " rows (row "
            + batch.rowNumber(row)
            + " fits "
            + members
            + "); add a part to the key that tells those rows apart, or bring an aggregate such as"
            + " sum(...)");
  }

  private void gather(Batch batch, int count) {
    if (attributes == 0) {
      return;
    }
    CellVector[] columns = new CellVector[attributes];
    for (int a = 0; a < attributes; a++) {
      columns[a] = batch.addColumn();
    }
    for (Source one : sources) {
      one.into(columns);
    }
    for (int row = 0; row < count; row++) {
      int outcome = outcomes[row];
      if (outcome == MATCHED) {
        Source from = sources[source[row]];
        @Nullable String[] combined =
            sets[row] == NO_SET ? null : from.reference.choices().combined(sets[row]);
        if (combined == null) {
          from.fetch(found[row]);
        } else {
          from.fetch(combined);
        }
        for (int a : from.missing) {
          columns[a].append(fills[MATCHED][a]);
          counts.notBrought[a]++;
        }
      } else {
        for (int a = 0; a < attributes; a++) {
          columns[a].append(fills[outcome][a]);
          if (fills[outcome][a] == null) {
            columns[a].because(outcome); // the outcomes are the first reasons, in their order
          }
        }
      }
    }
    watch.look(columns, outcomes, count);
  }

  private void mark(CellVector target, int count) {
    for (int row = 0; row < count; row++) {
      String label = OUTCOMES[outcomes[row]].label();
      target.append(source[row] == 0 ? label : label + ": " + sources[source[row]].lookup.name);
    }
  }

  private void drop(Batch batch, int count) {
    int keeping = 0;
    for (int row = 0; row < count; row++) {
      if (lookup.treatments.get(OUTCOMES[outcomes[row]]).action() != Treatment.Action.DROP) {
        kept[keeping++] = row;
      }
    }
    if (keeping < count) {
      batch.pick(kept, keeping);
      counts.dropped += count - keeping;
    }
  }

  @Override
  public LookupFigures figures() {
    return counts.figures(gains, misses, watch, fills);
  }
}
