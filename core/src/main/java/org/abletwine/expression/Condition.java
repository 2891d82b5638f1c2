package org.abletwine.expression;

import java.util.List;
import java.util.TreeSet;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import org.abletwine.table.CellVector;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;

/**
 * A SQL condition over the columns of a table: comparisons, {@code IN}, {@code LIKE}, {@code
 * BETWEEN}, {@code IS NULL}, {@code AND}, {@code OR}, {@code NOT}. Nulls follow ISO SQL: a
 * comparison with null is unknown, and only rows for which the condition is true pass. A cell
 * compared with a number is read as an exact decimal; one that is no number makes the comparison
 * unknown. Immutable; safe to share between threads.
 */
public final class Condition {
  private final String text;
  private final Test test;
  private final List<Integer> columns;

  private Condition(String text, Test test, List<Integer> columns) {
    this.text = text;
    this.test = test;
    this.columns = columns;
  }

  /**
   * Reads a condition.
   *
   * @param text the condition in ISO SQL
   * @param schema the columns it may name
   * @param tableName their table, for messages
   * @throws SettingException when it is not a condition, or names a column that is not there
   */
  public static Condition parse(String text, Schema schema, String tableName) {
    Expression parsed;
    try {
      parsed = CCJSqlParserUtil.parseCondExpression(text, false);
    } catch (JSQLParserException e) {
      throw new SettingException("where: cannot read `" + text + "`: " + reason(e));
    }
    TreeSet<Integer> used = new TreeSet<>();
    Test test = new ConditionBuilder(text, schema, tableName, used).condition(parsed);
    return new Condition(text, test, List.copyOf(used));
  }

  private static String reason(JSQLParserException e) {
    Throwable cause = e.getCause();
    String message = String.valueOf(cause == null ? e.getMessage() : cause.getMessage());
    java.util.regex.Matcher place =
        java.util.regex.Pattern.compile("line \\d+, column (\\d+)").matcher(message);
    return place.find() ? "it goes wrong at character " + place.group(1) : "it is not a condition";
  }

  /** Returns the column numbers the condition looks at. */
  public List<Integer> columns() {
    return columns;
  }

  /**
   * Whether a row passes.
   *
   * @param cells the columns of the table, at least those the condition looks at
   * @param row the row, 0-based
   * @return whether the condition is true, not false nor unknown
   */
  public boolean passes(CellVector[] cells, int row) {
    return test.test(cells, row) == Test.TRUE;
  }

  @Override
  public String toString() {
    return text;
  }

  /** Three-valued: true, false or unknown. */
  interface Test {
    int FALSE = 0;
    int UNKNOWN = 1;
    int TRUE = 2;

    int test(CellVector[] cells, int row);
  }
}
