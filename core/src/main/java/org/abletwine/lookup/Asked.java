package org.abletwine.lookup;

import org.abletwine.compute.Expression;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;

/**
 * Which rows a lookup is asked for.
 *
 * @param condition a SQL condition over the columns so far
 * @param settings how it is evaluated
 */
record Asked(String condition, Evaluation settings) {

  /**
   * The condition over these columns.
   *
   * @param lookup the lookup's name, for messages
   * @throws org.abletwine.table.SettingException when it cannot be read, or is not a condition
   */
  Expression over(Columns columns, String lookup) {
    return Expression.condition(condition, columns, "lookup " + lookup + ", when", settings);
  }
}
