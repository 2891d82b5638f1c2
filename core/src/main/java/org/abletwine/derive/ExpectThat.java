package org.abletwine.derive;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.abletwine.compute.Expression;
import org.abletwine.compute.GroupTotals;
import org.abletwine.figures.ThatFigures;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.Columns;
import org.abletwine.step.RunContext;
import org.abletwine.step.Step;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;

/**
 * A condition over the totals of the rows that reach the step, such as {@code sum(payable) > 0}.
 * Changes nothing. Immutable.
 *
 * @param condition the condition; columns stand within sum, avg, min, max or count
 * @param settings how expressions are evaluated
 */
public record ExpectThat(String condition, Expression.Settings settings) implements Step {
  /** A total: its argument holds at most one level of brackets within brackets. */
  private static final Pattern CALL =
      Pattern.compile(
          "\\b(sum|avg|min|max|count)\\s*\\(((?:[^()]|\\((?:[^()]|\\([^()]*\\))*\\))*)\\)",
          Pattern.CASE_INSENSITIVE);

  private static final String WHERE = "expect, that";

  @Override
  public String title() {
    return "expect " + condition;
  }

  @Override
  public void check(Columns columns) {
    new Runner(this, columns);
  }

  @Override
  public StepRunner prepare(Columns columns, RunContext context) {
    return new Runner(this, columns);
  }

  private static final class Runner implements StepRunner {
    private final ExpectThat step;
    private final List<String> calls = new ArrayList<>();
    private final GroupIndex whole;
    private final List<GroupTotals> totals = new ArrayList<>();
    private final List<Expression> arguments = new ArrayList<>();
    private final Expression outer;

    Runner(ExpectThat step, Columns columns) {
      this.step = step;
      List<GroupTotals.Function> functions = new ArrayList<>();
      StringBuilder rest = new StringBuilder();
      Matcher matcher = CALL.matcher(step.condition);
      while (matcher.find()) {
        String argument = matcher.group(2).strip();
        boolean distinct = argument.toLowerCase(Locale.ROOT).startsWith("distinct ");
        String function = matcher.group(1).toUpperCase(Locale.ROOT);
        functions.add(GroupTotals.Function.valueOf(distinct ? function + "_DISTINCT" : function));
        arguments.add(
            Expression.of(
                argument.equals("*") ? "1" : distinct ? argument.substring(9) : argument,
                columns,
                WHERE,
                step.settings));
        matcher.appendReplacement(rest, "total_" + calls.size());
        calls.add(matcher.group());
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
      whole = new GroupIndex(0, calls.size() * GroupTotals.COUNTERS);
      whole.find(new CellVector[0], 1, new int[1]);
      List<String> names = new ArrayList<>();
      for (int i = 0; i < calls.size(); i++) {
        totals.add(new GroupTotals(functions.get(i), whole, i * GroupTotals.COUNTERS));
        names.add("total_" + i);
      }
      Columns of = new Columns("the totals", new Schema(names));
      names.forEach(name -> of.typed(name, ColumnType.of(ColumnType.Kind.NUMBER)));
      outer = Expression.condition(rest.toString(), of, WHERE, step.settings);
    }

    @Override
    public boolean mayRunWithWriting() {
      return true;
    }

    @Override
    public void apply(Batch batch) {
      for (int i = 0; i < calls.size(); i++) {
        Expression argument = arguments.get(i);
        argument.over(batch);
        CellVector cells = new CellVector();
        cells.clearNarrow();
        argument.appendTo(cells, batch.rows());
        totals.get(i).add(new int[batch.rows()], cells, batch.rows());
      }
    }

    @Override
    public ThatFigures figures() {
      String[] values = new String[calls.size()];
      List<String> shown = new ArrayList<>();
      for (int i = 0; i < values.length; i++) {
        values[i] = totals.get(i).value(0);
        shown.add(calls.get(i) + " is " + values[i]);
      }
      outer.over(Batch.ofOneRow(values));
      return new ThatFigures(step.condition, String.join(", ", shown), outer.isTrue(0));
    }
  }
}
