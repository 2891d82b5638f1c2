package org.abletwine.derive;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.compute.Expression;
import org.abletwine.figures.ComputeFigures;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.step.Columns;
import org.abletwine.step.NullReasons;
import org.abletwine.step.RunContext;
import org.abletwine.step.Step;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.SettingException;

/**
 * Adds a column computed by a SQL expression. Immutable.
 *
 * @param column the column to add
 * @param expression how it is computed
 * @param settings how expressions are evaluated
 */
public record Compute(String column, String expression, Expression.Settings settings)
    implements Step {

  @Override
  public String title() {
    return "compute " + column;
  }

  @Override
  public void check(Columns columns) {
    compile(columns);
  }

  private Expression compile(Columns columns) {
    Expression compiled;
    try {
      compiled = Expression.of(expression, columns, "compute " + column, settings);
    } catch (SettingException e) {
      declare(columns); // so that later steps can be checked too
      throw e;
    }
    declare(columns);
    columns.typed(column, compiled.type());
    return compiled;
  }

  private void declare(Columns columns) {
    columns.add(column, title(), "choose another name for the result");
  }

  @Override
  public StepRunner prepare(Columns columns, RunContext context) {
    Expression compiled = compile(columns);
    int[] inputs =
        compiled.inputs().stream().mapToInt(name -> columns.require(name, title())).toArray();
    return new Runner(this, compiled, inputs, columns.reasons());
  }

  private static final class Runner implements StepRunner {
    private final Compute step;
    private final Expression expression;
    private final int[] inputs;
    private final NullReasons reasons;
    private final Map<Integer, long[]> because = new LinkedHashMap<>();
    private long rows;
    private long nulls;

    Runner(Compute step, Expression expression, int[] inputs, NullReasons reasons) {
      this.step = step;
      this.expression = expression;
      this.inputs = inputs;
      this.reasons = reasons;
    }

    @Override
    public boolean mayRunWithWriting() {
      return true;
    }

    @Override
    public void apply(Batch batch) {
      expression.over(batch);
      CellVector target = batch.addColumn();
      int count = batch.rows();
      int none = expression.appendTo(target, count);
      for (int row = 0; row < count && none > 0; row++) {
        if (expression.isNull(row)) {
          int reason = reason(batch, row);
          target.because(row, reason);
          because.computeIfAbsent(reason, r -> new long[1])[0]++;
        }
      }
      nulls += none;
      rows += count;
    }

    /** The first input that is null, and why that one is, down the chain. */
    private int reason(Batch batch, int row) {
      if (expression.failed(row)) {
        return reasons.of(step.column + ": cannot be computed");
      }
      for (int i = 0; i < inputs.length; i++) {
        CellVector cells = batch.column(inputs[i]);
        if (cells.isNull(row)) {
          String why = reasons.text(cells.reason(row));
          boolean chained = why.indexOf(": ") > 0;
          return reasons.of(chained ? why : expression.inputs().get(i) + ": " + why);
        }
      }
      return reasons.of(step.column + ": the expression gives null");
    }

    @Override
    public ComputeFigures figures() {
      List<Share> shares = new ArrayList<>();
      because.forEach((reason, count) -> shares.add(new Share(reasons.text(reason), count[0])));
      return new ComputeFigures(
          step.column,
          step.expression,
          rows,
          nulls,
          shares,
          expression.errors(),
          expression.errorExample());
    }
  }
}
