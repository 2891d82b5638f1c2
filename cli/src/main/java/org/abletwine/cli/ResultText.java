package org.abletwine.cli;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import org.abletwine.plan.PlanCloser;
import org.abletwine.plan.PlannedRun;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.tell.Words;

/** What came of a run of a plan, as a text for whoever prints it elsewhere. */
public final class ResultText {
  private ResultText() {}

  /**
   * The figures as a person reads them, without colours.
   *
   * @param result what was written
   * @param plan the plan, as it was named
   * @param drafts whether the plan writes a draft of corrections
   * @param all whether every figure is wanted
   * @param quiet whether only what fails is wanted
   */
  public static String of(
      PlannedRun.Result result, String plan, boolean drafts, boolean all, boolean quiet) {
    ByteArrayOutputStream text = new ByteArrayOutputStream();
    Detail detail = quiet ? Detail.QUIET : all ? Detail.ALL : Detail.MAIN;
    try (PrintStream out = new PrintStream(text, true, StandardCharsets.UTF_8)) {
      Results.print(
          out,
          false,
          new Results.Ran(
              result.record(), result.enriched(), result.form(), result.bytes(), result.others()),
          new Results.Telling(detail, PlanCloser.of(plan, drafts), false));
    }
    return text.toString(StandardCharsets.UTF_8);
  }

  /** The whole account as JSON; that of the figures where there is no other. */
  public static String json(PlannedRun.Result result) {
    return Words.json(
        result.account() == null ? RunJson.text(result.record()) : RunJson.text(result.account()));
  }
}
