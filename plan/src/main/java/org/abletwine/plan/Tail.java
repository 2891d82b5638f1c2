package org.abletwine.plan;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.derive.ArrangeColumns;
import org.abletwine.derive.DropColumns;
import org.abletwine.derive.FormatColumn;
import org.abletwine.derive.GuardFormulas;
import org.abletwine.derive.Rollup;
import org.abletwine.derive.total.ControlTotal;
import org.abletwine.derive.total.ExpectThat;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Attribute;
import org.abletwine.plan.Plan.Expect;
import org.abletwine.plan.Plan.FormatSpec;
import org.abletwine.plan.Plan.RollupSpec;
import org.abletwine.plan.PlanCompiler.Placed;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.text.NearestName;

/**
 * Puts around a plan's steps what its expectations and outputs need: control totals before and
 * after, conditions on the whole, rollups, and last the arrangement of columns.
 */
final class Tail {
  private final Plan plan;
  private final Table transactions;
  private final Mistakes mistakes;
  private final Evaluation settings;

  Tail(Plan plan, Table transactions, Mistakes mistakes, Evaluation settings) {
    this.plan = plan;
    this.transactions = transactions;
    this.mistakes = mistakes;
    this.settings = settings;
  }

  /** Checks that expectations name lookups and references that are there. */
  void checkNames(Collection<String> lookups, Map<String, String> referenceOf) {
    Expect expect = plan.expect();
    for (String name : expect.matched().keySet()) {
      if (!lookups.contains(name)) {
        mistakes.add(
            expect.mark(),
            "expect, matched: no lookup is called \""
                + name
                + "\"; "
                + NearestName.hint(name, lookups));
      }
    }
    for (String name : expect.unique()) {
      if (!referenceOf.containsValue(name)) {
        mistakes.add(
            expect.mark(),
            "expect, unique: no lookup fetches from a reference called \""
                + name
                + "\"; "
                + NearestName.hint(name, plan.references().keySet()));
      }
    }
  }

  List<Placed> around(List<Placed> steps) {
    List<Placed> all = new ArrayList<>();
    Expect expect = plan.expect();
    Set<String> open = new LinkedHashSet<>(expect.totals());
    List<Placed> rollups = new ArrayList<>();
    plan.outputs().rollups().forEach(rollup -> rollup(rollup, rollups));
    rollups.forEach(placed -> open.addAll(((Rollup) placed.step()).summed()));
    Columns columns = new Columns(transactions.name(), transactions.schema()).typedBy(transactions);
    before(open, columns, all);
    for (Placed placed : steps) {
      all.add(placed);
      try {
        ((RunStep) placed.step()).check(columns);
      } catch (SettingException e) {
        continue; // told with all other mistakes, when the whole is checked
      }
      before(open, columns, all);
    }
    expect.totals().forEach(column -> after(column, all));
    expect.nulls().keySet().stream()
        .filter(column -> !expect.totals().contains(column))
        .forEach(column -> after(column, all));
    expect
        .that()
        .forEach(text -> all.add(new Placed(new ExpectThat(text, settings), expect.mark())));
    all.addAll(rollups);
    for (FormatSpec format : plan.outputs().formats()) {
      all.add(
          new Placed(
              new FormatColumn(
                  format.column(),
                  format.datePattern(),
                  format.decimals(),
                  format.example(),
                  settings),
              format.mark()));
    }
    if (!plan.outputs().dropColumns().isEmpty()) {
      all.add(new Placed(new DropColumns(plan.outputs().dropColumns()), plan.outputs().mark()));
    }
    if (!plan.outputs().rename().isEmpty() || !plan.outputs().orderColumns().isEmpty()) {
      all.add(
          new Placed(
              new ArrangeColumns(plan.outputs().rename(), plan.outputs().orderColumns()),
              plan.outputs().mark()));
    }
    if (plan.outputs().guardsFormulas()) {
      all.add(new Placed(new GuardFormulas(), plan.outputs().mark()));
    }
    return all;
  }

  /** A total is taken for the first time as soon as its column is there. */
  private void before(Set<String> open, Columns columns, List<Placed> all) {
    open.removeIf(
        column -> {
          boolean there = columns.names().contains(column);
          if (there) {
            all.add(
                new Placed(
                    new ControlTotal(column, StepFigures.Control.BEFORE), plan.expect().mark()));
          }
          return there;
        });
  }

  private void after(String column, List<Placed> all) {
    all.add(new Placed(new ControlTotal(column, StepFigures.Control.AFTER), plan.expect().mark()));
  }

  private void rollup(RollupSpec spec, List<Placed> all) {
    List<Attribute> totals = new ArrayList<>();
    for (String text : spec.totals()) {
      try {
        totals.add(Attribute.parse(named(text)));
      } catch (SettingException e) {
        mistakes.add(spec.mark(), "rollups: " + e.getMessage());
      }
    }
    all.add(
        new Placed(
            new Rollup(spec.by(), totals, spec.grandTotal(), spec.file(), transactions, settings),
            spec.mark()));
  }

  /** A total of a function without a name is called after both: {@code avg(x)} is avg_x. */
  private static String named(String text) {
    int open = text.indexOf('(');
    if (open < 0 || text.toLowerCase(java.util.Locale.ROOT).contains(") as ")) {
      return text;
    }
    String inner = text.substring(open + 1).replace(")", "").strip();
    String name = inner.equals("*") ? "rows" : inner.replaceAll("[^\\p{L}\\p{N}]+", "_");
    return text
        + " as "
        + (inner.equals("*") ? name : text.substring(0, open).strip() + "_" + name);
  }
}
