package org.abletwine.derive.total;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowErrors;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * A condition over the totals of the rows that reach the step, such as {@code sum(payable) > 0}.
 * Changes nothing. Immutable.
 *
 * @param condition the condition; columns stand within sum, avg, min, max or count
 * @param settings how expressions are evaluated
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record ControlThat(String condition, Evaluation settings) implements RunStep {
  private static final String WHERE = "controls, that";

  @Override
  public String title() {
    return "control " + condition;
  }

  @Override
  public void check(Columns columns) {
    new Totals(this, columns);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    Totals read = new Totals(this, columns);
    Spill spill = context.spill();
    Spill.Share share = spill == null ? null : spill.share(context.workers());
    return Prepared.of(() -> new Runner(read, share), Runner::figures);
  }

  /** The totals of a condition, and the condition over them. Immutable but for what it is over. */
  private static final class Totals {
    private final ControlThat step;
    private final TotalCalls calls;
    private final Expression outer;

    Totals(ControlThat step, Columns columns) {
      this.step = step;
      calls = new TotalCalls(columns, WHERE, step.settings);
      String rest = calls.read(step.condition);
      if (calls.count() == 0) {
        throw new SettingException(
            WHERE
                + ": `"
                + step.condition
                + "` has no total in it; write for example sum(payable) > 0, or use keep for a"
                + " condition on each row");
      }
      outer = Expression.condition(rest, calls.asColumns(), WHERE, step.settings);
    }

    StepFigures.Judged figures(@Nullable String[] values, List<RowErrors> errors) {
      List<String> shown = new ArrayList<>();
      for (int i = 0; i < values.length; i++) {
        long passedOver = errors.get(i).count();
        shown.add(
            calls.texts().get(i)
                + " is "
                + values[i]
                + (passedOver == 0
                    ? ""
                    : " with " + passedOver + " passed over that do not compute"));
      }
      outer.over(OneRow.of(values));
      return new StepFigures.Judged(step.condition, String.join(", ", shown), outer.isTrue(0));
    }
  }

  private static final class Runner implements StepWorker {
    private final Totals read;
    private final GroupedTotals totals;

    Runner(Totals read, Spill.@Nullable Share share) {
      this.read = read;
      totals = new GroupedTotals(read.calls, 0, false, share);
    }

    @Override
    public void apply(Batch batch) {
      totals.add(batch, new CellVector[0]);
    }

    @Override
    public void merge(StepWorker other) {
      totals.merge(((Runner) other).totals);
    }

    @Override
    public void carry(Carrier carrier) {
      totals.carry(carrier);
    }

    StepFigures.Judged figures() {
      List<RowErrors> errors = new ArrayList<>();
      for (int i = 0; i < read.calls.count(); i++) {
        errors.add(totals.errors(i));
      }
      GroupedTotals.Groups whole = totals.groups();
      whole.next();
      return read.figures(whole.totals(), errors);
    }
  }
}
