package org.abletwine.derive;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.abletwine.compute.GroupTotals;
import org.abletwine.figures.RollupFigures;
import org.abletwine.index.GroupIndex;
import org.abletwine.lookup.Attribute;
import org.abletwine.step.Columns;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.Output;
import org.abletwine.table.Schema;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/** A rollup at work: groups by a hash index, totals in flat arrays. */
final class RollupRunner implements StepRunner {
  private final Rollup rollup;
  private final boolean writes;
  private final int[] by;
  private final int[] of;
  private final GroupIndex index;
  private final GroupTotals[] totals;
  private final CellVector[] groupCells;

  /** Take the text of computed numbers that make groups. */
  private final CellVector[] scratch;

  private int[] groups = new int[0];
  private @Nullable RollupFigures figures;
  private @Nullable TableSink sink;

  RollupRunner(Rollup rollup, Columns columns, int[] by, int[] of, boolean writes) {
    this.writes = writes;
    this.rollup = rollup;
    this.by = by.clone();
    this.of = of.clone();
    index = new GroupIndex(by.length, of.length * GroupTotals.COUNTERS);
    groupCells = new CellVector[by.length];
    scratch = new CellVector[by.length];
    Arrays.setAll(scratch, i -> new CellVector());
    totals = new GroupTotals[of.length];
    for (int t = 0; t < totals.length; t++) {
      Attribute total = rollup.totals().get(t);
      totals[t] =
          new GroupTotals(
              function(total),
              index,
              t * GroupTotals.COUNTERS,
              columns.type(total.source()),
              Rollup.WHERE + ", " + Rollup.shown(total),
              rollup.settings());
    }
  }

  private static GroupTotals.Function function(Attribute total) {
    return total.aggregate() == null
        ? GroupTotals.Function.SUM
        : GroupTotals.Function.valueOf(total.aggregate().function().name());
  }

  @Override
  public boolean mayRunWithWriting() {
    return true;
  }

  @Override
  public void apply(Batch batch) {
    int count = batch.rows();
    if (groups.length < count) {
      groups = new int[count];
    }
    for (int i = 0; i < by.length; i++) {
      groupCells[i] = batch.column(by[i]).asText(scratch[i]);
    }
    index.find(groupCells, count, groups);
    for (int t = 0; t < totals.length; t++) {
      if (of[t] < 0) {
        totals[t].addRows(groups, count);
      } else {
        totals[t].add(groups, batch.column(of[t]), batch);
      }
    }
  }

  @Override
  public void finish() {
    if (rollup.file() == null || !writes) {
      return;
    }
    RollupFigures figures = figures();
    List<String> names = new ArrayList<>(rollup.by());
    names.addAll(figures.totals());
    int[] columns = IntStream.range(0, names.size()).toArray();
    Batch batch = new Batch(names.size());
    batch.clear(1, '\0');
    TableSink into = Tables.sink(rollup.file());
    sink = into;
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
      for (int i = 0; i < by.length; i++) {
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
      known = sum();
      figures = known;
    }
    return known;
  }

  private RollupFigures sum() {
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
    String example =
        Arrays.stream(totals)
            .map(GroupTotals::errorExample)
            .filter(e -> !e.isEmpty())
            .findFirst()
            .orElse("");
    return new RollupFigures(
        rollup.file() == null ? rollup.title() : rollup.file().getFileName() + "",
        rollup.by(),
        rollup.totals().stream().map(Attribute::as).toList(),
        new GroupLines(index, totals),
        grand,
        sums,
        rollup.file() == null ? "" : rollup.file().toString(),
        Arrays.stream(totals).mapToLong(GroupTotals::errors).sum(),
        example);
  }
}
