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
import org.abletwine.derive.total.ControlThat;
import org.abletwine.derive.total.ControlTotal;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.Plan.Controls;
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
 * Puts around a plan's steps what its controls and outputs need: control totals before and after,
 * conditions on the whole, rollups, and last the arrangement of columns.
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

  /** Checks that controls name lookups and references that are there. */
  void checkNames(Collection<String> lookups, Map<String, String> referenceOf) {
    Controls controls = plan.controls();
    for (String name : controls.matched().keySet()) {
      if (!lookups.contains(name)) {
        mistakes.add(
            controls.mark(),
            "controls, matched: no lookup is called \""
                + name
                + "\"; "
                + NearestName.hint(name, lookups));
      }
    }
    for (String name : controls.unique()) {
      if (!referenceOf.containsValue(name)) {
        mistakes.add(
            controls.mark(),
            "controls, unique: no lookup fetches from a reference called \""
                + name
                + "\"; "
                + NearestName.hint(name, plan.references().keySet()));
      }
    }
  }

  List<Placed> around(List<Placed> steps) {
    List<Placed> all = new ArrayList<>();
    Controls controls = plan.controls();
    Set<String> open = new LinkedHashSet<>(controls.totals());
    List<Placed> rollups = new ArrayList<>();
    plan.outputs().rollups().forEach(rollup -> rollup(rollup, rollups));
    for (Placed placed : rollups) {
      try {
        open.addAll(((Rollup) placed.step()).summed());
      } catch (SettingException e) {
        continue; // told when the whole is checked
      }
    }
    Columns columns =
        new Columns(transactions.name(), transactions.schema())
            .typedBy(transactions)
            .keeping(plan.settings().hidden());
    before(open, columns, all);
    for (Placed placed : steps) {
      all.add(placed);
      if (open.isEmpty()) {
        continue; // nothing else is asked of the columns
      }
      try {
        ((RunStep) placed.step()).check(columns);
      } catch (SettingException e) {
        continue; // told with all other mistakes, when the whole is checked
      }
      before(open, columns, all);
    }
    controls.totals().forEach(column -> after(column, false, all));
    controls.nulls().keySet().stream()
        .filter(column -> !controls.totals().contains(column))
        .forEach(column -> after(column, true, all));
    controls
        .that()
        .forEach(text -> all.add(new Placed(new ControlThat(text, settings), controls.mark())));
    all.addAll(rollups);
    for (FormatSpec format : plan.outputs().formats()) {
      all.add(new Placed(format(format, settings), format.mark()));
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
                    new ControlTotal(column, StepFigures.Control.BEFORE), plan.controls().mark()));
          }
          return there;
        });
  }

  private void after(String column, boolean nullsOnly, List<Placed> all) {
    all.add(
        new Placed(
            new ControlTotal(column, StepFigures.Control.AFTER, nullsOnly),
            plan.controls().mark()));
  }

  private void rollup(RollupSpec spec, List<Placed> all) {
    all.add(new Placed(rollup(spec, transactions, settings), spec.mark()));
  }

  /** The step a rollup of the plan stands for. */
  static Rollup rollup(RollupSpec spec, Table form, Evaluation settings) {
    return new Rollup(
        spec.by(),
        spec.totals(),
        new Rollup.Shown(
            spec.order(),
            spec.top(),
            spec.having(),
            spec.formats().stream().map(format -> format(format, settings)).toList()),
        spec.grandTotal(),
        spec.file(),
        form,
        settings);
  }

  private static FormatColumn format(FormatSpec format, Evaluation settings) {
    return new FormatColumn(
        format.column(), format.datePattern(), format.decimals(), format.example(), settings);
  }
}
