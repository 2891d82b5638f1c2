package org.abletwine.lookup;

import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.index.HashIndex;
import org.abletwine.match.index.RuleChain;
import org.abletwine.match.index.RuleIndex;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.StepWorker;
import org.abletwine.step.run.Trace;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * A lookup at work. For each batch, in stages: find the rows of every key and settle each row's
 * outcome, further references included ({@link Settled}); count and tell; gather the attributes;
 * treat the rows. Counters go up by one for each row in the stage that settles it, and nowhere
 * else. Belongs to one thread.
 */
final class LookupWorker implements StepWorker {
  private static final Outcome[] OUTCOMES = Outcome.values();

  private final PreparedLookup.Shared shared;
  private final Lookup lookup;
  private final Source[] sources;
  private final Source own;
  private final LookupCounts counts;
  private final Settled rows;
  private final StepGains gains;
  private final ConstantWatch watch;
  private final Misses misses = new Misses();
  private final LookupTelling telling;
  private final boolean tells;
  private final boolean drops;
  private final Apart.@Nullable Part apart;
  private final boolean each;
  private final boolean fails;
  private final boolean measures;
  private int[] inLeftOut = new int[0];

  LookupWorker(PreparedLookup.Shared shared, Exceptions exceptions) {
    this.shared = shared;
    lookup = shared.lookup();
    sources = shared.sources().get();
    own = sources[0];
    counts = new LookupCounts(lookup, sources, shared.measure() >= 0);
    rows = new Settled(lookup.name, sources, counts, shared.asked());
    gains = new StepGains(lookup, shared.keyColumns(), own.reference.rows());
    watch = new ConstantWatch(lookup, own.reference);
    telling = new LookupTelling(shared, own, rows, exceptions);
    RuleChain rule = own.reference.finder().rule();
    measures = rule != null && rule.measures();
    tells = exceptions != Exceptions.NONE;
    apart = shared.apart().part();
    drops = treats(Treatment.Action.DROP);
    fails = treats(Treatment.Action.FAIL);
    each = List.of(sources).stream().anyMatch(from -> from.each);
  }

  /** A worker like this one that has counted nothing. */
  LookupWorker another() {
    return new LookupWorker(shared, Exceptions.NONE);
  }

  private boolean treats(Treatment.Action action) {
    return lookup.treatments.values().stream().anyMatch(t -> t.action() == action);
  }

  @Override
  public void apply(Batch batch) {
    rows.find(batch);
    gains.count(batch, rows.place, own.probe.keys().changed);
    if (measures) {
      measureDistances();
    }
    rows.tryFurther(batch);
    countMisses(batch);
    if (!own.reference.leftOut().isEmpty()) {
      countWouldMatch();
    }
    count(batch);
    if (fails) {
      fail(batch);
    }
    if (tells) {
      telling.tell(batch);
    }
    if (shared.trace() != Trace.NONE) {
      for (int row = 0; row < rows.count; row++) {
        telling.trace(batch, row, wouldMatch(row));
      }
    }
    if (each) {
      rows.addRows(batch);
    }
    gather(batch);
    if (lookup.mark != null) {
      mark(batch.addColumn());
    }
    if (drops) {
      drop(batch);
    }
  }

  private void measureDistances() {
    for (int row = 0; row < rows.count; row++) {
      if (rows.outcome[row] == Settled.MATCHED) {
        counts.distances.add(own.probe.apart(row));
      }
    }
  }

  /** Counts how the rows missed for which no reference had a row. */
  private void countMisses(Batch batch) {
    for (int row = 0; row < rows.count; row++) {
      if (!rows.open(row)) {
        continue;
      }
      int at = rows.place[row];
      int blank = own.probe.blankParts(row);
      if (at != HashIndex.ABSENT) {
        misses.count(own, row, at, batch.rowNumber(row));
        blank |= at == RuleIndex.UNFIT ? 1 << own.probe.unfitPart(own.reference.finder(), row) : 0;
      }
      counts.blankParts(blank);
    }
  }

  private void countWouldMatch() {
    if (inLeftOut.length < rows.count) {
      inLeftOut = new int[rows.count];
    }
    own.probe.findAside(own.reference.leftOut(), inLeftOut);
    for (int row = 0; row < rows.count; row++) {
      counts.wouldMatch += wouldMatch(row) ? 1 : 0;
    }
  }

  /** Whether a row is unmatched that fits one which the reference's condition left out. */
  private boolean wouldMatch(int row) {
    return rows.outcome[row] == Settled.UNMATCHED
        && !own.reference.leftOut().isEmpty()
        && (inLeftOut[row] >= 0 || inLeftOut[row] > RuleIndex.LAST_MISS);
  }

  private void count(Batch batch) {
    for (int row = 0; row < rows.count; row++) {
      if (counts.outcomes[rows.outcome[row]]++ == 0) {
        counts.firsts[rows.outcome[row]] = batch.rowNumber(row); // a worker's rows come in order
      }
    }
    if (shared.measure() >= 0) {
      CellVector cells = batch.column(shared.measure());
      for (int row = 0; row < rows.count; row++) {
        counts.measured[rows.outcome[row]].add(cells, row);
      }
    }
  }

  private void fail(Batch batch) {
    for (int row = 0; row < rows.count; row++) {
      Outcome outcome = OUTCOMES[rows.outcome[row]];
      if (lookup.treatment(outcome).action() == Treatment.Action.FAIL) {
        throw telling.failure(batch, row, outcome);
      }
    }
  }

  private void gather(Batch batch) {
    int attributes = lookup.bring.size();
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
    for (int row = 0; row < rows.count; row++) {
      if (rows.outcome[row] == Settled.MATCHED) {
        fetch(row, columns);
      } else {
        fill(rows.outcome[row], columns);
      }
    }
    watch.look(columns, rows.outcome, rows.count);
  }

  private void fetch(int row, CellVector[] columns) {
    Source from = rows.sourceOf(row);
    @Nullable String[] combined =
        rows.set[row] == Settled.NO_SET ? null : from.reference.choices().combined(rows.set[row]);
    if (combined == null) {
      from.fetch(rows.place[row]);
    } else {
      from.fetch(combined);
    }
    for (int a : from.missing) {
      columns[a].append(shared.fills().of(Settled.MATCHED, a));
      counts.notBrought[a]++;
    }
  }

  private void fill(int outcome, CellVector[] columns) {
    for (int a = 0; a < columns.length; a++) {
      String fill = shared.fills().of(outcome, a);
      columns[a].append(fill);
      if (fill == null) {
        columns[a].because(outcome); // the outcomes are the first reasons, in their order
      }
    }
  }

  private void mark(CellVector target) {
    for (int row = 0; row < rows.count; row++) {
      String label = OUTCOMES[rows.outcome[row]].label();
      boolean further = rows.source[row] > 0;
      target.append(further ? label + ": " + rows.sourceOf(row).lookup.name : label);
    }
  }

  private void drop(Batch batch) {
    int[] kept = new int[rows.count];
    int keeping = 0;
    for (int row = 0; row < rows.count; row++) {
      Outcome outcome = OUTCOMES[rows.outcome[row]];
      if (lookup.treatment(outcome).action() != Treatment.Action.DROP) {
        kept[keeping++] = row;
      }
    }
    if (keeping < rows.count) {
      if (apart != null) {
        apart.add(batch, rows.outcome, rows.count);
      }
      batch.pick(kept, keeping);
      counts.dropped += rows.count - keeping;
    }
  }

  @Override
  public void inOrder() {
    if (apart != null) {
      apart.inOrder();
    }
  }

  /** What is counted beside the counts themselves. */
  record Tally(StepGains gains, Misses misses, ConstantWatch watch, LookupFills fills) {}

  /** Adds what another worker has counted, of the same reference or of another part of it. */
  @Override
  public void merge(StepWorker worker) {
    LookupWorker other = (LookupWorker) worker;
    for (int i = 0; i < sources.length; i++) {
      sources[i].merge(other.sources[i]);
    }
    counts.merge(other.counts);
    gains.merge(other.gains);
    misses.merge(other.misses);
    watch.merge(other.watch);
  }

  @Override
  public void carry(Carrier carrier) {
    for (Source source : sources) {
      source.carry(carrier);
    }
    counts.carry(carrier);
    gains.carry(carrier);
    misses.carry(carrier);
    watch.carry(carrier);
  }

  /** The figures of what was counted here; see {@link LookupCounts#figures}. */
  LookupFigures figures(
      ReferenceFacts facts,
      long left,
      LookupFigures.@Nullable Spilled spilled,
      @Nullable LargeReference large) {
    return counts.figures(
        new Tally(gains, misses, watch, shared.fills()), facts, left, spilled, large);
  }

  /** What was found in the reference. */
  ReferenceFacts facts() {
    return counts.facts();
  }

  /** The rows of the last batch, as they were settled. */
  Settled settled() {
    return rows;
  }

  /** The figures of what was counted here, over a reference in memory. */
  LookupFigures figures() {
    return figures(facts(), 0, null, null);
  }
}
