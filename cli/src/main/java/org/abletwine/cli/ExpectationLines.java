package org.abletwine.cli;

import java.util.List;
import org.abletwine.figures.Expectation;
import org.abletwine.figures.RunRecord;

/** What the plan expects, with figure and limit. */
final class ExpectationLines {
  private ExpectationLines() {}

  static void lines(RunRecord run, boolean colour, List<String> lines) {
    if (run.expectations().isEmpty()) {
      return;
    }
    long failed = run.expectations().stream().filter(one -> !one.holds()).count();
    lines.add("");
    lines.add(
        Ink.BOLD.on("Expected", colour)
            + ": "
            + (failed == 0
                ? Ink.GOOD.on("all " + run.expectations().size() + " hold", colour)
                : Ink.BAD.on(
                    failed + " of " + run.expectations().size() + " do not hold", colour)));
    TextTable table = new TextTable("llll");
    for (Expectation one : run.expectations()) {
      table
          .cell(one.holds() ? "holds" : "FAILS", one.holds() ? Ink.GOOD : Ink.BAD)
          .cell(one.what())
          .cell(one.figure())
          .cell("expected " + one.limit(), Ink.DIM)
          .end();
    }
    lines.addAll(table.render(colour));
  }
}
