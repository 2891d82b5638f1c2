package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.abletwine.index.HashIndex;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Trace;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Says in words what has become of rows, to whoever listens. Belongs to one thread. */
final class LookupTelling {
  private static final Outcome[] OUTCOMES = Outcome.values();

  private final PreparedLookup.Shared shared;
  private final Lookup lookup;
  private final Source own;
  private final int[] keyColumns;
  private final int measure;
  private final Exceptions exceptions;
  private final Settled rows;

  /** For each part of the key whether its values are private. */
  private final boolean[] hidden;

  /** Of which outcomes it is told. */
  private final boolean[] tells = new boolean[OUTCOMES.length];

  LookupTelling(PreparedLookup.Shared shared, Source own, Settled rows, Exceptions exceptions) {
    this.shared = shared;
    this.lookup = shared.lookup();
    this.own = own;
    this.keyColumns = shared.keyColumns();
    this.measure = shared.measure();
    this.exceptions = exceptions;
    this.rows = rows;
    this.hidden = new boolean[keyColumns.length];
    for (int part = 0; part < hidden.length; part++) {
      hidden[part] = lookup.hides(lookup.key.get(part));
    }
    for (Outcome outcome : OUTCOMES) {
      boolean asked = outcome != Outcome.MATCHED && outcome != Outcome.NOT_ASKED;
      tells[outcome.ordinal()] = asked && !lookup.expected().contains(outcome);
    }
  }

  /** Tells of each row that is not matched. */
  void tell(Batch batch) {
    for (int row = 0; row < rows.count; row++) {
      if (tells[rows.outcome[row]]) {
        StringBuilder key = new StringBuilder();
        for (int part = 0; part < keyColumns.length; part++) {
          String value = value(batch, row, part);
          key.append(part == 0 ? "" : " | ").append(value == null ? "" : value);
        }
        exceptions.found(
            new Exceptions.Found(
                lookup.name,
                OUTCOMES[rows.outcome[row]].label(),
                shared.transactions(),
                batch.rowNumber(row),
                key.toString(),
                told(batch, row),
                measure < 0 ? null : batch.column(measure).get(row),
                carried(batch, row)));
      }
    }
  }

  /** What may be shown of a part of a row's key. */
  private @Nullable String value(Batch batch, int row, int part) {
    return Veil.over(hidden[part], batch.column(keyColumns[part]).get(row));
  }

  private List<@Nullable String> carried(Batch batch, int row) {
    List<@Nullable String> cells = new ArrayList<>();
    int[] columns = shared.carried();
    for (int i = 0; i < columns.length; i++) {
      boolean hidden = shared.carriedHidden().get(i);
      cells.add(Veil.over(hidden, batch.column(columns[i]).get(row)));
    }
    return cells;
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
      if (rows.outcome[row] == Settled.UNMATCHED && lookup.key.stream().allMatch(KeyPart::equal)) {
        new NearTrace(lookup, own.reference, shared.known()).note(batch, row, keyColumns, trace);
      }
    }
    telling.fills(shared.fills().of(rows.outcome[row]), rows.outcome[row] == Settled.MATCHED);
  }

  DataException failure(Batch batch, int row, Outcome outcome) {
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
    String value = value(batch, row, part);
    return value == null ? "null" : "\"" + value + "\"";
  }
}
