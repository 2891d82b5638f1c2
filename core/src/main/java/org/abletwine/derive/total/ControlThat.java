package org.abletwine.derive.total;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.compute.Expression;
import org.abletwine.compute.GroupTotals;
import org.abletwine.compute.RowErrors;
import org.abletwine.figures.StepFigures;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
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
  /** A total: its argument holds at most one level of brackets within brackets. */
  private static final Pattern CALL =
      Pattern.compile(
          "\\b(sum|avg|min|max|count)\\s*\\(((?:[^()]|\\((?:[^()]|\\([^()]*\\))*\\))*)\\)",
          Pattern.CASE_INSENSITIVE);

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
    return Prepared.of(() -> new Runner(read), Runner::figures);
  }

  /**
   * A total within the condition.
   *
   * @param function what is totalled
   * @param argument of what
   */
  private record Call(GroupTotals.Function function, Expression argument) {
    static Call of(String word, String text, Columns columns, Evaluation settings) {
      boolean distinct = text.toLowerCase(Locale.ROOT).startsWith("distinct ");
      GroupTotals.Function function =
          GroupTotals.Function.valueOf(
              word.toUpperCase(Locale.ROOT) + (distinct ? "_DISTINCT" : ""));
      String of = text.equals("*") ? "1" : distinct ? text.substring(9) : text;
      boolean number = function == GroupTotals.Function.SUM || function == GroupTotals.Function.AVG;
      return new Call(
          function,
          number
              ? Expression.number(of, columns, WHERE, settings)
              : Expression.of(of, columns, WHERE, settings));
    }

    private boolean extreme() {
      return function == GroupTotals.Function.MIN || function == GroupTotals.Function.MAX;
    }

    /** What orders the argument's values: text may turn out to be all numbers. */
    @Nullable ColumnType ordered() {
      return argument.type().kind() == ColumnType.Kind.TEXT ? null : argument.type();
    }

    /** What the total is in the condition; null where its use decides. */
    @Nullable ColumnType type() {
      return extreme() ? ordered() : ColumnType.of(ColumnType.Kind.NUMBER);
    }
  }

  /** The totals of a condition, and the condition over them. Immutable but for what it is over. */
  private static final class Totals {
    private final ControlThat step;
    private final List<String> calls = new ArrayList<>();
    private final List<Call> found = new ArrayList<>();
    private final Expression outer;

    Totals(ControlThat step, Columns columns) {
      this.step = step;
      StringBuilder rest = new StringBuilder();
      Matcher matcher = CALL.matcher(step.condition);
      while (matcher.find()) {
        String call = matcher.group();
        if (!calls.contains(call)) {
          calls.add(call);
          found.add(Call.of(matcher.group(1), matcher.group(2).strip(), columns, step.settings));
        }
        // A total is a column of the condition around it, called as it is written.
        String quoted = '"' + call.replace("\"", "\"\"") + '"';
        matcher.appendReplacement(rest, Matcher.quoteReplacement(quoted));
      }
      matcher.appendTail(rest);
      if (calls.isEmpty()) {
        throw new SettingException(
            WHERE
                + ": `"
                + step.condition
                + "` has no total in it; write for example sum(payable) > 0, or use keep for a"
                + " condition on each row");
      }
      Columns of = new Columns("the totals", new Schema(calls));
      for (int i = 0; i < calls.size(); i++) {
        of.typed(calls.get(i), found.get(i).type());
      }
      outer = Expression.condition(rest.toString(), of, WHERE, step.settings);
    }

    GroupTotals total(int i, GroupIndex whole) {
      Call call = found.get(i);
      return new GroupTotals(
          call.function(),
          whole,
          i * GroupTotals.COUNTERS,
          call.ordered(),
          calls.get(i),
          step.settings);
    }

    StepFigures.Judged figures(List<@Nullable String> values, List<RowErrors> errors) {
      List<String> shown = new ArrayList<>();
      for (int i = 0; i < values.size(); i++) {
        long passedOver = errors.get(i).count();
        shown.add(
            calls.get(i)
                + " is "
                + values.get(i)
                + (passedOver == 0
                    ? ""
                    : " with " + passedOver + " passed over that do not compute"));
      }
      outer.over(Batch.ofOneRow(values.toArray(String[]::new)));
      return new StepFigures.Judged(step.condition, String.join(", ", shown), outer.isTrue(0));
    }
  }

  private static final class Runner implements StepWorker {
    private static final int[] THE_WHOLE = {0};

    private final Totals read;
    private final List<GroupTotals> totals = new ArrayList<>();
    private final List<Expression> arguments = new ArrayList<>();

    Runner(Totals read) {
      this.read = read;
      GroupIndex whole = new GroupIndex(0, read.calls.size() * GroupTotals.COUNTERS);
      whole.find(new CellVector[0], 1, new int[1]);
      for (int i = 0; i < read.calls.size(); i++) {
        arguments.add(read.found.get(i).argument().another());
        totals.add(read.total(i, whole));
      }
    }

    @Override
    public void apply(Batch batch) {
      for (int i = 0; i < totals.size(); i++) {
        Expression argument = arguments.get(i);
        argument.over(batch);
        CellVector cells = new CellVector();
        cells.clear();
        argument.appendTo(cells, batch.rows());
        totals.get(i).add(new int[batch.rows()], cells, batch);
      }
    }

    static StepFigures.Judged figures(List<Runner> workers) {
      Totals read = workers.get(0).read;
      Runner sum = new Runner(read);
      List<@Nullable String> values = new ArrayList<>();
      List<RowErrors> errors = new ArrayList<>();
      for (int i = 0; i < sum.totals.size(); i++) {
        List<RowErrors> met = new ArrayList<>();
        for (Runner worker : workers) {
          sum.totals.get(i).merge(worker.totals.get(i), THE_WHOLE);
          met.add(worker.arguments.get(i).errors());
        }
        met.add(sum.totals.get(i).errors());
        values.add(sum.totals.get(i).value(0));
        errors.add(RowErrors.sum(met));
      }
      return read.figures(values, errors);
    }
  }
}
