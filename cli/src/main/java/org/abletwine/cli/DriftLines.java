package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.plan.drift.Change;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.tell.Words;

/** What changed between two runs, as lines. */
final class DriftLines {
  private static final int MOST_PLAN_LINES = 12;
  private static final int MOST_EXAMPLES = 6;
  private static final int DAY_AND_MINUTE = 16;

  private final Drift drift;
  private final boolean colour;
  private final List<String> lines = new ArrayList<>();

  private DriftLines(Drift drift, boolean colour) {
    this.drift = drift;
    this.colour = colour;
  }

  /**
   * @param limited whether limits were stated
   */
  static List<String> of(Drift drift, boolean limited, boolean colour) {
    DriftLines lines = new DriftLines(drift, colour);
    lines.lines.addAll(
        Screen.line(
            Ink.BOLD.on(drift.title(), colour)
                + ": the run of "
                + when(drift.before())
                + " and that of "
                + when(drift.after())));
    lines.verdict(limited);
    lines.inputs();
    lines.plan();
    lines.changes();
    return lines.lines;
  }

  /** As a part of something else, such as the summary of the later run. */
  static List<String> part(Drift drift, boolean colour) {
    DriftLines lines = new DriftLines(drift, colour);
    lines.lines.add("");
    lines.lines.add(Ink.BOLD.on("Since the run of " + when(drift.before()), colour));
    lines.inputs();
    lines.plan();
    lines.changes();
    return lines.lines;
  }

  private static String when(String instant) {
    return instant.length() < DAY_AND_MINUTE
        ? instant
        : instant.substring(0, DAY_AND_MINUTE).replace('T', ' ') + " UTC";
  }

  private void verdict(boolean limited) {
    if (!limited) {
      return;
    }
    long beyond = drift.changes().stream().filter(one -> !one.beyond().isEmpty()).count();
    lines.add(
        beyond == 0
            ? Ink.GOOD.on("Nothing is beyond what is allowed", colour)
            : Ink.BAD.on(
                beyond + (beyond == 1 ? " change is" : " changes are") + " beyond what is allowed",
                colour));
  }

  private void inputs() {
    lines.add("");
    lines.add(Ink.BOLD.on("What went in", colour));
    TextTable table = new TextTable("llrrl");
    List<String> same = new ArrayList<>();
    for (Drift.Table one : drift.inputs()) {
      if (one.state().equals("same")) {
        same.add(one.name());
        continue;
      }
      table
          .cell(one.name(), Ink.BOLD)
          .cell(one.place())
          .cell(rows(one.rowsBefore()))
          .cell(rows(one.rowsAfter()))
          .cell(state(one), Ink.DIM)
          .end();
    }
    lines.addAll(table.render(colour));
    for (Change parameter : drift.parameters()) {
      lines.addAll(
          Screen.line(
              "  parameter "
                  + parameter.what()
                  + ": "
                  + named(parameter.before())
                  + " before, "
                  + named(parameter.after())
                  + " now"));
    }
    if (!same.isEmpty()) {
      lines.addAll(Screen.line("  the same, byte for byte: " + String.join(", ", same)));
    }
  }

  private static String named(String value) {
    return value.isEmpty() ? "none" : value;
  }

  private static String rows(long rows) {
    return rows < 0 ? "" : Words.count(rows);
  }

  private static String state(Drift.Table table) {
    return switch (table.state()) {
      case "new" -> "rows; new";
      case "gone" -> "rows; not read any more";
      case "unknown" -> "rows; no checksum to compare";
      default -> "rows";
    };
  }

  private void plan() {
    if (drift.plan().isEmpty()) {
      lines.add("  the plan is the same");
      return;
    }
    long gone = drift.plan().stream().filter(line -> line.startsWith("-")).count();
    lines.add(
        "  the plan has "
            + (drift.plan().size() - gone)
            + " new lines, and "
            + gone
            + " are gone:");
    for (String line : drift.plan().subList(0, Math.min(MOST_PLAN_LINES, drift.plan().size()))) {
      Ink ink = line.startsWith("-") ? Ink.BAD : Ink.GOOD;
      lines.add("    " + ink.on(Screen.shortened(Words.shown(line), Screen.width() - 4), colour));
    }
    if (drift.plan().size() > MOST_PLAN_LINES) {
      lines.add("    and " + (drift.plan().size() - MOST_PLAN_LINES) + " more; see --json");
    }
  }

  private void changes() {
    lines.add("");
    if (drift.changes().isEmpty()) {
      lines.add("Nothing came out differently");
      return;
    }
    lines.add(Ink.BOLD.on("What came out differently, what matters most first", colour));
    boolean beyond = !drift.holds();
    TextTable table = new TextTable(beyond ? "lllrrl" : "llrrl");
    table.cell("").cell("");
    if (beyond) {
      table.cell("");
    }
    table.cell("before", Ink.DIM).cell("now", Ink.DIM).end();
    for (Change one : drift.changes()) {
      if (beyond) {
        table.cell(one.beyond().isEmpty() ? "" : "BEYOND", Ink.BAD);
      }
      table
          .cell(one.area(), Ink.BOLD)
          .cell(one.what())
          .cell(Words.grouped(one.before()))
          .cell(Words.grouped(one.after()))
          .cell(told(one), one.beyond().isEmpty() ? Ink.PLAIN : Ink.BAD)
          .end();
    }
    lines.addAll(table.render(colour));
  }

  private static String told(Change change) {
    StringBuilder told = new StringBuilder(Words.grouped(change.change()));
    if (!change.examples().isEmpty()) {
      List<String> some =
          change.examples().subList(0, Math.min(MOST_EXAMPLES, change.examples().size()));
      told.append(told.length() == 0 ? "" : ": ").append(String.join(", ", some));
      String all = change.before().isEmpty() ? change.after() : change.before();
      boolean more =
          change.examples().size() > some.size()
              || all.matches("\\d{1,9}") && Integer.parseInt(all) > some.size();
      told.append(more ? ", \u2026" : "");
    }
    if (!change.beyond().isEmpty()) {
      told.append(told.length() == 0 ? "" : "; ").append("allowed ").append(change.beyond());
    }
    return told.toString();
  }
}
