package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Outcome;
import org.abletwine.plan.tell.Closer;
import org.abletwine.plan.tell.Words;
import org.jspecify.annotations.Nullable;

/** What a person must know of a run, the most important first. */
final class BriefSummary {
  private static final int MOST_GROUPS = 5;

  private final RunRecord run;
  private final boolean colour;
  private final List<String> lines = new ArrayList<>();

  private BriefSummary(RunRecord run, boolean colour) {
    this.run = run;
    this.colour = colour;
  }

  static List<String> lines(RunRecord run, Closer closer, boolean colour) {
    BriefSummary summary = new BriefSummary(run, colour);
    summary.head();
    summary.controls();
    summary.lines.addAll(NeedsPerson.lines(run, closer, colour));
    summary.lookups();
    run.of(StepFigures.RolledUp.class).forEach(summary::rollup);
    return summary.lines;
  }

  /** For a preview: its first rows say nothing of what needs a person. */
  static List<String> ofPreview(RunRecord run, boolean colour) {
    BriefSummary summary = new BriefSummary(run, colour);
    summary.head();
    summary.lookups();
    return summary.lines;
  }

  /** Only what fails. */
  static List<String> quiet(RunRecord run, boolean colour) {
    BriefSummary summary = new BriefSummary(run, colour);
    if (!run.holds()) {
      summary.controls();
    }
    return summary.lines;
  }

  private void head() {
    boolean same = run.rowsIn() == run.rowsOut();
    lines.addAll(
        Screen.line(
            Ink.BOLD.on(run.title(), colour)
                + (run.title().equals(run.transactions()) ? "" : "  " + run.transactions())
                + ": "
                + (same
                    ? Words.rows(run.rowsIn()) + " in and out"
                    : Words.rows(run.rowsIn()) + " in, " + Words.count(run.rowsOut()) + " out")
                + ", "
                + Words.seconds(run.elapsed().toMillis())));
  }

  private void controls() {
    List<RunRecord.Control> failed = run.controls().stream().filter(one -> !one.holds()).toList();
    if (run.controls().isEmpty()) {
      return;
    }
    int all = run.controls().size();
    lines.add(
        failed.isEmpty()
            ? Ink.GOOD.on(
                all == 1
                    ? "The control holds"
                    : (all == 2 ? "Both" : "All " + all) + " controls hold",
                colour)
            : Ink.BAD.on(
                failed.size()
                    + " of "
                    + all
                    + (all == 1 ? " control does" : " controls")
                    + (all == 1 ? "" : failed.size() == 1 ? " does" : " do")
                    + " not hold",
                colour));
    TextTable table = new TextTable("llll");
    for (RunRecord.Control one : failed) {
      table
          .cell("FAILS", Ink.BAD)
          .cell(one.what())
          .cell(Words.grouped(one.figure()))
          .cell("expected " + Words.grouped(one.limit()), Ink.DIM)
          .end();
    }
    lines.addAll(table.render(colour));
  }

  /** A line for each lookup; outcomes that no row has are left out. */
  private void lookups() {
    List<LookupFigures> all = run.lookups();
    if (all.isEmpty()) {
      return;
    }
    boolean unmatched = all.stream().anyMatch(one -> one.unmatched() > 0);
    boolean ambiguous = all.stream().anyMatch(one -> one.ambiguous() > 0);
    boolean blank = all.stream().anyMatch(one -> one.blankKey() > 0);
    boolean notAsked = all.stream().anyMatch(one -> one.notAsked() > 0);
    lines.add("");
    TextTable table =
        new TextTable(
            "llrr"
                + (unmatched ? "rr" : "")
                + (ambiguous ? "rr" : "")
                + (blank ? "rr" : "")
                + (notAsked ? "rr" : ""));
    table.cell("lookup", Ink.DIM).cell("key", Ink.DIM);
    heading(table, true, "matched");
    heading(table, unmatched, "unmatched");
    heading(table, ambiguous, "ambiguous");
    heading(table, blank, "blank key");
    heading(table, notAsked, "not asked");
    table.end();
    for (LookupFigures one : all) {
      table.cell(one.name(), Ink.BOLD).cell(one.key());
      outcome(table, true, one.matched(), one.rows(), Ink.GOOD);
      outcome(table, unmatched, one.unmatched(), one.rows(), ink(one, Outcome.UNMATCHED, Ink.BAD));
      outcome(table, ambiguous, one.ambiguous(), one.rows(), Ink.WARN);
      outcome(table, blank, one.blankKey(), one.rows(), ink(one, Outcome.BLANK_KEY, Ink.WARN));
      outcome(table, notAsked, one.notAsked(), one.rows(), Ink.DIM);
      table.end();
    }
    lines.addAll(table.render(colour));
  }

  /** What is expected catches no eye. */
  private static Ink ink(LookupFigures lookup, Outcome outcome, Ink ink) {
    return lookup.outcomes().expected().contains(outcome.label()) ? Ink.DIM : ink;
  }

  private static void heading(TextTable table, boolean shown, String name) {
    if (shown) {
      table.cell(name, Ink.DIM).cell("%", Ink.DIM);
    }
  }

  private static void outcome(TextTable table, boolean shown, long part, long whole, Ink ink) {
    if (shown) {
      String share = Words.percent(part, whole).replace(" %", "");
      table.cell(part == 0 ? "" : Words.count(part), ink).cell(part == 0 ? "" : share, ink);
    }
  }

  /** The first groups in their order, or those with the largest first total; the grand total. */
  private void rollup(StepFigures.RolledUp rollup) {
    int by = rollup.by().size();
    List<List<@Nullable String>> groups = rollup.groups();
    if (groups.size() > MOST_GROUPS) {
      groups = rollup.foremost(0, MOST_GROUPS, false);
    }
    lines.add("");
    lines.add(DerivedLines.heading(rollup, groups.size(), colour));
    TextTable table = DerivedLines.table(rollup);
    for (List<@Nullable String> group : groups) {
      DerivedLines.group(group, by, table);
    }
    DerivedLines.grandTotal(rollup, table);
    lines.addAll(table.render(colour));
  }
}
