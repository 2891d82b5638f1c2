package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.drift.DriftJson;
import org.abletwine.plan.drift.Limits;
import org.abletwine.plan.tell.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What changed between two runs. */
@Command(
    name = "drift",
    mixinStandardHelpOptions = true,
    sortOptions = false,
    description =
        "Compares the records of two runs: what went in, the plan, and what came out differently,"
            + " what matters most first. Ends with status 3 when a change is beyond --allow.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine drift out/intake-2026-07.json out/intake-2026-08.json",
      "  able-twine drift july.json august.json --allow matched=0.5 --allow unmatched-keys=20"
    })
final class DriftCommand implements Callable<Integer> {
  private static final int BEYOND = 3;

  @Parameters(index = "0", paramLabel = "OLD", description = "The record of the earlier run.")
  private Path before;

  @Parameters(index = "1", paramLabel = "NEW", description = "The record of the later run.")
  private Path after;

  @Option(
      names = "--allow",
      paramLabel = "FIGURE=N",
      description = {
        "How far a figure may change; all may change by anything unless stated. Figures:"
            + " matched (points that the share of matched rows may fall by), nulls (points that the"
            + " nulls of a column may rise by), unmatched-keys (new ones), duplicates (new keys on"
            + " several rows), rows (per cent), totals (per cent, for each row), controls (that do"
            + " not hold any more), plan (lines changed).",
        "matched.growers=2 is for one lookup, nulls.price=0 for one column."
      })
  private List<String> allow = new ArrayList<>();

  @Option(names = "--json", description = "Print the changes as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    Drift drift = Drift.between(before, after, Limits.of(allow));
    if (json) {
      System.out.println(Words.json(DriftJson.text(drift)));
    } else {
      DriftLines.of(drift, !allow.isEmpty(), Ink.colour()).forEach(System.out::println);
    }
    return drift.holds() ? 0 : BEYOND;
  }
}
