package org.abletwine.cli;

import java.math.BigDecimal;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Outcome;
import org.abletwine.plan.tell.Words;

/** The measure's total for each outcome of each lookup. */
final class MeasureTable {
  private MeasureTable() {}

  static void lines(RunRecord run, boolean colour, List<String> lines) {
    if (run.lookups().stream().allMatch(lookup -> lookup.measures().isEmpty())) {
      return;
    }
    lines.add("");
    lines.add(
        Ink.BOLD.on("The measure's total", colour)
            + ", by outcome"
            + (run.measure().isEmpty() ? "" : ": " + run.measure()));
    TextTable table = new TextTable("lrrrr" + (RunSummary.someRowsOnly(run) ? "r" : ""));
    for (String heading :
        new String[] {"lookup", "matched", "unmatched", "ambiguous", "blank key"}) {
      table.cell(heading, Ink.DIM);
    }
    int told = Outcome.values().length - (RunSummary.someRowsOnly(run) ? 0 : 1);
    if (told == Outcome.values().length) {
      table.cell("not asked", Ink.DIM);
    }
    table.end();
    for (LookupFigures lookup : run.lookups()) {
      table.cell(lookup.name(), Ink.BOLD);
      for (int outcome = 0; outcome < Math.min(told, lookup.measures().size()); outcome++) {
        BigDecimal total = lookup.measures().get(outcome);
        Ink ink = total.signum() == 0 ? Ink.DIM : outcome == 0 ? Ink.GOOD : Ink.WARN;
        table.cell(Words.number(total), ink);
      }
      table.end();
    }
    lines.addAll(table.render(colour));
  }
}
