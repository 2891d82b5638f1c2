package org.abletwine.derive;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.List;
import java.util.RandomAccess;
import org.abletwine.compute.GroupTotals;
import org.abletwine.index.GroupIndex;
import org.jspecify.annotations.Nullable;

/**
 * The groups of a rollup that has ended, in the order of their values, with their totals. A line is
 * made when it is asked for: there may be very many, and hardly anyone asks for all of them.
 */
final class GroupLines extends AbstractList<List<@Nullable String>> implements RandomAccess {
  private final GroupIndex index;
  private final GroupTotals[] totals;
  private final int[] order;

  GroupLines(GroupIndex index, GroupTotals[] totals) {
    this.index = index;
    this.totals = totals.clone();
    this.order = index.sorted();
  }

  @Override
  public List<@Nullable String> get(int line) {
    int group = order[line];
    @Nullable String[] values = index.values(group);
    @Nullable String[] cells = Arrays.copyOf(values, values.length + totals.length);
    for (int t = 0; t < totals.length; t++) {
      cells[values.length + t] = totals[t].value(group);
    }
    return Arrays.asList(cells);
  }

  @Override
  public int size() {
    return order.length;
  }
}
