package org.abletwine.plan;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.Plan.Controls;

/** Judges what a plan expects of a run. All are judged, whether or not one before holds. */
final class ControlJudge {
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
  private static final int PLACES = 2;

  private final Controls controls;
  private final Map<String, String> referenceOf;

  /**
   * @param controls what is expected
   * @param referenceOf the reference of each lookup
   */
  ControlJudge(Controls controls, Map<String, String> referenceOf) {
    this.controls = controls;
    this.referenceOf = referenceOf;
  }

  List<RunRecord.Control> judge(RunRecord run) {
    List<RunRecord.Control> judged = new ArrayList<>();
    controls.matched().forEach((lookup, least) -> matched(run, lookup, least, judged));
    controls.unique().forEach(reference -> unique(run, reference, judged));
    rows(run, judged);
    controls.totals().forEach(column -> total(run, column, judged));
    controls.nulls().forEach((column, most) -> nulls(run, column, most, judged));
    for (StepFigures.Judged that : run.of(StepFigures.Judged.class)) {
      judged.add(new RunRecord.Control("that", that.figure(), that.name(), that.holds()));
    }
    return judged;
  }

  private static void matched(
      RunRecord run, String name, BigDecimal least, List<RunRecord.Control> judged) {
    for (LookupFigures lookup : run.lookups()) {
      if (lookup.name().equals(name)) {
        long asked = lookup.rows() - lookup.notAsked();
        boolean holds = atLeast(lookup.matched(), asked, least);
        judged.add(
            new RunRecord.Control(
                "matched " + name,
                percent(lookup.matched(), asked),
                "at least " + least.toPlainString() + " %",
                holds));
      }
    }
  }

  /** Exact: a share is compared as a fraction, not as the rounded figure that is shown. */
  private static boolean atLeast(long part, long whole, BigDecimal least) {
    return BigDecimal.valueOf(part)
            .multiply(HUNDRED)
            .compareTo(least.multiply(BigDecimal.valueOf(whole)))
        >= 0;
  }

  private void unique(RunRecord run, String reference, List<RunRecord.Control> judged) {
    long several = 0;
    for (LookupFigures lookup : run.lookups()) {
      if (reference.equals(referenceOf.get(lookup.name()))) {
        several = Math.max(several, lookup.reference().severalKeys());
      }
    }
    judged.add(
        new RunRecord.Control(
            "unique " + reference,
            several + (several == 1 ? " key" : " keys") + " on several rows",
            "none",
            several == 0));
  }

  private void rows(RunRecord run, List<RunRecord.Control> judged) {
    String wanted = controls.rows();
    if (wanted != null) {
      long rows = wanted.equals("same") ? run.rowsIn() : Long.parseLong(wanted);
      judged.add(
          new RunRecord.Control(
              "rows", run.rowsOut() + " rows out", rows + " rows", run.rowsOut() == rows));
    }
  }

  private static void total(RunRecord run, String column, List<RunRecord.Control> judged) {
    BigDecimal before = null;
    BigDecimal after = null;
    long notNumbers = 0;
    for (StepFigures.Control total : run.of(StepFigures.Control.class)) {
      if (total.column().equals(column)) {
        before = total.when().equals(StepFigures.Control.BEFORE) ? total.total() : before;
        after = total.when().equals(StepFigures.Control.AFTER) ? total.total() : after;
        notNumbers = Math.max(notNumbers, total.notNumbers());
      }
    }
    if (before != null && after != null) {
      judged.add(
          new RunRecord.Control(
              "total " + column,
              after.toPlainString()
                  + " after"
                  + (notNumbers == 0
                      ? ""
                      : ", cells that are no numbers not counted: " + notNumbers),
              before.toPlainString() + " before",
              before.compareTo(after) == 0));
    }
  }

  private static void nulls(
      RunRecord run, String column, BigDecimal most, List<RunRecord.Control> judged) {
    for (StepFigures.Control total : run.of(StepFigures.Control.class)) {
      if (total.column().equals(column) && total.when().equals(StepFigures.Control.AFTER)) {
        boolean holds =
            BigDecimal.valueOf(total.nulls())
                    .multiply(HUNDRED)
                    .compareTo(most.multiply(BigDecimal.valueOf(total.rows())))
                <= 0;
        judged.add(
            new RunRecord.Control(
                "nulls " + column,
                percent(total.nulls(), total.rows()),
                "at most " + most.toPlainString() + " %",
                holds));
        return;
      }
    }
  }

  private static String percent(long part, long whole) {
    if (whole == 0) {
      return "no rows";
    }
    return BigDecimal.valueOf(part)
            .multiply(HUNDRED)
            .divide(BigDecimal.valueOf(whole), PLACES, RoundingMode.HALF_UP)
            .toPlainString()
        + " % ("
        + part
        + " of "
        + whole
        + ")";
  }
}
