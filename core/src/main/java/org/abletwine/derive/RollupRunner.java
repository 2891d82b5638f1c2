package org.abletwine.derive;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.abletwine.compute.GroupTotals;
import org.abletwine.figures.RollupFigures;
import org.abletwine.index.HashIndex;
import org.abletwine.index.RowStore;
import org.abletwine.key.EncodedKeys;
import org.abletwine.key.KeyEncoder;
import org.abletwine.lookup.Attribute;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.Schema;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/** A rollup at work: groups by a hash index, totals in flat arrays. */
final class RollupRunner implements StepRunner {
  private static final char BETWEEN = 0;
  private static final char LAST = Character.MAX_VALUE;

  private final Rollup rollup;
  private final boolean writes;
  private final int[] by;
  private final int[] of;
  private final KeyEncoder encoder;
  private final EncodedKeys keys = new EncodedKeys();
  private final RowStore groups;
  private final HashIndex index;
  private final GroupTotals[] totals;
  private final CellVector[] groupCells;
  private int[] found = new int[0];
  private @Nullable RollupFigures figures;

  RollupRunner(Rollup rollup, int[] by, int[] of, boolean writes) {
    this.writes = writes;
    this.rollup = rollup;
    this.by = by.clone();
    this.of = of.clone();
    List<List<org.abletwine.key.NormaliseStep>> steps = new ArrayList<>();
    for (int i = 0; i < by.length; i++) {
      steps.add(List.of());
    }
    encoder = new KeyEncoder(by, steps);
    groups = new RowStore(by.length);
    index = new HashIndex(groups);
    groupCells = new CellVector[by.length];
    totals = new GroupTotals[of.length];
    for (int t = 0; t < totals.length; t++) {
      totals[t] = new GroupTotals(function(rollup.totals().get(t)));
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
    if (found.length < count) {
      found = new int[count];
    }
    encoder.encode(batch, keys);
    index.probe(keys, found);
    for (int i = 0; i < by.length; i++) {
      groupCells[i] = batch.column(by[i]);
    }
    for (int row = 0; row < count; row++) {
      found[row] = group(row);
    }
    for (int t = 0; t < totals.length; t++) {
      GroupTotals total = totals[t];
      if (of[t] < 0) {
        for (int row = 0; row < count; row++) {
          total.addRow(found[row]);
        }
      } else {
        CellVector cells = batch.column(of[t]);
        for (int row = 0; row < count; row++) {
          total.add(found[row], cells, row);
        }
      }
    }
  }

  /** The row's group; the index passes over blank parts, which make groups here. */
  private int group(int row) {
    int place = found[row] == HashIndex.ABSENT ? index.find(keys, row) : found[row];
    if (place != HashIndex.ABSENT) {
      return index.rowAt(place);
    }
    groups.add(groupCells, row, keys);
    index.add(keys, row, groups.rows() - 1);
    return groups.rows() - 1;
  }

  @Override
  public void finish() {
    if (rollup.file() == null || !writes) {
      return;
    }
    RollupFigures figures = figures();
    List<String> names = new ArrayList<>(rollup.by());
    names.addAll(figures.totals());
    Batch batch = new Batch(names.size());
    batch.clear(1, '\0');
    List<List<@Nullable String>> lines = new ArrayList<>(figures.groups());
    if (!figures.grandTotal().isEmpty()) {
      List<@Nullable String> last = new ArrayList<>();
      for (int i = 0; i < by.length; i++) {
        last.add(i == 0 ? "all" : null);
      }
      last.addAll(figures.grandTotal());
      lines.add(last);
    }
    for (List<@Nullable String> line : lines) {
      line.forEach(batch::addCell);
      batch.endRow(Batch.ALTERED);
    }
    try (TableSink sink = Tables.sink(rollup.file())) {
      sink.start(rollup.form(), new Schema(names));
      sink.write(batch, java.util.stream.IntStream.range(0, names.size()).toArray());
      sink.commit();
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
    List<List<@Nullable String>> lines = new ArrayList<>();
    CellVector[] values = values();
    for (int group : sorted(values)) {
      List<@Nullable String> line = new ArrayList<>(by.length + totals.length);
      for (CellVector column : values) {
        line.add(column.get(group));
      }
      for (GroupTotals total : totals) {
        total.touch(group);
        line.add(total.value(group));
      }
      lines.add(line);
    }
    List<@Nullable String> grand = new ArrayList<>();
    if (rollup.grandTotal()) {
      for (GroupTotals total : totals) {
        grand.add(total.grand());
      }
    }
    return new RollupFigures(
        rollup.file() == null ? rollup.title() : rollup.file().getFileName() + "",
        rollup.by(),
        rollup.totals().stream().map(Attribute::as).toList(),
        lines,
        grand,
        rollup.file() == null ? "" : rollup.file().toString());
  }

  /** The values that make the groups, a column each. */
  private CellVector[] values() {
    CellVector[] values = new CellVector[by.length];
    for (int i = 0; i < values.length; i++) {
      values[i] = new CellVector();
      values[i].clear();
    }
    long[] nulls = new long[by.length];
    @Nullable String[] fills = new String[by.length];
    for (int group = 0; group < groups.rows(); group++) {
      groups.fetch(groups.place(group), values, nulls, fills);
    }
    return values;
  }

  /** The groups in the order of their values, nulls last. */
  private static int[] sorted(CellVector[] values) {
    record Group(String key, int number) {}
    Group[] all = new Group[values.length == 0 ? 1 : values[0].rows()];
    for (int group = 0; group < all.length; group++) {
      StringBuilder key = new StringBuilder();
      for (CellVector column : values) {
        String value = column.get(group);
        key.append(value == null ? LAST : value).append(BETWEEN);
      }
      all[group] = new Group(key.toString(), group);
    }
    Arrays.sort(all, Comparator.comparing(Group::key));
    return Arrays.stream(all).mapToInt(Group::number).toArray();
  }
}
