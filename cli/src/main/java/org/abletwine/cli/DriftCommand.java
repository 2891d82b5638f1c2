package org.abletwine.cli;

import java.nio.file.Path;
import java.util.List;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.drift.DriftJson;
import org.abletwine.plan.drift.Limits;
import org.abletwine.plan.tell.Words;

/** What changed between two runs. */
final class DriftCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "drift",
              "Compares the records of two runs: what went in, the plan, and what came out differently,"
                  + " what matters most first. Ends with status 3 when a change is beyond --allow.")
          .asStated()
          .examples(
              "  able-twine drift out/intake-2026-07.json out/intake-2026-08.json",
              "  able-twine drift july.json august.json --allow matched=0.5 --allow unmatched-keys=20");

  private static final int BEYOND = 3;

  private final Given<Path> before =
      usage.argument("OLD", Path.class, "The record of the earlier run.");

  private final Given<Path> after =
      usage.argument("NEW", Path.class, "The record of the later run.");

  private final Given<List<String>> allow =
      usage.options(
          "--allow",
          "FIGURE=N",
          "How far a figure may change; all may change by anything unless stated. Figures:"
              + " matched (points that the share of matched rows may fall by), nulls (points that the"
              + " nulls of a column may rise by), unmatched-keys (new ones), duplicates (new keys on"
              + " several rows), rows (per cent), totals (per cent, for each row), controls (that do"
              + " not hold any more), plan (lines changed).",
          "matched.growers=2 is for one lookup, nulls.price=0 for one column.");

  private final Given<Boolean> json = usage.flag("--json", "Print the changes as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    Drift drift = Drift.between(before.get(), after.get(), Limits.of(allow.get()));
    if (json.get()) {
      System.out.println(Words.json(DriftJson.text(drift)));
    } else {
      DriftLines.of(drift, !allow.get().isEmpty(), Ink.colour()).forEach(System.out::println);
    }
    return drift.holds() ? 0 : BEYOND;
  }
}
