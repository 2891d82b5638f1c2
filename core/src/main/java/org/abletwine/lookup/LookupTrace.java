package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.CellsStep;
import org.abletwine.step.run.Trace;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/** Puts what a lookup did with one row into words. Decides nothing. */
final class LookupTrace {
  private static final int SHOWN = 8;

  private final Lookup lookup;
  private final Trace trace;

  LookupTrace(Lookup lookup, Trace trace) {
    this.lookup = lookup;
    this.trace = trace;
  }

  /** The key as written, and what each normalise step made of it. */
  void key(Batch batch, int row, int[] keyColumns) {
    for (int part = 0; part < keyColumns.length; part++) {
      KeyPart one = lookup.key.get(part);
      StringBuilder text = new StringBuilder();
      CellVector cell = new CellVector();
      cell.clear();
      String value = batch.column(keyColumns[part]).get(row);
      cell.append(value);
      boolean hidden = lookup.hides(one);
      text.append(Trace.shown(Veil.over(hidden, value)));
      for (NormaliseStep step : KeyLayout.stepsOf(lookup, one, true)) {
        CellsStep.apply(step, cell, 1);
        String made = Trace.shown(Veil.over(hidden, cell.get(0)));
        text.append("; ").append(step.name()).append(": ").append(made);
      }
      trace.note("key " + one, text.toString());
    }
  }

  /** The reference rows that the key fits. */
  void candidates(Source from, int[] rows) {
    for (int i = 0; i < Math.min(rows.length, SHOWN); i++) {
      trace.note(
          "row " + from.reference.numbers().of(rows[i]) + " of " + from.reference.name(),
          cells(from, rows[i]));
    }
    if (rows.length > SHOWN) {
      trace.note("", "and " + (rows.length - SHOWN) + " more");
    }
    if (rows.length > 1) {
      disagreements(from, rows);
    }
  }

  /** The columns brought in which the rows that fit are not alike. */
  private void disagreements(Source from, int[] rows) {
    List<Attribute> brought = KeptColumns.inCellOrder(from.lookup.bring);
    List<String> columns = new ArrayList<>();
    for (int cell = 0; cell < brought.size(); cell++) {
      String first = from.reference.rows().get(rows[0], cell);
      boolean alike = brought.get(cell).aggregate() != null;
      int at = cell;
      alike |=
          Arrays.stream(rows)
              .allMatch(row -> Objects.equals(first, from.reference.rows().get(row, at)));
      if (!alike) {
        columns.add(brought.get(cell).source());
      }
    }
    if (!columns.isEmpty()) {
      trace.note("they disagree in", String.join(", ", columns));
    }
  }

  private static String cells(Source from, int row) {
    List<Attribute> brought = KeptColumns.inCellOrder(from.lookup.bring);
    List<String> cells = new ArrayList<>();
    int cell = 0;
    for (Attribute attribute : brought) {
      if (!attribute.ofRows()) {
        cells.add(cell(from, attribute.source(), row, cell));
      }
      cell++;
    }
    for (String column : KeyLayout.of(from.lookup).theirs(from.lookup)) {
      cells.add(cell(from, column, row, cell++));
    }
    return String.join(", ", cells);
  }

  private static String cell(Source from, String column, int row, int cell) {
    String value = from.reference.rows().get(row, cell);
    return column + " " + Trace.shown(Veil.over(from.lookup.hides(column), value));
  }

  /** Which of them was taken, and why. */
  void choice(Source from, int[] rows, int place, int set) {
    if (place == Choices.DISAGREE) {
      trace.note("outcome", "ambiguous: the rows disagree, and several: " + from.lookup.several);
      return;
    }
    boolean aggregates = from.lookup.bring.stream().anyMatch(a -> a.aggregate() != null);
    String why;
    if (rows.length == 1) {
      why = "the only row that fits";
    } else if (aggregates) {
      why = "all " + rows.length + " rows, put together";
    } else if (from.lookup.duplicates.rule() != Duplicates.Rule.KEEP
        && from.reference.finder().rule() == null) {
      why = "the rule for duplicates: " + from.lookup.duplicates;
    } else if (from.reference.choices().conflicting(set)) {
      why = "several: " + from.lookup.several;
    } else {
      why = "the rows agree on everything brought";
    }
    boolean added = from.each && rows.length > 1 && from.reference.choices().conflicting(set);
    trace.note(
        "outcome",
        "matched "
            + (aggregates || added
                ? ""
                : "row " + from.reference.numbers().of(from.reference.rowAt(place)) + ", ")
            + (added ? "every row, as several: each says" : why));
  }

  /** What the plan puts in place of null. */
  void fills(@Nullable String[] fills, boolean matched) {
    for (int a = 0; a < fills.length; a++) {
      if (fills[a] != null) {
        trace.note(
            "fill " + lookup.bring.get(a).as(),
            Trace.shown(fills[a]) + (matched ? " where null in the reference" : ""));
      }
    }
  }
}
