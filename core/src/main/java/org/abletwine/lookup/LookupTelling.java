package org.abletwine.lookup;

import org.abletwine.index.HashIndex;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Trace;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;

/** Says in words what has become of rows, to whoever listens. Belongs to one thread. */
final class LookupTelling {
  private static final Outcome[] OUTCOMES = Outcome.values();

  private final PreparedLookup.Shared shared;
  private final Lookup lookup;
  private final Source own;
  private final int[] keyColumns;
  private final Settled rows;
  private final Teller teller;

  LookupTelling(PreparedLookup.Shared shared, Source own, Settled rows, Exceptions exceptions) {
    this.shared = shared;
    this.lookup = shared.lookup();
    this.own = own;
    this.keyColumns = shared.keyColumns();
    this.teller = new Teller(shared, exceptions);
    this.rows = rows;
  }

  /** Tells of each row that is not matched. */
  void tell(Batch batch) {
    teller.tell(batch, rows.outcome, rows.count, row -> told(batch, row));
  }

  /** What there is to say of a row, and of a key of several parts which of them is missing. */
  private String told(Batch batch, int row) {
    return rows.outcome[row] == Settled.UNMATCHED && shared.known().tells()
        ? shared.known().of(batch, row, keyColumns)
        : detail(row);
  }

  /** The reference rows an ambiguous key stands on, or how a value missed. */
  private String detail(int row) {
    if (rows.outcome[row] == Settled.AMBIGUOUS) {
      return "rows " + candidates(row) + " of " + rows.sourceOf(row).reference.name();
    }
    return rows.place[row] == HashIndex.ABSENT ? "" : own.describeMiss(row, rows.place[row]);
  }

  private String candidates(int row) {
    LoadedReference reference = rows.sourceOf(row).reference;
    return reference.numbers().list(reference.finder().sets().rows(rows.set[row]));
  }

  /** Tells how this row's outcome came about, from what the stages before have left. */
  void trace(Batch batch, int row, boolean wouldMatch) {
    Trace trace = shared.trace();
    Source from = rows.sourceOf(row);
    LookupTrace telling = new LookupTrace(lookup, trace);
    if (lookup.asked != null && rows.outcome[row] == Settled.NOT_ASKED) {
      trace.note("outcome", "not-asked: when: " + lookup.asked.condition() + " is not true");
      return;
    }
    telling.key(batch, row, keyColumns);
    if (rows.source[row] > 0) {
      trace.note("not in " + own.reference.name(), "tried otherwise: " + from.lookup.name);
    }
    if (rows.outcome[row] == Settled.MATCHED || rows.outcome[row] == Settled.AMBIGUOUS) {
      int[] rowsOf =
          rows.set[row] == Settled.NO_SET
              ? new int[] {from.reference.rowAt(rows.place[row])}
              : from.reference.finder().sets().rows(rows.set[row]);
      telling.candidates(from, rowsOf);
      telling.choice(from, rowsOf, rows.place[row], rows.set[row]);
    } else {
      String miss = detail(row);
      trace.note(
          "outcome",
          OUTCOMES[rows.outcome[row]].label()
              + (miss.isEmpty() ? "" : ": " + miss)
              + (wouldMatch ? "; a row that the reference's condition left out would match" : ""));
      boolean equal = lookup.key.stream().allMatch(KeyPart::equal);
      if (rows.outcome[row] == Settled.UNMATCHED && equal && shared.known().whole()) {
        new NearTrace(lookup, own.reference, shared.known()).note(batch, row, keyColumns, trace);
      } else if (rows.outcome[row] == Settled.UNMATCHED && equal) {
        if (shared.known().tells()) {
          trace.note("parts", shared.known().of(batch, row, keyColumns));
        }
        trace.note("near misses", "not looked for: the reference does not fit in memory");
      }
    }
    telling.fills(shared.fills().of(rows.outcome[row]), rows.outcome[row] == Settled.MATCHED);
  }

  DataException failure(Batch batch, int row, Outcome outcome) {
    return teller.failure(batch, row, outcome, detail(row));
  }
}
