package org.abletwine.plan;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.derive.Coalesce;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.Plan.ComputeSpec;
import org.abletwine.plan.Plan.CorrectSpec;
import org.abletwine.plan.Plan.KeepSpec;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.plan.Plan.PlainSpec;
import org.abletwine.plan.Plan.ReferenceSpec;
import org.abletwine.plan.Plan.StepSpec;
import org.abletwine.plan.Plan.TableSpec;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.TableOptions;
import org.jspecify.annotations.Nullable;

/** A plan in plain sentences, for somebody who never saw a plan file. */
final class PlanWords {
  private final Plan plan;
  private final @Nullable RunRecord run;
  private final List<PlanSentence> sentences = new ArrayList<>();

  private PlanWords(Plan plan, @Nullable RunRecord run) {
    this.plan = plan;
    this.run = run;
  }

  /**
   * @param plan the plan
   * @param run what came of it; null before a run
   */
  static List<PlanSentence> of(Plan plan, @Nullable RunRecord run) {
    PlanWords words = new PlanWords(plan, run);
    words.transactions();
    plan.steps().forEach(words::step);
    words.leaves();
    words.rollups();
    words.controls();
    return words.sentences;
  }

  private void add(String about, String text, String figures) {
    sentences.add(new PlanSentence(about, Wording.sentence(text), Wording.sentence(figures)));
  }

  private void transactions() {
    StringBuilder text = new StringBuilder();
    text.append("each row of ").append(table(plan.transactions()));
    text.append(" comes out once, in its order, with what the steps add; the file itself is not");
    text.append(" changed");
    if (plan.settings().measure() != null) {
      text.append(". What is at stake is measured by ").append(plan.settings().measure());
    }
    if (!plan.settings().hidden().isEmpty()) {
      text.append(". ").append(Wording.list(List.copyOf(plan.settings().hidden())));
      text.append(plan.settings().hidden().size() == 1 ? " is" : " are");
      text.append(" kept private: shown nowhere but in the rows that come out");
    }
    if (plan.settings().errorsAreNull()) {
      text.append(". What cannot be computed becomes null, and is counted");
    }
    add(
        "transactions",
        text.toString(),
        run == null ? "" : Words.rows(run.rowsIn()) + " in, " + Words.rows(run.rowsOut()) + " out");
  }

  /** A table as it is called in a sentence. */
  static String table(@Nullable ReferenceSpec reference) {
    return reference == null
        ? "the reference"
        : reference.rollup() != null
            ? "the totals by " + Wording.list(reference.rollup().by())
            : table(reference.table());
  }

  private static String table(TableSpec table) {
    if (table.database() != null) {
      return "the database";
    }
    List<String> files =
        table.files().stream().map(Path::getFileName).map(String::valueOf).toList();
    TableOptions.Sheet sheet = table.options().sheet();
    return Wording.list(files)
        + (sheet == null || sheet.sheet() == null ? "" : ", sheet " + sheet.sheet());
  }

  private void step(StepSpec step) {
    if (step instanceof LookupSpec lookup) {
      lookup(lookup);
    } else if (step instanceof CorrectSpec correct) {
      correct(correct);
    } else if (step instanceof ComputeSpec compute) {
      compute(compute);
    } else if (step instanceof KeepSpec keep) {
      keep(keep);
    } else if (step instanceof PlainSpec plain && plain.step() instanceof Coalesce coalesce) {
      coalesce(coalesce);
    }
  }

  private void lookup(LookupSpec step) {
    String name = step.name() == null ? step.reference() : step.name();
    add(name, new LookupWords(plan.references()).of(step).replaceFirst("\\.$", ""), came(name));
  }

  private String came(String lookup) {
    if (run != null) {
      for (LookupFigures one : run.lookups()) {
        if (one.name().equals(lookup)) {
          return came(one);
        }
      }
    }
    return "";
  }

  private static String came(LookupFigures lookup) {
    List<String> parts = new ArrayList<>();
    parts.add(
        "of "
            + Words.rows(lookup.rows())
            + " "
            + Words.part(lookup.matched(), lookup.rows())
            + " matched");
    part(parts, lookup.unmatched(), lookup, "did not");
    part(parts, lookup.ambiguous(), lookup, "fit several rows that disagree");
    part(parts, lookup.blankKey(), lookup, "had no key");
    part(parts, lookup.notAsked(), lookup, "were not asked for");
    return Wording.list(parts);
  }

  private static void part(List<String> parts, long rows, LookupFigures lookup, String what) {
    if (rows > 0) {
      parts.add(Words.part(rows, lookup.rows()) + " " + what);
    }
  }

  private void correct(CorrectSpec step) {
    ReferenceSpec reference = plan.references().get(step.reference());
    String where = reference == null || reference.where() == null ? "" : reference.where();
    String figures = "";
    for (StepFigures.Corrected one : of(StepFigures.Corrected.class)) {
      if (one.column().equals(step.column())) {
        figures =
            Words.part(one.changed(), one.rows())
                + " rows were changed; "
                + Words.count(one.unused())
                + " of "
                + Words.count(one.lines())
                + " lines of the list were not needed";
      }
    }
    add(
        step.column(),
        (step.part() ? "parts that are" : "values")
            + " listed in "
            + table(reference)
            + " (column "
            + step.written()
            + ") are replaced by what is meant (column "
            + step.meant()
            + ")"
            + (where.isEmpty() ? "" : "; only lines with " + where + " count"),
        figures);
  }

  private void compute(ComputeSpec step) {
    String figures = "";
    for (StepFigures.Computed one : of(StepFigures.Computed.class)) {
      if (one.column().equals(step.column())) {
        figures =
            one.nulls() == 0
                ? "never null"
                : "null in " + Words.part(one.nulls(), one.rows()) + " rows";
        if (!one.reasons().isEmpty()) {
          figures +=
              ", because of "
                  + Wording.list(
                      one.reasons().stream()
                          .map(reason -> reason.name() + " (" + Words.count(reason.rows()) + ")")
                          .toList());
        }
      }
    }
    add(step.column(), "computed as " + step.expression(), figures);
  }

  private void keep(KeepSpec step) {
    String figures = "";
    for (StepFigures.Kept one : of(StepFigures.Kept.class)) {
      if (one.condition().equals(step.condition())) {
        figures =
            Words.part(one.leftOut(), one.rows())
                + " rows were left out"
                + (one.unknown() == 0
                    ? ""
                    : ", "
                        + Words.count(one.unknown())
                        + " of them because something in it is null");
      }
    }
    add(
        "keep",
        "only rows of which "
            + step.condition()
            + " is true stay"
            + (step.leftOut() == null
                ? ""
                : "; the others are written to " + step.leftOut().shortName()),
        figures);
  }

  private void coalesce(Coalesce step) {
    String figures = "";
    for (StepFigures.Coalesced one : of(StepFigures.Coalesced.class)) {
      if (one.column().equals(step.column())) {
        List<String> parts =
            new ArrayList<>(
                one.taken().stream()
                    .map(share -> share.name() + " in " + Words.count(share.rows()))
                    .toList());
        parts.add("none of them in " + Words.rows(one.filled() + one.nulls()));
        figures = "taken from " + Wording.list(parts);
      }
    }
    add(
        step.column(),
        "the first of "
            + Wording.list(step.from())
            + " that is not null"
            + (step.fill() == null ? "" : ", else \"" + step.fill() + "\"")
            + (step.source() == null ? "" : "; " + step.source() + " says which"),
        figures);
  }

  /** How columns leave. */
  private void leaves() {
    Plan.Outputs outputs = plan.outputs();
    List<String> parts = new ArrayList<>();
    for (Plan.FormatSpec format : outputs.formats()) {
      parts.add(
          format.column()
              + " as "
              + (format.datePattern() != null
                  ? "a date written " + format.datePattern()
                  : format.example() != null
                      ? "a number written like " + format.example()
                      : "a number with " + format.decimals() + " decimals"));
    }
    outputs.rename().forEach((name, as) -> parts.add(name + " called " + as));
    if (!outputs.dropColumns().isEmpty()) {
      parts.add("without " + Wording.list(outputs.dropColumns()));
    }
    if (outputs.guardsFormulas()) {
      parts.add("with an apostrophe before what a spreadsheet would take for a formula");
    }
    if (!parts.isEmpty()) {
      add("output", "the rows leave " + Wording.list(parts), "");
    }
  }

  private void rollups() {
    for (Plan.RollupSpec rollup : plan.outputs().rollups()) {
      add(
          "totals",
          (rollup.by().isEmpty()
                  ? "all rows are totalled: "
                  : "the rows are totalled by " + Wording.list(rollup.by()) + ": ")
              + Wording.list(rollup.totals())
              + (rollup.having() == null ? "" : "; only groups with " + rollup.having())
              + (rollup.order().isEmpty() ? "" : "; ordered by " + Wording.list(rollup.order()))
              + (rollup.top() > 0 ? "; the first " + rollup.top() : "")
              + (rollup.file() == null ? "" : "; written to " + rollup.file().shortName()),
          "");
    }
  }

  private void controls() {
    Plan.Controls controls = plan.controls();
    List<String> parts = new ArrayList<>();
    controls
        .matched()
        .forEach(
            (name, least) ->
                parts.add(
                    (least.compareTo(BigDecimal.valueOf(100)) < 0 ? "at least " : "")
                        + least.toPlainString()
                        + " % of the rows match in "
                        + name));
    if (!controls.totals().isEmpty()) {
      parts.add(
          "the totals of " + Wording.list(controls.totals()) + " are the same before and after");
    }
    if (controls.rows() != null) {
      parts.add(
          controls.rows().equals("same")
              ? "as many rows come out as go in"
              : controls.rows() + " rows come out");
    }
    if (!controls.unique().isEmpty()) {
      parts.add("no key of " + Wording.list(controls.unique()) + " stands on several rows");
    }
    controls
        .nulls()
        .forEach(
            (column, most) ->
                parts.add(
                    column + " is null in at most " + most.toPlainString() + " % of the rows"));
    controls.that().forEach(condition -> parts.add("it is true that " + condition));
    if (parts.isEmpty()) {
      return;
    }
    String figures = "";
    if (run != null) {
      long failed = run.controls().stream().filter(control -> !control.holds()).count();
      figures =
          failed == 0
              ? "all of it holds"
              : run.controls().size() == 1
                  ? "the control does not hold"
                  : failed
                      + " of "
                      + run.controls().size()
                      + (failed == 1 ? " controls does" : " controls do")
                      + " not hold";
    }
    add("controls", "it must hold that " + String.join("; that ", parts), figures);
  }

  private <F extends StepFigures> List<F> of(Class<F> kind) {
    return run == null ? List.of() : run.of(kind);
  }
}
