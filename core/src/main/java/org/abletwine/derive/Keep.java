package org.abletwine.derive;

import java.util.Objects;
import org.abletwine.compute.Expression;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.LeftOutRows;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.Destination;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/**
 * Keeps the rows for which a condition is true, not false nor unknown. Immutable.
 *
 * @param condition the condition
 * @param leftOut where to write the rows left out; null for nowhere
 * @param form the table whose form that file takes after
 * @param settings how expressions are evaluated
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record Keep(String condition, @Nullable Destination leftOut, Table form, Evaluation settings)
    implements RunStep {
  /** Holds that nothing is missing. */
  public Keep {
    Objects.requireNonNull(condition, "condition");
    Objects.requireNonNull(form, "form");
    Objects.requireNonNull(settings, "settings");
  }

  @Override
  public String title() {
    return "keep " + condition;
  }

  @Override
  public void check(Columns columns) {
    Expression.condition(condition, columns, "keep", settings);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    Expression compiled = Expression.condition(condition, columns, "keep", settings);
    LeftOutRows out =
        leftOut == null || !context.writes()
            ? null
            : new LeftOutRows(context.open(leftOut), form, columns);
    Prepared<Runner> prepared =
        Prepared.<Runner>of(() -> new Runner(compiled.another(), out), this::figures)
            .lookingAt(compiled.inputs());
    return out == null ? prepared : prepared.writing(out.output());
  }

  private StepFigures.Kept figures(Runner all) {
    return new StepFigures.Kept(
        condition, all.rows, all.leftOut, all.unknown, leftOut == null ? "" : "" + leftOut);
  }

  private static final class Runner implements StepWorker {
    private final Expression condition;
    private final LeftOutRows.@Nullable Part out;

    private long rows;
    private long leftOut;
    private long unknown;

    Runner(Expression condition, @Nullable LeftOutRows out) {
      this.condition = condition;
      this.out = out == null ? null : out.part();
    }

    @Override
    public void apply(Batch batch) {
      int count = batch.rows();
      condition.over(batch);
      int[] kept = new int[count];
      int[] others = new int[count];
      int keeping = 0;
      int leaving = 0;
      for (int row = 0; row < count; row++) {
        if (condition.isTrue(row)) {
          kept[keeping++] = row;
        } else {
          unknown += condition.isNull(row) ? 1 : 0;
          others[leaving++] = row;
        }
      }
      rows += count;
      leftOut += leaving;
      if (leaving > 0) {
        if (out != null) {
          out.add(batch, others, leaving);
        }
        batch.pick(kept, keeping);
      }
    }

    @Override
    public void merge(StepWorker worker) {
      Runner other = (Runner) worker;
      rows += other.rows;
      leftOut += other.leftOut;
      unknown += other.unknown;
    }

    @Override
    public void carry(Carrier carrier) {
      rows = carrier.number(rows);
      leftOut = carrier.number(leftOut);
      unknown = carrier.number(unknown);
    }

    @Override
    public void inOrder() {
      if (out != null) {
        out.inOrder();
      }
    }
  }
}
