package org.abletwine.plan.draft;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.plan.draft.FoundKey.Kind;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Lists the cells in which a table made by hand differs from what the plan makes, each with what
 * may have happened: judged by what else the reference holds for the row's key.
 */
final class Slips {
  private final SampleTable out;
  private final SampleTable made;
  private final int[] rowOf;
  private final List<TracedColumn> traced;
  private final Map<String, DraftedStep> stepOf = new HashMap<>();
  private final Map<String, String> attributeOf = new HashMap<>();
  private final Map<String, SampleTable> tables;
  private final Map<String, Map<String, List<Integer>>> rowsOf = new HashMap<>();
  private final @Nullable SampleColumn key;

  /** Columns of the table made by hand whose values are not told. */
  private final Set<String> hidden = new HashSet<>();

  /**
   * @param out what the plan makes, all its columns by the draft's names
   * @param made the table made by hand
   * @param rowOf for each transaction its row there; -1 for none
   * @param traced where its columns come from
   * @param steps the steps of the plan
   * @param tables the references, whole
   * @param key a column that tells rows apart; null for none
   */
  Slips(
      SampleTable out,
      SampleTable made,
      int[] rowOf,
      List<TracedColumn> traced,
      List<DraftedStep> steps,
      Map<String, SampleTable> tables,
      @Nullable SampleColumn key) {
    this.out = out;
    this.made = made;
    this.rowOf = rowOf;
    this.traced = traced;
    this.tables = tables;
    this.key = key;
    for (TracedColumn one : traced) {
      boolean traceable = one.kind() != TracedColumn.Kind.UNKNOWN;
      if (made.isPrivate(one.made()) || traceable && out.isPrivate(planned(one))) {
        hidden.add(one.made());
      }
    }
    for (DraftedStep step : steps) {
      step.bring()
          .forEach(
              (column, as) -> {
                stepOf.put(as, step);
                attributeOf.put(as, column);
              });
    }
  }

  List<Slip> find() {
    List<Slip> slips = new ArrayList<>();
    for (int row = 0; row < rowOf.length; row++) {
      if (rowOf[row] < 0) {
        continue; // counted by whoever asks
      }
      Set<String> differing = new HashSet<>();
      for (TracedColumn one : traced) {
        if (one.kind() == TracedColumn.Kind.UNKNOWN) {
          continue;
        }
        String byHand = made.column(one.made()).value(rowOf[row]);
        String byPlan = out.column(planned(one)).value(row);
        if (!Tracer.same(byHand, byPlan)) {
          slips.add(judged(row, one, byHand, byPlan, differing));
          differing.add(one.from());
        }
      }
    }
    return slips;
  }

  /** The column of the plan's output that a traced column is. */
  static String planned(TracedColumn one) {
    return one.fill() == null ? one.from() : one.from() + "_filled";
  }

  private Slip slip(
      int row,
      String column,
      @Nullable String byHand,
      @Nullable String byPlan,
      String reason,
      boolean follows) {
    String told = key == null ? null : Veil.over(out.isPrivate(key.name()), key.value(row));
    boolean veiled = hidden.contains(column);
    return new Slip(
        row + 1L,
        told == null ? "" : told,
        column,
        Veil.over(veiled, byHand),
        Veil.over(veiled, byPlan),
        reason,
        follows);
  }

  private Slip judged(
      int row,
      TracedColumn one,
      @Nullable String byHand,
      @Nullable String byPlan,
      Set<String> differing) {
    String column = one.made();
    if (one.kind() == TracedColumn.Kind.COMPUTED) {
      return computed(row, one, byHand, byPlan, differing);
    }
    if (byHand == null) {
      return slip(row, column, null, byPlan, "left blank", false);
    }
    String written = written(byHand, byPlan);
    if (written != null) {
      return slip(row, column, byHand, byPlan, written, false);
    }
    DraftedStep step = stepOf.get(one.from());
    String reason = step == null ? null : ofReference(step, one.from(), row, byHand, byPlan);
    return slip(
        row,
        column,
        byHand,
        byPlan,
        reason == null ? "typed over, or of another source" : reason,
        false);
  }

  /** The same but for how it is written; null when it is not. */
  private static @Nullable String written(String byHand, @Nullable String byPlan) {
    if (byPlan == null) {
      return null;
    }
    String one = byHand.strip();
    String other = byPlan.strip();
    if (one.equalsIgnoreCase(other)) {
      return "written in another case";
    }
    if (one.replaceFirst("^0+(?=.)", "").equals(other.replaceFirst("^0+(?=.)", ""))) {
      return one.length() < other.length() ? "a dropped zero" : "a zero too many";
    }
    if (one.replaceAll("[\\s\\u00A0]+", "").equals(other.replaceAll("[\\s\\u00A0]+", ""))) {
      return "written with other spaces";
    }
    BigDecimal a = DecimalText.read(one);
    BigDecimal b = DecimalText.read(other);
    if (a != null && b != null) {
      boolean rounded =
          a.scale() < b.scale()
              && a.compareTo(b.setScale(Math.max(0, a.scale()), java.math.RoundingMode.HALF_UP))
                  == 0;
      if (rounded) {
        return "rounded";
      }
    }
    return null;
  }

  private Slip computed(
      int row,
      TracedColumn one,
      @Nullable String byHand,
      @Nullable String byPlan,
      Set<String> differing) {
    Formula formula = one.formula();
    String column = one.made();
    if (byHand == null) {
      return slip(row, column, null, byPlan, "left blank", false);
    }
    BigDecimal number = DecimalText.read(byHand.strip());
    List<String> from = new ArrayList<>();
    if (formula != null && number != null) {
      List<@Nullable BigDecimal> inputs = new ArrayList<>();
      for (String input : formula.inputs()) {
        inputs.add(byHand(input, row, from, differing));
      }
      BigDecimal again = formula.of(inputs);
      if (!from.isEmpty() && again != null && close(again, number, formula.places())) {
        return slip(row, column, byHand, byPlan, "follows from " + String.join(", ", from), true);
      }
      BigDecimal planned = byPlan == null ? null : DecimalText.read(byPlan.strip());
      if (planned != null && close(planned, number, formula.places())) {
        return slip(row, column, byHand, byPlan, "rounded otherwise", false);
      }
    }
    return slip(row, column, byHand, byPlan, "typed over: the arithmetic gives another", false);
  }

  private static boolean close(BigDecimal one, BigDecimal other, int places) {
    BigDecimal unit = BigDecimal.ONE.movePointLeft(places);
    return one.subtract(other).abs().compareTo(unit) <= 0;
  }

  /** An input as the table made by hand has it, else as the plan does. */
  private @Nullable BigDecimal byHand(
      String input, int row, List<String> from, Set<String> differing) {
    for (TracedColumn one : traced) {
      if (one.from().equals(input) && one.kind() != TracedColumn.Kind.UNKNOWN) {
        if (differing.contains(input)) {
          from.add(one.made());
        }
        String value = made.column(one.made()).value(rowOf[row]);
        return value == null ? null : DecimalText.read(value.strip());
      }
    }
    String value = out.has(input) ? out.column(input).value(row) : null;
    return value == null ? null : DecimalText.read(value.strip());
  }

  /** What else the reference holds for the key that would explain the value. */
  private @Nullable String ofReference(
      DraftedStep step, String as, int row, String byHand, @Nullable String byPlan) {
    SampleTable table = tables.get(step.reference());
    String attribute = attributeOf.get(as);
    if (table == null || attribute == null) {
      return null;
    }
    SampleColumn values = table.column(attribute);
    List<Integer> rows = rows(step, table, row);
    List<Integer> having =
        rows.stream().filter(at -> Tracer.same(byHand, values.value(at))).toList();
    if (!having.isEmpty()) {
      return ofKey(step, table, row, rows, having, byPlan);
    }
    if (byPlan == null && rows.isEmpty()) {
      for (int at = 0; at < table.count(); at++) {
        if (Tracer.same(byHand, values.value(at))) {
          return "found by hand: the key is not in " + table.name();
        }
      }
    }
    for (int at = 0; at < table.count(); at++) {
      if (Tracer.same(byHand, values.value(at))) {
        return "the value of another key, such as on row " + (at + 1) + " of " + table.name();
      }
    }
    return null;
  }

  private String ofKey(
      DraftedStep step,
      SampleTable table,
      int row,
      List<Integer> rows,
      List<Integer> having,
      @Nullable String byPlan) {
    FoundKey found = step.key();
    String where = " (row " + (having.get(0) + 1) + " of " + table.name() + ")";
    if (found.kind() == Kind.AT_OR_BELOW && found.theirs() != null && found.ours() != null) {
      String day = out.column(found.ours()).value(row);
      String since = table.column(found.theirs()).value(having.get(0));
      boolean later = day != null && since != null && since.compareTo(day.strip()) > 0;
      String told = Veil.over(table.isPrivate(found.theirs()), since);
      return (later ? "a value not in force yet, of " : "a stale value, of ") + told + where;
    }
    if (found.kind() == Kind.BETWEEN
        && found.ours() != null
        && found.theirs() != null
        && found.theirsTo() != null) {
      String ours = out.column(found.ours()).value(row);
      for (int at : having) {
        String from = table.column(found.theirs()).value(at);
        String to = table.column(found.theirsTo()).value(at);
        if (ours != null && (Tracer.same(ours, from) || Tracer.same(ours, to))) {
          String told = Veil.over(out.isPrivate(found.ours()), ours.strip());
          return "a band edge: " + told + " is where bands meet" + where;
        }
      }
      return byPlan == null
          ? "one of several bands, or the nearest to a gap" + where
          : "the value of another band" + where;
    }
    if (rows.size() > 1) {
      return having.contains(rows.get(0))
          ? "the first of several rows of the key" + where
          : "another of several rows of the key" + where;
    }
    return "the key is there" + where + ", and was not found by the plan";
  }

  /** The reference's rows whose equal parts are those of a transaction. */
  private List<Integer> rows(DraftedStep step, SampleTable table, int row) {
    List<SampleColumn> mine =
        step.key().equal().stream().map(pair -> out.column(pair.ours())).toList();
    List<SampleColumn> theirs =
        step.key().equal().stream().map(pair -> table.column(pair.theirs())).toList();
    String at = KeySearch.key(mine, row);
    if (at == null) {
      return List.of();
    }
    return rowsOf
        .computeIfAbsent(step.reference(), name -> indexed(theirs, table.count()))
        .getOrDefault(at, List.of());
  }

  private static Map<String, List<Integer>> indexed(List<SampleColumn> columns, int count) {
    Map<String, List<Integer>> rows = new HashMap<>();
    for (int row = 0; row < count; row++) {
      String at = KeySearch.key(columns, row);
      if (at != null) {
        rows.computeIfAbsent(at, key -> new ArrayList<>()).add(row);
      }
    }
    return rows;
  }
}
