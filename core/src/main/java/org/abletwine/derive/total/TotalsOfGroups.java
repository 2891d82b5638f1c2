package org.abletwine.derive.total;

import java.util.Arrays;
import org.abletwine.compute.Expression;
import org.abletwine.compute.GroupTotals;
import org.abletwine.compute.RowErrors;
import org.abletwine.index.GroupIndex;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/** Totals of groups, counted by one worker; those of others are merged into it at the end. */
public final class TotalsOfGroups {
  private final TotalCalls calls;
  private final GroupTotals[] totals;
  private final @Nullable Expression[] arguments;

  /** What other workers could not compute. */
  private final RowErrors[] merged;

  private final CellVector computed = new CellVector();

  /**
   * @param calls the totals
   * @param groups the groups, with {@link GroupTotals#COUNTERS} counters for each total
   */
  public TotalsOfGroups(TotalCalls calls, GroupIndex groups) {
    this.calls = calls;
    totals = new GroupTotals[calls.count()];
    arguments = new @Nullable Expression[totals.length];
    merged = new RowErrors[totals.length];
    Arrays.fill(merged, RowErrors.NONE);
    for (int t = 0; t < totals.length; t++) {
      Expression argument = calls.call(t).argument();
      arguments[t] = argument == null ? null : argument.another();
      totals[t] = calls.over(t, groups);
    }
  }

  /**
   * Adds the rows of a batch.
   *
   * @param batch the rows
   * @param groups the group of each
   */
  public void add(Batch batch, int[] groups) {
    for (int t = 0; t < totals.length; t++) {
      int column = calls.call(t).column();
      Expression argument = arguments[t];
      if (argument != null) {
        argument.over(batch);
        computed.clear();
        argument.appendTo(computed, batch.rows());
        totals[t].add(groups, computed, batch);
      } else if (column == TotalCalls.Call.ROWS) {
        totals[t].addRows(groups, batch.rows());
      } else {
        totals[t].add(groups, batch.column(column), batch);
      }
    }
  }

  /**
   * Takes over what another worker has totalled.
   *
   * @param other the same totals
   * @param groupOf for each of its groups the one here with the same values
   */
  public void merge(TotalsOfGroups other, int[] groupOf) {
    for (int t = 0; t < totals.length; t++) {
      totals[t].merge(other.totals[t], groupOf);
      merged[t] = merged[t].and(other.ofArgument(t));
    }
  }

  /**
   * Carries what was totalled beside the groups' counters, or takes what another process has
   * totalled in place of nothing.
   *
   * @param carrier carries it
   */
  public void carry(Carrier carrier) {
    for (int t = 0; t < totals.length; t++) {
      totals[t].carry(carrier);
      RowErrors all = ofArgument(t).carried(carrier);
      merged[t] = carrier.comesIn() ? all : merged[t];
    }
  }

  /**
   * Returns a group's totals as text, null for one of nothing, in the order of the calls.
   *
   * @param group the group
   */
  public @Nullable String[] values(int group) {
    @Nullable String[] values = new @Nullable String[totals.length];
    for (int t = 0; t < values.length; t++) {
      values[t] = totals[t].value(group);
    }
    return values;
  }

  /** Returns the totals over all groups. */
  public @Nullable String[] grand() {
    @Nullable String[] values = new @Nullable String[totals.length];
    for (int t = 0; t < values.length; t++) {
      values[t] = totals[t].grand();
    }
    return values;
  }

  /**
   * Returns what was passed over since it is no such value or cannot be computed.
   *
   * @param total which total, 0-based
   */
  public RowErrors errors(int total) {
    return totals[total].errors().and(ofArgument(total));
  }

  private RowErrors ofArgument(int total) {
    Expression argument = arguments[total];
    return argument == null ? merged[total] : merged[total].and(argument.errors());
  }
}
