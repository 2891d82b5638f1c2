package org.abletwine.cli;

import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.tell.Words;

/** What the plan expects, with figure and limit. */
final class ControlLines {
  private ControlLines() {}

  static void lines(RunRecord run, boolean colour, List<String> lines) {
    if (run.controls().isEmpty()) {
      return;
    }
    long failed = run.controls().stream().filter(one -> !one.holds()).count();
    lines.add("");
    lines.add(
        Ink.BOLD.on("Controls", colour)
            + ": "
            + (failed == 0
                ? Ink.GOOD.on("all " + run.controls().size() + " hold", colour)
                : Ink.BAD.on(failed + " of " + run.controls().size() + " do not hold", colour)));
    TextTable table = new TextTable("llll");
    for (RunRecord.Control one : run.controls()) {
      table
          .cell(one.holds() ? "holds" : "FAILS", one.holds() ? Ink.GOOD : Ink.BAD)
          .cell(one.what())
          .cell(Words.grouped(one.figure()))
          .cell("expected " + Words.grouped(one.limit()), Ink.DIM)
          .end();
    }
    lines.addAll(table.render(colour));
  }
}
