package org.abletwine.enrich;

import java.io.DataOutput;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Before;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.TakenElsewhere;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.OutputGroup;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * Runs of an enrichment: steps are prepared, rows taken through them, figures gathered, outputs put
 * in place. Immutable: each call is a run of its own.
 */
final class EnrichmentRun {
  private final RunSettings settings;

  EnrichmentRun(RunSettings settings) {
    this.settings = settings;
  }

  /** As {@link Enrichment#writeTo(TableSink, RunContext)}. */
  RunRecord writeTo(TableSink sink, RunContext context) {
    BatchSink into = BatchSink.of(sink);
    TakenElsewhere taken = context.taken();
    Instant started = taken == null ? Instant.now() : taken.started();
    long begun = System.nanoTime();
    Columns columns = settings.runColumns();
    context.opened(into);
    List<PreparedStep> runners = new ArrayList<>();
    boolean done = false;
    try (Spill spill = new Spill(settings.memory(), settings.spillFolder())) {
      RunRecord record =
          run(
              into,
              context.of(settings.transactions(), settings.workers()).within(spill),
              columns,
              runners,
              started,
              begun);
      done = true;
      return record;
    } finally {
      if (!done || context.outputs() == null) {
        runners.forEach(PreparedStep::close);
      }
    }
  }

  private RunRecord run(
      BatchSink sink,
      RunContext context,
      Columns columns,
      List<PreparedStep> runners,
      Instant started,
      long begun) {
    Set<String> hidden = prepare(context, columns, runners);
    start(sink, columns);
    Counted counted = counted(sink, context, columns, runners);
    List<StepFigures> figures = new ArrayList<>();
    for (int step = 0; step < runners.size(); step++) {
      StepFigures own = runners.get(step).figures(counted.steps().get(step));
      figures.add(own);
      runners.get(step).finish(own);
    }
    OutputGroup outputs = context.outputs() == null ? new OutputGroup() : context.outputs();
    runners.forEach(runner -> outputs.add(runner.outputs()));
    outputs.add(List.of(sink));
    if (context.outputs() == null) {
      outputs.commit();
    } else {
      sink.complete(); // a disk that is full is told before anything is made of the figures
    }
    return new RunRecord(
        settings.title(),
        settings.transactions().name(),
        started,
        context.taken() == null
            ? Duration.ofNanos(System.nanoTime() - begun)
            : Duration.between(started, Instant.now()), // it began in another process
        counted.rowsIn(),
        counted.rowsOut(),
        counted.bytesIn(),
        List.copyOf(columns.names()),
        figures,
        settings.measured(),
        Map.of(),
        remarks(),
        List.of(),
        List.copyOf(hidden));
  }

  /** Prepares the steps; returns the private columns there are at any point. */
  private Set<String> prepare(RunContext context, Columns columns, List<PreparedStep> runners) {
    Set<String> hidden = new LinkedHashSet<>(columns.privateNames());
    for (int at = 0; at < settings.steps().size(); at++) {
      int step = at;
      Before before =
          context.taken() == null
              ? (into, numbers) -> again(step, columns, context, into, numbers)
              : (into, numbers) -> null; // whoever takes the rows has seen them before
      runners.add(settings.steps().get(at).prepare(columns, context.after(before)));
      hidden.addAll(columns.privateNames());
    }
    return hidden;
  }

  private void start(BatchSink sink, Columns columns) {
    sink.typed(columns.types());
    sink.keepPrivate(columns.privateNames());
    sink.start(settings.transactions(), new Schema(columns.names()));
  }

  /** Takes the rows through the steps, unless that was done elsewhere. */
  private Counted counted(
      BatchSink sink, RunContext context, Columns columns, List<PreparedStep> runners) {
    TakenElsewhere taken = context.taken();
    if (taken != null) {
      return Counted.elsewhere(taken, runners, settings.transactions(), context);
    }
    Pipeline pipeline =
        new Pipeline(settings.transactions(), runners, sink, columns, settings.mostRows(), context);
    pipeline.run();
    return pipeline.counted();
  }

  /** As {@link Enrichment#writePart}, where the rows are those of the settings. */
  void part(int count, BatchSink sink, RunContext run, DataOutput into) {
    HandedOn told = new HandedOn(into);
    Columns columns = settings.runColumns();
    List<PreparedStep> runners = new ArrayList<>();
    try (Spill spill = new Spill(settings.memory(), settings.spillFolder())) {
      RunContext context =
          run.of(settings.transactions(), settings.workers()).within(spill).telling(told);
      prepare(context, columns, runners);
      start(sink, columns);
      told.rowsBegin();
      Pipeline pipeline =
          new Pipeline(
              settings.transactions(),
              runners,
              sink,
              columns,
              settings.mostRows(),
              context.of(settings.transactions(), count));
      pipeline.run();
      told.end(pipeline.counted());
      OutputGroup outputs = new OutputGroup();
      runners.forEach(runner -> outputs.add(runner.outputs()));
      outputs.add(List.of(sink));
      outputs.commit();
    } finally {
      runners.forEach(PreparedStep::close);
    }
  }

  /** As {@link Enrichment#exchange}, where the rows are those of the settings. */
  <T> T exchange(String lookup, RunContext run, Function<Exchanging.Rows, T> use) {
    Columns columns = settings.runColumns();
    List<PreparedStep> runners = new ArrayList<>();
    try (Spill spill = new Spill(settings.memory(), settings.spillFolder())) {
      RunContext context =
          run.of(settings.transactions(), settings.workers()).within(spill).writingNothing();
      for (int at = 0; at < settings.steps().size(); at++) {
        int step = at;
        RunContext after =
            context.after((into, numbers) -> again(step, columns, context, into, numbers));
        Exchanging exchanging = settings.steps().get(at).exchanging();
        if (exchanging != null && exchanging.name().equals(lookup)) {
          return use.apply(exchanging.rows(columns, after));
        }
        runners.add(settings.steps().get(at).prepare(columns, after));
      }
      throw new IllegalArgumentException("no step divides references for lookup " + lookup);
    } finally {
      runners.forEach(PreparedStep::close);
    }
  }

  /**
   * Takes all rows through the first steps, for a step that must see them before it passes them.
   */
  private @Nullable DataException again(
      int count, Columns run, RunContext context, BatchSink into, int[] numbers) {
    settings.transactions().readAgain();
    Columns columns = settings.runColumns().sharing(run);
    RunContext quiet = context.quiet();
    List<PreparedStep> runners = new ArrayList<>();
    try {
      for (RunStep step : settings.steps().subList(0, count)) {
        runners.add(step.prepare(columns, quiet));
      }
      new Pipeline(
              settings.transactions(), runners, into, columns, numbers, settings.mostRows(), quiet)
          .run();
      return null;
    } catch (DataException e) {
      return e;
    } finally {
      runners.forEach(PreparedStep::close);
    }
  }

  private List<String> remarks() {
    List<Table> tables = new ArrayList<>(List.of(settings.transactions()));
    settings.steps().forEach(step -> tables.addAll(step.references()));
    return tables.stream()
        .distinct()
        .flatMap(table -> table.remarks().stream().map(remark -> table.name() + ": " + remark))
        .toList();
  }
}
