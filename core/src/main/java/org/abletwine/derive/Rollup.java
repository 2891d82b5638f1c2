package org.abletwine.derive;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.lookup.Aggregate;
import org.abletwine.lookup.Attribute;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * Totals by group, over the rows that reach the step; changes nothing. Rows whose group is null, in
 * whole or in part, make groups of their own and are never left out. Immutable.
 *
 * @param by the columns that make the groups
 * @param totals what to total; a plain column is summed
 * @param grandTotal whether the totals over all rows are wanted
 * @param file where to write them; null for nowhere
 * @param form the table whose form that file takes after
 * @param settings whether a cell that cannot be totalled ends the run
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record Rollup(
    List<String> by,
    List<Attribute> totals,
    boolean grandTotal,
    @Nullable Destination file,
    Table form,
    Evaluation settings)
    implements RunStep {
  static final String WHERE = "rollups";

  /** Copies the lists. */
  public Rollup {
    by = List.copyOf(by);
    totals = List.copyOf(totals);
  }

  @Override
  public String title() {
    return "rollup by " + String.join(", ", by);
  }

  /** Returns the columns whose sums are wanted. */
  public List<String> summed() {
    return totals.stream().filter(Rollup::isSum).map(Attribute::source).distinct().toList();
  }

  static boolean isSum(Attribute total) {
    return total.aggregate() == null || total.aggregate().function() == Aggregate.Function.SUM;
  }

  private static boolean needsNumbers(Attribute total) {
    return isSum(total) || total.aggregate().function() == Aggregate.Function.AVG;
  }

  /** The total as a plan writes it. */
  static String shown(Attribute total) {
    return (total.aggregate() == null ? "sum" : total.aggregate().word())
        + "("
        + total.source()
        + ")";
  }

  @Override
  public void check(Columns columns) {
    numbers(columns);
  }

  private int[][] numbers(Columns columns) {
    int[] groups = by.stream().mapToInt(name -> columns.require(name, WHERE + ", by")).toArray();
    List<Integer> of = new ArrayList<>();
    for (Attribute total : totals) {
      if (total.aggregate() != null && total.aggregate().function() == Aggregate.Function.LISTAGG) {
        throw new SettingException(WHERE + ": listagg is not a total; use it in bring");
      }
      boolean rows = total.source().equals("*");
      of.add(rows ? -1 : columns.require(total.source(), WHERE + ", totals"));
      ColumnType type = columns.type(total.source());
      if (needsNumbers(total) && type != null && !type.kind().numeric()) {
        throw new SettingException(
            WHERE
                + ", "
                + shown(total)
                + ": the column holds "
                + ValueOrder.of(type).noun()
                + ", and a number is needed; total it with min, max or count, or correct its type");
      }
    }
    return new int[][] {groups, of.stream().mapToInt(Integer::intValue).toArray()};
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    int[][] numbers = numbers(columns);
    return new PreparedRollup(this, columns, numbers[0], numbers[1], context);
  }
}
