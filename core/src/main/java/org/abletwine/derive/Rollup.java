package org.abletwine.derive;

import java.util.List;
import java.util.Objects;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.Destination;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * Totals by group, over the rows that reach the step; changes nothing. Rows whose group is null, in
 * whole or in part, make groups of their own and are never left out. Immutable.
 *
 * @param by the columns that make the groups; none for one group of all rows
 * @param totals what to total: a column, which is summed, or {@code sum}, {@code avg}, {@code min},
 *     {@code max}, {@code count} and {@code count(distinct ...)} of columns and expressions, and
 *     arithmetic with them, such as {@code sum(payable) / sum(net_kg) as per_kg}
 * @param shown which groups are wanted, and in which order
 * @param grandTotal whether the totals over all rows are wanted
 * @param file where to write them; null for nowhere
 * @param form the table whose form that file takes after
 * @param settings whether a cell that cannot be totalled ends the run
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record Rollup(
    List<String> by,
    List<String> totals,
    Shown shown,
    boolean grandTotal,
    @Nullable Destination file,
    Table form,
    Evaluation settings)
    implements RunStep {
  static final String WHERE = "rollups";

  /** Copies the lists. */
  public Rollup {
    Objects.requireNonNull(by, "by");
    Objects.requireNonNull(totals, "totals");
    Objects.requireNonNull(shown, "shown");
    Objects.requireNonNull(form, "form");
    Objects.requireNonNull(settings, "settings");
    by = List.copyOf(by);
    totals = List.copyOf(totals);
  }

  /**
   * A rollup of which all groups are wanted, in the order of their values.
   *
   * @param by the columns whose values make the groups
   * @param totals what is worked out for each, as SQL aggregates with names
   * @param grandTotal whether a last line holds the totals of all
   * @param file where the lines go; null for the figures alone
   * @param form the table whose form they take
   * @param settings how expressions are evaluated
   */
  public Rollup(
      List<String> by,
      List<String> totals,
      boolean grandTotal,
      @Nullable Destination file,
      Table form,
      Evaluation settings) {
    this(by, totals, Shown.ALL, grandTotal, file, form, settings);
  }

  /**
   * Which groups are wanted of a rollup.
   *
   * @param order columns of the rollup it is ordered by, each {@code NAME} or {@code NAME desc};
   *     null is last; groups alike in these stand in the order of their values
   * @param top how many of the first are wanted; 0 for all
   * @param having a condition over the rollup's columns that a group must meet; null for none
   * @param formats how columns of the rollup leave
   * @param within whether it is taken by a lookup, and not shown: values of private columns stay
   *     what they are
   */
  public record Shown(
      List<String> order,
      int top,
      @Nullable String having,
      List<FormatColumn> formats,
      boolean within) {
    /** All groups, as they are. */
    public static final Shown ALL = new Shown(List.of(), 0, null, List.of());

    /**
     * What is shown to a person.
     *
     * @param order the columns the lines are in the order of, each with {@code desc} or without
     * @param top how many lines at most; 0 for all
     * @param having a SQL condition for the lines that are shown; null for all
     * @param formats how columns are written
     */
    public Shown(List<String> order, int top, @Nullable String having, List<FormatColumn> formats) {
      this(order, top, having, formats, false);
    }

    /** {@return the same for a lookup} */
    public Shown forLookup() {
      return new Shown(order, top, having, formats, true);
    }

    /** Copies the lists. */
    public Shown {
      Objects.requireNonNull(order, "order");
      Objects.requireNonNull(formats, "formats");
      order = List.copyOf(order);
      formats = List.copyOf(formats);
    }
  }

  @Override
  public String title() {
    return by.isEmpty() ? "rollup of all rows" : "rollup by " + String.join(", ", by);
  }

  /**
   * {@return the columns whose sums are wanted}
   *
   * @throws SettingException when a total cannot be read
   */
  public List<String> summed() {
    return totals.stream()
        .map(total -> RollupTotal.parse(total).column())
        .filter(Objects::nonNull)
        .distinct()
        .toList();
  }

  /**
   * {@return the columns of the rollup itself, with what they hold}
   *
   * @param columns the columns it is over
   * @throws SettingException when it does not fit them
   */
  public Columns columns(Columns columns) {
    return new RollupColumns(this, columns).own;
  }

  @Override
  public void check(Columns columns) {
    new RollupColumns(this, columns);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    return new PreparedRollup(this, new RollupColumns(this, columns), context);
  }
}
