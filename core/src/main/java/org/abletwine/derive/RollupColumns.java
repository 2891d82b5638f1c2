package org.abletwine.derive;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.abletwine.compute.Expression;
import org.abletwine.derive.total.TotalCalls;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/**
 * A rollup against the columns of a run: the numbers of its columns, its totals, and the columns it
 * has itself. Not changed once made.
 */
final class RollupColumns {
  /** Stands for a total that is computed from others. */
  private static final int COMPUTED = -1;

  final int[] by;
  final TotalCalls calls;

  /** What the rollup's columns are called: those of the groups, then the totals. */
  final List<String> names = new ArrayList<>();

  /** Its own columns as they are before formats. */
  final Columns own;

  /** For ordering: the place of each column, and whether the greatest comes first. */
  final int[] orderedBy;

  final boolean[] descending;

  final @Nullable Expression having;

  /** For each column that makes the groups whether digests are shown in place of its values. */
  final boolean[] hidden;

  private final List<RollupTotal> totals;
  private final int[] direct;
  private final @Nullable Expression[] computed;
  private final List<@Nullable ColumnType> types = new ArrayList<>();

  RollupColumns(Rollup rollup, Columns columns) {
    by =
        rollup.by().stream()
            .mapToInt(name -> columns.require(name, Rollup.WHERE + ", by"))
            .toArray();
    names.addAll(rollup.by());
    rollup.by().forEach(name -> types.add(columns.type(name)));
    calls = new TotalCalls(columns, Rollup.WHERE, rollup.settings());
    totals = rollup.totals().stream().map(RollupTotal::parse).toList();
    direct = new int[totals.size()];
    computed = new @Nullable Expression[totals.size()];
    List<String> rests = new ArrayList<>();
    for (RollupTotal total : totals) {
      boolean plain = total.expression().equals(total.column());
      rests.add(plain ? calls.sumOf(total.expression()) : calls.read(total.expression()).strip());
      names.add(total.as());
    }
    for (int t = 0; t < direct.length; t++) {
      direct[t] = call(rests.get(t));
      if (direct[t] == COMPUTED) {
        computed[t] = computed(totals.get(t), rests.get(t), rollup.settings());
      }
      Expression expression = computed[t];
      types.add(
          expression == null
              ? calls.asColumns().type(calls.texts().get(direct[t]))
              : expression.type());
    }
    Set<String> twice = new HashSet<>();
    for (String name : names) {
      if (!twice.add(name)) {
        throw new SettingException(
            Rollup.WHERE + ": two columns are called \"" + name + "\"; name one: ... as OTHER");
      }
    }
    own = new Columns("the rollup", new Schema(names));
    hidden = new boolean[by.length];
    for (int i = 0; i < by.length; i++) {
      own.hide(names.get(i), columns.isPrivate(by[i]));
      hidden[i] = columns.isPrivate(by[i]) && !rollup.shown().within();
    }
    for (int i = 0; i < names.size(); i++) {
      own.typed(names.get(i), types.get(i));
    }
    String condition = rollup.shown().having();
    having =
        condition == null
            ? null
            : Expression.condition(
                condition, own, Rollup.WHERE + ", having", new Evaluation(true, null));
    List<String> order = rollup.shown().order();
    orderedBy = new int[order.size()];
    descending = new boolean[order.size()];
    for (int i = 0; i < orderedBy.length; i++) {
      order(i, order.get(i));
    }
    if (rollup.shown().top() > 0 && order.isEmpty()) {
      throw new SettingException(
          Rollup.WHERE + ", top: the first of which order? State order: [COLUMN desc]");
    }
    Columns formatted = own.copy();
    rollup.shown().formats().forEach(format -> format.check(formatted));
  }

  private void order(int place, String text) {
    String lower = text.toLowerCase(Locale.ROOT).stripTrailing();
    descending[place] = lower.endsWith(" desc");
    boolean ascending = lower.endsWith(" asc");
    String name =
        descending[place] || ascending ? text.strip().replaceFirst("\\s+\\S+$", "") : text;
    String bare = RollupTotal.parse(name).column();
    orderedBy[place] = own.require(bare == null ? name : bare, Rollup.WHERE + ", order");
  }

  /** The total that an expression is and nothing else, or {@link #COMPUTED}. */
  private int call(String rest) {
    for (int i = 0; i < calls.count(); i++) {
      if (rest.equals('"' + calls.texts().get(i).replace("\"", "\"\"") + '"')) {
        return i;
      }
    }
    return COMPUTED;
  }

  private Expression computed(RollupTotal total, String rest, Evaluation settings) {
    if (rest.equals(total.expression().strip())) {
      throw new SettingException(
          Rollup.WHERE
              + ": `"
              + total.expression()
              + "` has no total in it; write for example sum("
              + total.expression()
              + ")");
    }
    // A ratio of nothing is null and counted, and does not end a run whose rows are all done.
    return Expression.of(
        rest,
        calls.asColumns(),
        Rollup.WHERE + ", " + total.as(),
        new Evaluation(true, settings.today()));
  }

  /** What a total is that is a sum of a column; null for any other. */
  @Nullable String summed(int total) {
    return totals.get(total).column();
  }

  int totals() {
    return direct.length;
  }

  @Nullable ColumnType type(int column) {
    return types.get(column);
  }

  /** The expressions for one thread: those of totals that are computed from others. */
  @Nullable Expression[] expressions() {
    @Nullable Expression[] own = new @Nullable Expression[computed.length];
    for (int t = 0; t < own.length; t++) {
      Expression expression = computed[t];
      own[t] = expression == null ? null : expression.another();
    }
    return own;
  }

  /** Which of the calls a total is; negative for one that is computed. */
  int direct(int total) {
    return direct[total];
  }
}
