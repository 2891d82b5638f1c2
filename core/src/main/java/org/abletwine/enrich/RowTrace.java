package org.abletwine.enrich;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.compute.Expression;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.step.run.Trace;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Takes one transaction through the steps of an enrichment, told by the steps themselves: the row
 * is read, prepared and transformed by what runs a whole table, in a batch of its own.
 */
final class RowTrace {
  private final Table transactions;
  private final Columns columns;
  private final List<TracedRow.StepTrace> traced = new ArrayList<>();
  private List<TracedRow.StepTrace.Line> current = new ArrayList<>();

  /** Columns that are private after any of the steps. */
  private final Set<String> hidden = new HashSet<>();

  /**
   * @param transactions the table
   * @param columns its columns, as a run has them before its first step
   */
  RowTrace(Table transactions, Columns columns) {
    this.transactions = transactions;
    this.columns = columns;
  }

  @Nullable TracedRow of(
      List<RunStep> steps, long rowNumber, @Nullable Expression where, Spill spill) {
    Trace notes = (label, detail) -> current.add(new TracedRow.StepTrace.Line(label, detail));
    RunContext context =
        new RunContext(
            Progress.NONE,
            Exceptions.NONE,
            notes,
            false,
            null,
            Workers.usual(),
            null,
            Map.of(),
            spill,
            null,
            RunContext.Among.ALONE);
    List<Map<String, Integer>> numbers = new ArrayList<>();
    numbers.add(numbersOf(columns));
    hidden.addAll(columns.privateNames());
    List<PreparedStep> runners = new ArrayList<>();
    try {
      for (RunStep step : steps) {
        runners.add(step.prepare(columns, context));
        numbers.add(numbersOf(columns));
        hidden.addAll(columns.privateNames());
      }
      return found(steps, rowNumber, where, runners, numbers);
    } finally {
      runners.forEach(PreparedStep::close);
    }
  }

  private @Nullable TracedRow found(
      List<RunStep> steps,
      long rowNumber,
      @Nullable Expression where,
      List<PreparedStep> runners,
      List<Map<String, Integer>> numbers) {
    BitSet wanted = null;
    if (where == null && rowNumber < Integer.MAX_VALUE) {
      wanted = new BitSet();
      wanted.set((int) rowNumber);
    }
    try (BatchReader reader = new BatchReader(transactions, transactions.schema().size(), wanted)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        int row = find(batch, rowNumber, where);
        if (row >= 0) {
          batch.pick(new int[] {row}, 1);
          return apply(batch, steps, runners, numbers);
        }
      }
      return null;
    }
  }

  private static Map<String, Integer> numbersOf(Columns columns) {
    Map<String, Integer> numbers = new LinkedHashMap<>();
    int[] of = columns.numbers();
    for (int i = 0; i < of.length; i++) {
      numbers.put(columns.names().get(i), of[i]);
    }
    return numbers;
  }

  private static int find(Batch batch, long rowNumber, @Nullable Expression where) {
    if (where != null) {
      where.over(batch);
    }
    for (int row = 0; row < batch.rows(); row++) {
      if (where == null ? batch.rowNumber(row) == rowNumber : where.isTrue(row)) {
        return row;
      }
    }
    return -1;
  }

  private TracedRow apply(
      Batch batch,
      List<RunStep> steps,
      List<PreparedStep> runners,
      List<Map<String, Integer>> numbers) {
    long number = batch.rowNumber(0);
    List<StepWorker> workers =
        runners.stream().map(runner -> runner.worker(Exceptions.NONE)).toList();
    Map<String, @Nullable String> before = values(batch, numbers.get(0));
    Map<String, @Nullable String> read = before;
    for (int step = 0; step < runners.size() && batch.rows() > 0; step++) {
      current = new ArrayList<>();
      for (String input : runners.get(step).inputs()) {
        current.add(new TracedRow.StepTrace.Line(input, shown(input, before.get(input))));
      }
      workers.get(step).apply(batch);
      if (batch.rows() == 0) {
        current.add(new TracedRow.StepTrace.Line("row", "left out, as the plan says"));
      } else {
        Map<String, @Nullable String> after = values(batch, numbers.get(step + 1));
        changes(before, after);
        if (current.isEmpty() && !runners.get(step).aboutRows()) {
          before = after;
          continue; // totals and the arrangement of columns say nothing about a single row
        }
        if (current.isEmpty()) {
          current.add(new TracedRow.StepTrace.Line("row", "unchanged"));
        }
        before = after;
        if (batch.rows() > 1) {
          current.add(
              new TracedRow.StepTrace.Line("rows", batch.rows() + "; the first is followed"));
          batch.pick(new int[] {0}, 1);
        }
      }
      traced.add(new TracedRow.StepTrace(steps.get(step).title(), current));
    }
    Map<String, @Nullable String> shown = new LinkedHashMap<>(read);
    shown.replaceAll((name, value) -> Veil.over(hidden.contains(name), value));
    return new TracedRow(number, shown, traced);
  }

  private static Map<String, @Nullable String> values(Batch batch, Map<String, Integer> numbers) {
    Map<String, @Nullable String> values = new LinkedHashMap<>();
    numbers.forEach((name, number) -> values.put(name, batch.column(number).get(0)));
    return values;
  }

  private String shown(String column, @Nullable String value) {
    return Trace.shown(Veil.over(hidden.contains(column), value));
  }

  private void changes(Map<String, @Nullable String> before, Map<String, @Nullable String> after) {
    after.forEach(
        (name, value) -> {
          if (!before.containsKey(name)) {
            current.add(new TracedRow.StepTrace.Line(name + " =", shown(name, value)));
          } else if (!java.util.Objects.equals(before.get(name), value)) {
            current.add(
                new TracedRow.StepTrace.Line(
                    name, shown(name, before.get(name)) + " became " + shown(name, value)));
          }
        });
  }
}
