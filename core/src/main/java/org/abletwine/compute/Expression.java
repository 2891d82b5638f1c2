package org.abletwine.compute;

import java.util.List;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * An ISO SQL scalar expression, compiled against the columns so far: SQL nulls, exact decimals,
 * three-valued truth. Holds the values of the batch it was last evaluated over: one for each
 * thread.
 */
public final class Expression {
  private final Compiled compiled;
  private final Node node;
  private final List<String> inputs;
  private final Frame frame;
  private Values values = new Values();

  private Expression(Compiled compiled) {
    this.compiled = compiled;
    Scope scope = new Scope(compiled.columns(), compiled.where(), compiled.text());
    Evaluation settings = compiled.settings();
    node = new NodeBuilder(scope, settings.today()).build(compiled.parsed(), compiled.wanted());
    inputs = List.copyOf(scope.used());
    frame = new Frame(compiled.where(), settings.errorsAreNull(), isPrivate());
  }

  /** What an expression is made of, without anything that changes while it is evaluated. */
  private record Compiled(
      String text,
      net.sf.jsqlparser.expression.Expression parsed,
      Columns columns,
      String where,
      Evaluation settings,
      Kind wanted) {}

  /** Returns the same expression once more, for another thread. */
  public Expression another() {
    return new Expression(compiled);
  }

  /**
   * Compiles an expression.
   *
   * @param text the expression
   * @param columns the columns it may name
   * @param where the setting it stands in, for messages
   * @param settings how it is evaluated
   * @throws SettingException when it cannot be read, names what is not there, or mixes kinds
   */
  public static Expression of(String text, Columns columns, String where, Evaluation settings) {
    return compile(text, columns, where, settings, Kind.ANY);
  }

  /**
   * Compiles a condition.
   *
   * @param text the condition
   * @param columns the columns it may name
   * @param where the setting it stands in, for messages
   * @param settings how it is evaluated
   * @throws SettingException when it cannot be read, or is not a condition
   */
  public static Expression condition(
      String text, Columns columns, String where, Evaluation settings) {
    return compile(text, columns, where, settings, Kind.TRUTH);
  }

  /**
   * Compiles an expression whose values are numbers.
   *
   * @param text the expression
   * @param columns the columns it may name
   * @param where the setting it stands in, for messages
   * @param settings how it is evaluated
   * @throws SettingException when it cannot be read, or is no number
   */
  public static Expression number(String text, Columns columns, String where, Evaluation settings) {
    return compile(text, columns, where, settings, Kind.NUMBER);
  }

  private static Expression compile(
      String text, Columns columns, String where, Evaluation settings, Kind wanted) {
    net.sf.jsqlparser.expression.Expression parsed = SqlText.parse(text, columns.names(), where);
    Expression expression =
        new Expression(new Compiled(text, parsed, columns.copy(), where, settings, wanted));
    expression.inputs.forEach(name -> columns.require(name, where)); // they will be looked at
    return expression;
  }

  /** Returns the columns it names, in the order it names them. */
  public List<String> inputs() {
    return inputs;
  }

  /** Returns whether a column it names is private. */
  public boolean isPrivate() {
    return inputs.stream().anyMatch(compiled.columns()::isPrivate);
  }

  /** Returns what its values are, for steps after it; text where nothing says otherwise. */
  public ColumnType type() {
    return ColumnType.of(
        switch (node.kind) {
          case NUMBER -> ColumnType.Kind.NUMBER;
          case DATE -> ColumnType.Kind.DATE;
          case TRUTH -> ColumnType.Kind.BOOLEAN;
          default -> ColumnType.Kind.TEXT;
        });
  }

  /**
   * Evaluates over a batch.
   *
   * @param batch the rows
   * @throws org.abletwine.table.DataException when a row cannot be computed and errors end the run
   */
  public void over(Batch batch) {
    frame.over(batch);
    values = node.eval(frame, null);
  }

  /**
   * @param row a row of the batch, 0-based
   * @return whether its value is null, or unknown
   */
  public boolean isNull(int row) {
    return !values.known[row];
  }

  /**
   * @param row a row of the batch, 0-based
   * @return whether the condition is true, not false nor unknown
   */
  public boolean isTrue(int row) {
    return values.isTrue(row);
  }

  /**
   * Fills a column with the values of all rows: numbers with the places they have, days as ISO
   * 8601.
   *
   * @param target the column, empty
   * @param rows how many rows the batch has
   * @return how many of them are null
   */
  public int appendTo(CellVector target, int rows) {
    if (node.kind == Kind.NUMBER && !values.anyWide()) {
      int nulls = target.takeNumbers(values.known, values.digits, values.scale, rows);
      target.share(values.sharedScale, values.greatest);
      return nulls;
    }
    int nulls = 0;
    for (int row = 0; row < rows; row++) {
      String text = text(row);
      target.append(text);
      nulls += text == null ? 1 : 0;
    }
    return nulls;
  }

  /**
   * Returns a row's value as text; null for null.
   *
   * @param row a row of the batch, 0-based
   */
  public @Nullable String text(int row) {
    return values.known[row] ? Conversions.text(values, row, node.kind) : null;
  }

  /**
   * @param row a row of the batch, 0-based
   * @return whether it could not be computed, and is null for that
   */
  public boolean failed(int row) {
    return frame.failed(row);
  }

  /** Returns rows that could not be computed and got null, and the first of them in words. */
  public RowErrors errors() {
    return frame.errors();
  }

  /**
   * Adds what could not be computed elsewhere.
   *
   * @param others such rows
   */
  public void add(RowErrors others) {
    frame.add(others);
  }

  /**
   * Carries the rows that could not be computed, or takes those of another process.
   *
   * @param carrier carries them
   */
  public void carry(Carrier carrier) {
    RowErrors held = frame.errors().carried(carrier);
    if (carrier.comesIn()) {
      frame.add(held);
    }
  }

  @Override
  public String toString() {
    return compiled.text();
  }
}
