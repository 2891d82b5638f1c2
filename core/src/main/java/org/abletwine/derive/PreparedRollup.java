package org.abletwine.derive;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.compute.RowErrors;
import org.abletwine.derive.total.GroupedTotals;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * A rollup prepared for one run: each worker has groups of its own, which become one at the end.
 */
final class PreparedRollup implements PreparedStep {
  private final Rollup rollup;
  private final RollupColumns columns;
  private final RunContext context;
  private final Spill.@Nullable Share share;
  private @Nullable BatchSink sink;

  PreparedRollup(Rollup rollup, RollupColumns columns, RunContext context) {
    this.rollup = rollup;
    this.columns = columns;
    this.context = context;
    Spill spill = context.spill();
    share = spill == null ? null : spill.share(context.workers());
  }

  @Override
  public StepWorker worker(Exceptions exceptions) {
    return new RollupWorker(
        columns.by,
        new GroupedTotals(columns.calls, columns.by.length, rollup.grandTotal(), share));
  }

  @Override
  public void finish(StepFigures counted) {
    if (rollup.file() == null || !context.writes()) {
      return;
    }
    StepFigures.RolledUp figures = (StepFigures.RolledUp) counted;
    Columns written = columns.own.copy();
    List<StepWorker> formats = new ArrayList<>();
    for (FormatColumn format : rollup.shown().formats()) {
      formats.add(format.prepare(written, context).worker(Exceptions.NONE));
    }
    int[] numbers = written.numbers();
    Batch batch = new Batch(columns.names.size());
    batch.clear(1, '\0');
    BatchSink into = context.open(rollup.file());
    sink = into;
    into.typed(written.types());
    into.start(rollup.form(), new Schema(columns.names));
    for (List<@Nullable String> line : figures.groups()) {
      if (batch.full()) {
        write(batch, formats, numbers, into);
      }
      line.forEach(batch::addCell);
      batch.endRow();
    }
    if (!figures.grandTotal().isEmpty() && !rollup.by().isEmpty()) {
      for (int i = 0; i < rollup.by().size(); i++) {
        batch.addCell(i == 0 ? "all" : null);
      }
      figures.grandTotal().forEach(batch::addCell);
      batch.endRow();
    }
    write(batch, formats, numbers, into);
  }

  private static void write(Batch batch, List<StepWorker> formats, int[] numbers, BatchSink into) {
    formats.forEach(format -> format.apply(batch));
    into.write(batch, numbers);
    batch.clear(1, '\0');
  }

  @Override
  public List<Output> outputs() {
    return sink == null ? List.of() : List.of(sink);
  }

  @Override
  public void close() {
    if (sink != null) {
      sink.close();
    }
  }

  @Override
  public StepFigures.RolledUp figures(StepWorker all) {
    return sum((RollupWorker) all);
  }

  private StepFigures.RolledUp sum(RollupWorker all) {
    GroupLines lines = new GroupLines(rollup, columns, all.totals, share);
    List<@Nullable String> grand = lines.grand();
    Map<String, BigDecimal> sums = new LinkedHashMap<>();
    List<RowErrors> errors = new ArrayList<>(List.of(lines.errors()));
    for (int t = 0; t < columns.totals(); t++) {
      String column = columns.summed(t);
      String sum = column == null ? null : grand.get(t);
      if (column != null && sum != null) {
        sums.put(column, new BigDecimal(sum));
      }
    }
    for (int call = 0; call < columns.calls.count(); call++) {
      errors.add(all.totals.errors(call));
    }
    RowErrors met = RowErrors.sum(errors);
    return new StepFigures.RolledUp(
        rollup.file() == null ? rollup.title() : rollup.file().shortName(),
        rollup.by(),
        columns.names.subList(rollup.by().size(), columns.names.size()),
        lines,
        lines.all(),
        rollup.shown().order(),
        rollup.grandTotal() ? grand : List.of(),
        sums,
        rollup.file() == null ? "" : rollup.file().toString(),
        met.count(),
        met.example(),
        all.totals.onDisk());
  }
}
