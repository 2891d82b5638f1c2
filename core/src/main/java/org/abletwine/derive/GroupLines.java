package org.abletwine.derive;

import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.RandomAccess;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowErrors;
import org.abletwine.derive.total.TotalsOfGroups;
import org.abletwine.index.GroupIndex;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.ValueOrder;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * The groups of a rollup that has ended, with their totals: in the order that is wanted, else that
 * of their values. A line is made when it is asked for: there may be very many, and hardly anyone
 * asks for all of them. For one thread.
 */
final class GroupLines extends AbstractList<List<@Nullable String>> implements RandomAccess {
  private final RollupColumns columns;
  private final GroupIndex index;
  private final TotalsOfGroups totals;
  private final @Nullable Expression[] computed;
  private final int[] order;

  GroupLines(Rollup rollup, RollupColumns columns, GroupIndex index, TotalsOfGroups totals) {
    this.columns = columns;
    this.index = index;
    this.totals = totals;
    this.computed = columns.expressions();
    int[] sorted = having(index.sorted());
    if (columns.orderedBy.length > 0) {
      sorted = ordered(sorted);
    }
    int top = rollup.shown().top();
    order = top > 0 && top < sorted.length ? Arrays.copyOf(sorted, top) : sorted;
  }

  private int[] having(int[] groups) {
    Expression having = columns.having;
    if (having == null) {
      return groups;
    }
    int kept = 0;
    for (int group : groups) {
      having.over(Batch.ofOneRow(cells(group)));
      if (having.isTrue(0)) {
        groups[kept++] = group;
      }
    }
    return Arrays.copyOf(groups, kept);
  }

  /** What a group is ordered by. */
  private record Ordered(int group, @Nullable String[] keys) {}

  private int[] ordered(int[] groups) {
    int count = columns.orderedBy.length;
    List<Ordered> all = new ArrayList<>();
    for (int group : groups) {
      @Nullable String[] cells = cells(group);
      @Nullable String[] keys = new @Nullable String[count];
      for (int i = 0; i < count; i++) {
        keys[i] = cells[columns.orderedBy[i]];
      }
      all.add(new Ordered(group, keys));
    }
    Comparator<Ordered> comparator = null;
    for (int i = 0; i < count; i++) {
      Comparator<Ordered> next = by(i, all);
      comparator = comparator == null ? next : comparator.thenComparing(next);
    }
    all.sort(comparator);
    return all.stream().mapToInt(Ordered::group).toArray();
  }

  private Comparator<Ordered> by(int place, List<Ordered> all) {
    ColumnType type = columns.type(columns.orderedBy[place]);
    ValueOrder stated = type == null ? null : ValueOrder.of(type);
    ValueOrder.Finder found = new ValueOrder.Finder();
    for (Ordered one : all) {
      String key = one.keys()[place];
      if (key != null) {
        found.look(key);
        stated = stated != null && stated.fits(key) ? stated : null;
      }
    }
    ValueOrder order = stated == null ? found.order() : stated;
    Comparator<String> values = order::compare;
    if (columns.descending[place]) {
      values = values.reversed();
    }
    return Comparator.comparing(group -> group.keys()[place], Comparator.nullsLast(values));
  }

  private @Nullable String[] cells(int group) {
    return cells(index.values(group), totals.values(group));
  }

  private @Nullable String[] cells(@Nullable String[] values, @Nullable String[] calls) {
    @Nullable String[] cells = Arrays.copyOf(values, values.length + columns.totals());
    Batch batch = null;
    for (int t = 0; t < columns.totals(); t++) {
      Expression expression = computed[t];
      if (expression == null) {
        cells[values.length + t] = calls[columns.direct(t)];
      } else {
        batch = batch == null ? Batch.ofOneRow(calls) : batch;
        expression.over(batch);
        cells[values.length + t] = expression.text(0);
      }
    }
    return cells;
  }

  /** The totals over all rows, in the order of the rollup. */
  List<@Nullable String> grand() {
    return Arrays.asList(cells(new @Nullable String[0], totals.grand()));
  }

  /** Groups there are, those not wanted included. */
  int all() {
    return index.groups();
  }

  /** What could not be computed from the totals of a group, of all groups wanted. */
  RowErrors errors() {
    List<RowErrors> met = new ArrayList<>();
    for (@Nullable Expression expression : columns.expressions()) {
      if (expression == null) {
        continue;
      }
      String first = "";
      for (int group : order) {
        expression.over(Batch.ofOneRow(totals.values(group)));
        if (first.isEmpty() && expression.failed(0)) {
          first =
              "group " + named(shown(index.values(group))) + rest(expression.errors().example());
        }
      }
      met.add(new RowErrors(expression.errors().count(), Long.MAX_VALUE - 1, first));
    }
    return RowErrors.sum(met);
  }

  /** Groups of a private column are shown by digests of their values. */
  private @Nullable String[] shown(@Nullable String[] cells) {
    for (int i = 0; i < columns.hidden.length; i++) {
      cells[i] = Veil.over(columns.hidden[i], cells[i]);
    }
    return cells;
  }

  private static String named(@Nullable String[] values) {
    return values.length == 0 ? "of all rows" : String.join(" | ", Arrays.asList(values));
  }

  /** What is wrong, without the row, which is none of the transactions. */
  private static String rest(String example) {
    int comma = example.indexOf(',');
    return comma < 0 ? "" : example.substring(comma);
  }

  @Override
  public List<@Nullable String> get(int line) {
    return Arrays.asList(shown(cells(order[line])));
  }

  @Override
  public int size() {
    return order.length;
  }
}
