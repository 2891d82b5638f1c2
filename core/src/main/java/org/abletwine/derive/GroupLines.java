package org.abletwine.derive;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.RandomAccess;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowErrors;
import org.abletwine.derive.total.GroupedTotals;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.StoredLines;
import org.abletwine.table.text.ValueOrder;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * The groups of a rollup that has ended, with their totals: in the order that is wanted, else that
 * of their values. There may be very many, so they are lines of bytes, on disk where they do not
 * fit in memory. Safe for use by several threads.
 */
final class GroupLines extends AbstractList<List<@Nullable String>> implements RandomAccess {
  private final RollupColumns columns;

  /** How many cells a line has, before what could not be computed of each total. */
  private final int width;

  private final @Nullable Expression[] computed;
  private final @Nullable OrderOf[] orders;
  private final StoredLines lines;
  private final List<@Nullable String> grand;
  private final long all;
  private boolean anyFailed;

  /** Finds the order of a column's values. */
  private static final class OrderOf {
    private @Nullable ValueOrder stated;
    private final ValueOrder.Finder found = new ValueOrder.Finder();

    OrderOf(@Nullable ColumnType type) {
      stated = type == null ? null : ValueOrder.of(type);
    }

    void look(@Nullable String value) {
      if (value != null) {
        found.look(value);
        stated = stated != null && stated.fits(value) ? stated : null;
      }
    }

    ValueOrder order() {
      return stated == null ? found.order() : stated;
    }
  }

  GroupLines(
      Rollup rollup, RollupColumns columns, GroupedTotals totals, Spill.@Nullable Share share) {
    this.columns = columns;
    width = columns.names.size();
    computed = columns.expressions();
    orders = new @Nullable OrderOf[columns.orderedBy.length];
    Arrays.setAll(orders, place -> new OrderOf(columns.type(columns.orderedBy[place])));
    StoredLines inOrder = new StoredLines(width + columns.totals(), share);
    GroupedTotals.Groups groups = totals.groups();
    while (groups.next()) {
      add(groups, inOrder);
    }
    inOrder.end();
    all = groups.count();
    grand =
        Arrays.asList(
            Arrays.copyOf(cells(new @Nullable String[0], groups.grand()), columns.totals()));
    int top = rollup.shown().top() > 0 ? rollup.shown().top() : Integer.MAX_VALUE;
    if (orders.length > 0) {
      lines = inOrder.sorted(comparator(), top);
      inOrder.discard();
    } else {
      lines = inOrder;
    }
  }

  private void add(GroupedTotals.Groups groups, StoredLines into) {
    @Nullable String[] cells = cells(groups.values(), groups.totals());
    Expression having = columns.having;
    if (having != null) {
      having.over(OneRow.of(Arrays.copyOf(cells, width)));
      if (!having.isTrue(0)) {
        return;
      }
    }
    for (int place = 0; place < orders.length; place++) {
      OrderOf order = orders[place];
      if (order != null) {
        order.look(cells[columns.orderedBy[place]]);
      }
    }
    into.append(cells);
  }

  private Comparator<@Nullable String[]> comparator() {
    Comparator<@Nullable String[]> comparator = null;
    for (int place = 0; place < orders.length; place++) {
      int column = columns.orderedBy[place];
      OrderOf order = orders[place];
      Comparator<String> values = (order == null ? new OrderOf(null) : order).order()::compare;
      if (columns.descending[place]) {
        values = values.reversed();
      }
      Comparator<@Nullable String> nullsLast = Comparator.nullsLast(values);
      Comparator<@Nullable String[]> next =
          (one, other) -> nullsLast.compare(one[column], other[column]);
      comparator = comparator == null ? next : comparator.thenComparing(next);
    }
    return comparator == null ? (one, other) -> 0 : comparator;
  }

  /** The cells of a line, and behind them for each total why it could not be computed. */
  private @Nullable String[] cells(@Nullable String[] values, @Nullable String[] calls) {
    int count = columns.totals();
    @Nullable String[] cells = Arrays.copyOf(values, values.length + 2 * count);
    Batch batch = null;
    for (int t = 0; t < count; t++) {
      Expression expression = computed[t];
      if (expression == null) {
        cells[values.length + t] = calls[columns.direct(t)];
        continue;
      }
      batch = batch == null ? OneRow.of(calls) : batch;
      expression.over(batch);
      cells[values.length + t] = expression.text(0);
      if (expression.failed(0)) {
        anyFailed = true;
        Expression alone = expression.another();
        alone.over(batch);
        cells[values.length + count + t] = rest(alone.errors().example());
      }
    }
    return cells;
  }

  /** The totals over all rows, in the order of the rollup. */
  List<@Nullable String> grand() {
    return grand;
  }

  /** Groups there are, those not wanted included. */
  long all() {
    return all;
  }

  /** What could not be computed from the totals of a group, of all groups wanted. */
  RowErrors errors() {
    long failed = 0;
    int firstTotal = Integer.MAX_VALUE;
    String first = "";
    for (int line = 0; anyFailed && line < lines.size(); line++) {
      @Nullable String[] cells = lines.cells(line);
      for (int t = 0; t < columns.totals(); t++) {
        String why = cells[width + t];
        failed += why == null ? 0 : 1;
        if (why != null && t < firstTotal) {
          firstTotal = t;
          first = "group " + named(shown(cells)) + why;
        }
      }
    }
    return new RowErrors(failed, Long.MAX_VALUE - 1, first);
  }

  /** Groups of a private column are shown by digests of their values. */
  private @Nullable String[] shown(@Nullable String[] cells) {
    for (int i = 0; i < columns.hidden.length; i++) {
      cells[i] = Veil.over(columns.hidden[i], cells[i]);
    }
    return cells;
  }

  private String named(@Nullable String[] line) {
    int parts = columns.by.length;
    return parts == 0
        ? "of all rows"
        : String.join(" | ", Arrays.asList(Arrays.copyOf(line, parts)));
  }

  /** What is wrong, without the row, which is none of the transactions. */
  private static String rest(String example) {
    int comma = example.indexOf(',');
    return comma < 0 ? "" : example.substring(comma);
  }

  @Override
  public List<@Nullable String> get(int line) {
    return Arrays.asList(Arrays.copyOf(shown(lines.cells(line)), width));
  }

  @Override
  public int size() {
    return lines.size();
  }
}
