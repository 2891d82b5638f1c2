package org.abletwine.table.batch;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The columns of a batch as vectors: views of the base columns, made when they are asked for, and
 * the columns that steps add. Belongs to the batch's owner.
 */
final class BatchColumns {
  private final Batch batch;
  private final @Nullable CellVector[] views;
  private final boolean[] ready;
  private final List<CellVector> added = new ArrayList<>();
  private int addedCount;

  BatchColumns(Batch batch, int base) {
    this.batch = batch;
    this.views = new CellVector[base];
    this.ready = new boolean[base];
  }

  CellVector column(int column) {
    if (column >= views.length) {
      return added.get(column - views.length);
    }
    CellVector view = views[column];
    if (view == null) {
      view = new CellVector();
      views[column] = view;
    }
    if (!ready[column]) {
      batch.show(view, column);
      ready[column] = true;
    }
    return view;
  }

  void copySlices(CellVector target, int column) {
    if (column < views.length) {
      batch.show(target, column);
      return;
    }
    CellVector from = added.get(column - views.length);
    if (from.inNumbers()) {
      from.asText(target);
      return;
    }
    int rows = batch.rows();
    target.viewOf(from.text, rows);
    System.arraycopy(from.starts, 0, target.starts, 0, rows);
    System.arraycopy(from.ends, 0, target.ends, 0, rows);
  }

  CellVector add() {
    if (addedCount == added.size()) {
      added.add(new CellVector());
    }
    CellVector column = added.get(addedCount++);
    column.clear();
    return column;
  }

  /** Only the base columns are left, in whatever rows there are then. */
  void clear() {
    addedCount = 0;
    Arrays.fill(ready, false);
  }

  void pick(int[] wanted, int count) {
    for (int i = 0; i < addedCount; i++) {
      added.get(i).pick(wanted, count);
    }
    Arrays.fill(ready, false);
  }
}
