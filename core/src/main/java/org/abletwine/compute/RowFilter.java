package org.abletwine.compute;

import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;

/**
 * A SQL condition over the columns of a table, found to be one: only rows for which it is true
 * pass. A cell that does not read as what it is compared with makes the comparison unknown.
 * Immutable; safe to share between threads.
 */
public final class RowFilter {
  private static final Evaluation UNFIT_IS_UNKNOWN = new Evaluation(true, null);

  private final String text;
  private final Expression compiled;

  private RowFilter(String text, Expression compiled) {
    this.text = text;
    this.compiled = compiled;
  }

  /**
   * Reads a condition.
   *
   * @param text the condition in ISO SQL
   * @param table whose columns it may name
   * @throws SettingException when it is not a condition, or names a column that is not there
   */
  public static RowFilter parse(String text, Table table) {
    Columns columns = new Columns(table.name(), table.schema()).typedBy(table);
    return new RowFilter(
        text, Expression.condition(text, columns, "where, of " + table.name(), UNFIT_IS_UNKNOWN));
  }

  /** Returns the condition ready to be evaluated over batches of the table, by one thread. */
  public Expression start() {
    return compiled.another();
  }

  @Override
  public String toString() {
    return text;
  }
}
