package org.abletwine.derive;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.abletwine.compute.GroupTotals;
import org.abletwine.compute.RowErrors;
import org.abletwine.figures.RollupFigures;
import org.abletwine.index.GroupIndex;
import org.abletwine.lookup.Aggregate;
import org.abletwine.lookup.Attribute;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.jspecify.annotations.Nullable;

/**
 * A rollup prepared for one run: each worker has groups of its own, which become one at the end.
 */
final class PreparedRollup implements PreparedStep {
  private final Rollup rollup;
  private final RunContext context;
  private final int[] by;
  private final int[] of;
  private final List<@Nullable ColumnType> types = new ArrayList<>();

  /** What the columns of the rollup hold. */
  private final List<@Nullable ColumnType> written = new ArrayList<>();

  private final List<RollupWorker> workers = new ArrayList<>();
  private @Nullable RollupFigures figures;
  private @Nullable BatchSink sink;

  PreparedRollup(Rollup rollup, Columns columns, int[] by, int[] of, RunContext context) {
    this.rollup = rollup;
    this.context = context;
    this.by = by.clone();
    this.of = of.clone();
    rollup.totals().forEach(total -> types.add(columns.type(total.source())));
    rollup.by().forEach(column -> written.add(columns.type(column)));
    for (int i = 0; i < types.size(); i++) {
      Aggregate aggregate = rollup.totals().get(i).aggregate();
      written.add(
          aggregate == null ? ColumnType.of(ColumnType.Kind.NUMBER) : aggregate.type(types.get(i)));
    }
  }

  @Override
  public StepWorker worker(Exceptions exceptions) {
    RollupWorker worker = new RollupWorker(rollup, by, of, types);
    workers.add(worker);
    return worker;
  }

  @Override
  public void finish() {
    if (rollup.file() == null || !context.writes()) {
      return;
    }
    RollupFigures figures = figures();
    List<String> names = new ArrayList<>(rollup.by());
    names.addAll(figures.totals());
    int[] columns = IntStream.range(0, names.size()).toArray();
    Batch batch = new Batch(names.size());
    batch.clear(1, '\0');
    BatchSink into = context.open(rollup.file());
    sink = into;
    into.typed(written);
    into.start(rollup.form(), new Schema(names));
    for (List<@Nullable String> line : figures.groups()) {
      if (batch.full()) {
        into.write(batch, columns);
        batch.clear(1, '\0');
      }
      line.forEach(batch::addCell);
      batch.endRow();
    }
    if (!figures.grandTotal().isEmpty()) {
      for (int i = 0; i < rollup.by().size(); i++) {
        batch.addCell(i == 0 ? "all" : null);
      }
      figures.grandTotal().forEach(batch::addCell);
      batch.endRow();
    }
    into.write(batch, columns);
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
  public RollupFigures figures() {
    RollupFigures known = figures;
    if (known == null) {
      if (workers.isEmpty()) {
        worker(Exceptions.NONE); // no group is a result too
      }
      RollupWorker first = workers.get(0);
      workers.subList(1, workers.size()).forEach(first::merge);
      known = sum(first.index, first.totals);
      figures = known;
    }
    return known;
  }

  private RollupFigures sum(GroupIndex index, GroupTotals[] totals) {
    List<@Nullable String> grand = new ArrayList<>();
    if (rollup.grandTotal()) {
      for (GroupTotals total : totals) {
        grand.add(total.grand());
      }
    }
    Map<String, BigDecimal> sums = new LinkedHashMap<>();
    for (int t = 0; t < totals.length; t++) {
      String sum = Rollup.isSum(rollup.totals().get(t)) ? totals[t].grand() : null;
      if (sum != null) {
        sums.put(rollup.totals().get(t).source(), new BigDecimal(sum));
      }
    }
    RowErrors errors = RowErrors.sum(Arrays.stream(totals).map(GroupTotals::errors).toList());
    return new RollupFigures(
        rollup.file() == null ? rollup.title() : rollup.file().shortName(),
        rollup.by(),
        rollup.totals().stream().map(Attribute::as).toList(),
        new GroupLines(index, totals),
        grand,
        sums,
        rollup.file() == null ? "" : rollup.file().toString(),
        errors.count(),
        errors.example());
  }
}
