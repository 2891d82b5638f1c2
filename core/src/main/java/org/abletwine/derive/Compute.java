package org.abletwine.derive;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowErrors;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.NullReasons;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;

/**
 * Adds a column computed by a SQL expression. Immutable.
 *
 * @param column the column to add
 * @param expression how it is computed
 * @param settings how expressions are evaluated
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record Compute(String column, String expression, Evaluation settings) implements RunStep {
  /** Holds that nothing is missing. */
  public Compute {
    Objects.requireNonNull(column, "column");
    Objects.requireNonNull(expression, "expression");
    Objects.requireNonNull(settings, "settings");
  }

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
    columns.hide(column, compiled.isPrivate());
    return compiled;
  }

  private void declare(Columns columns) {
    columns.add(column, title(), "choose another name for the result");
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    Expression compiled = compile(columns);
    int[] inputs =
        compiled.inputs().stream().mapToInt(name -> columns.require(name, title())).toArray();
    NullReasons reasons = columns.reasons();
    return Prepared.of(() -> new Runner(this, compiled.another(), inputs, reasons), Runner::figures)
        .lookingAt(compiled.inputs());
  }

  private static final class Runner implements StepWorker {
    private final Compute step;
    private final Expression expression;
    private final int[] inputs;
    private final NullReasons reasons;

    /** For each reason, by its number, how many values are null for it. */
    private long[] because = {};

    /**
     * For each input, by the number of why it is null, the number of what that comes to here; 0
     * where nobody asked yet. Kept, since it is asked for many rows, and all workers share the
     * texts.
     */
    private final int[][] chained;

    private int cannot;
    private int givesNull;
    private long rows;
    private long nulls;

    Runner(Compute step, Expression expression, int[] inputs, NullReasons reasons) {
      this.step = step;
      this.expression = expression;
      this.inputs = inputs;
      this.reasons = reasons;
      this.chained = new int[inputs.length][0];
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
          count(reason, 1);
        }
      }
      nulls += none;
      rows += count;
    }

    /** The first input that is null, and why that one is, down the chain. */
    private int reason(Batch batch, int row) {
      if (expression.failed(row)) {
        cannot = cannot > 0 ? cannot : reasons.of(step.column + ": cannot be computed");
        return cannot;
      }
      for (int i = 0; i < inputs.length; i++) {
        CellVector cells = batch.column(inputs[i]);
        if (cells.isNull(row)) {
          return chained(i, cells.reason(row));
        }
      }
      givesNull =
          givesNull > 0 ? givesNull : reasons.of(step.column + ": the expression gives null");
      return givesNull;
    }

    /** What it comes to that an input is null for a reason. */
    private int chained(int input, int reason) {
      if (reason >= chained[input].length) {
        chained[input] = Arrays.copyOf(chained[input], reason + 1);
      }
      if (chained[input][reason] == 0) {
        String why = reasons.text(reason);
        String name = expression.inputs().get(input);
        chained[input][reason] = reasons.of(why.indexOf(": ") > 0 ? why : name + ": " + why);
      }
      return chained[input][reason];
    }

    @Override
    public void merge(StepWorker worker) {
      Runner other = (Runner) worker;
      rows += other.rows;
      nulls += other.nulls;
      expression.add(other.expression.errors());
      for (int reason = 0; reason < other.because.length; reason++) {
        count(reason, other.because[reason]);
      }
    }

    @Override
    public void carry(Carrier carrier) {
      rows = carrier.number(rows);
      nulls = carrier.number(nulls);
      expression.carry(carrier);
      List<Share> held = because();
      List<Share> shares =
          carrier.all(
              held,
              new Share("", 0),
              share -> new Share(carrier.words(share.name()), carrier.number(share.rows())));
      if (carrier.comesIn()) { // reasons are numbered anew in every process
        shares.forEach(share -> count(reasons.of(share.name()), share.rows()));
      }
    }

    private void count(int reason, long rows) {
      if (reason >= because.length) {
        because = Arrays.copyOf(because, reason + 1);
      }
      because[reason] += rows;
    }

    /** The reasons by how often they were met, not by when. */
    private List<Share> because() {
      Map<String, Long> counts = new TreeMap<>();
      for (int reason = 0; reason < because.length; reason++) {
        if (because[reason] > 0) {
          counts.merge(reasons.text(reason), because[reason], Long::sum);
        }
      }
      return counts.entrySet().stream()
          .sorted((one, other) -> Long.compare(other.getValue(), one.getValue()))
          .map(reason -> new Share(reason.getKey(), reason.getValue()))
          .toList();
    }

    StepFigures.Computed figures() {
      RowErrors errors = expression.errors();
      return new StepFigures.Computed(
          step.column, step.expression, rows, nulls, because(), errors.count(), errors.example());
    }
  }
}
