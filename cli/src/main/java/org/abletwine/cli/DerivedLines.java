package org.abletwine.cli;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.tell.Words;
import org.jspecify.annotations.Nullable;

/** What was made of the fetched columns: coalesced, computed, kept and rolled up. */
final class DerivedLines {
  private static final Pattern NUMBER = Pattern.compile("-?(0|[1-9][0-9]*)(\\.[0-9]+)?");

  private static final int MOST_GROUPS = 30;

  private DerivedLines() {}

  static void lines(RunRecord run, boolean colour, List<String> lines) {
    columns(run, colour, lines);
    List<StepFigures.Kept> kept = run.of(StepFigures.Kept.class);
    if (!kept.isEmpty()) {
      lines.add("");
      lines.add(Ink.BOLD.on("Kept", colour));
    }
    for (StepFigures.Kept keep : kept) {
      lines.add(
          "  rows with "
              + keep.condition()
              + ": "
              + Words.count(keep.rows() - keep.leftOut())
              + " kept, "
              + Words.rows(keep.leftOut())
              + " left out"
              + (keep.unknown() == 0
                  ? ""
                  : ", " + Words.count(keep.unknown()) + " of them because of a null"));
    }
    for (StepFigures.RolledUp rollup : run.of(StepFigures.RolledUp.class)) {
      rollup(rollup, colour, lines);
    }
  }

  private static void columns(RunRecord run, boolean colour, List<String> lines) {
    List<StepFigures.Coalesced> coalesced = run.of(StepFigures.Coalesced.class);
    List<StepFigures.Computed> computed = run.of(StepFigures.Computed.class);
    if (coalesced.isEmpty() && computed.isEmpty()) {
      return;
    }
    lines.add("");
    lines.add(Ink.BOLD.on("Made of these", colour) + ", and why what is null is null");
    TextTable table = new TextTable("lrl");
    for (StepFigures.Coalesced one : coalesced) {
      List<String> parts = new ArrayList<>();
      one.taken().forEach(s -> parts.add(Words.count(s.rows()) + " " + s.name()));
      if (one.filled() > 0) {
        parts.add(Words.count(one.filled()) + " filled");
      }
      line(table, one.column(), one.nulls(), String.join(" + ", parts));
    }
    for (StepFigures.Computed one : computed) {
      List<String> parts = new ArrayList<>();
      one.reasons().forEach(s -> parts.add(Words.count(s.rows()) + " " + s.name()));
      if (one.errors() > 0) {
        parts.add(Words.count(one.errors()) + " errors, such as " + one.errorExample());
      }
      line(table, one.column(), one.nulls(), String.join(" + ", parts));
    }
    lines.addAll(table.render(colour));
  }

  private static void line(TextTable table, String column, long nulls, String detail) {
    table
        .cell(column, Ink.BOLD)
        .cell(Words.count(nulls) + " null", nulls == 0 ? Ink.DIM : Ink.WARN)
        .cell(detail)
        .end();
  }

  private static void rollup(StepFigures.RolledUp rollup, boolean colour, List<String> lines) {
    int shown = Math.min(MOST_GROUPS, rollup.groups().size());
    lines.add("");
    lines.add(heading(rollup, rollup.groups().size(), colour));
    TextTable table = table(rollup);
    for (List<String> group : rollup.groups().subList(0, shown)) {
      group(group, rollup.by().size(), table);
    }
    grandTotal(rollup, table);
    lines.addAll(table.render(colour));
    if (shown < rollup.groups().size()) {
      lines.add("  and " + (rollup.groups().size() - shown) + " more groups");
    }
  }

  /** What a rollup is of, and how many of its groups are told. */
  static String heading(StepFigures.RolledUp rollup, long told, boolean colour) {
    boolean some = told < rollup.allGroups();
    String of = " of " + Words.count(rollup.allGroups()) + " groups";
    String which = "";
    if (!rollup.order().isEmpty()) {
      which =
          ", ordered by "
              + String.join(", ", rollup.order())
              + (some ? ": the first " + Words.count(told) + of : "");
    } else if (told < rollup.groups().size()) {
      which = ": the " + Words.count(told) + " largest" + of;
    } else if (some) {
      which = ": " + Words.count(told) + of + ", as having says";
    }
    return Ink.BOLD.on("Totals", colour)
        + (rollup.by().isEmpty() ? " of all rows" : " by " + String.join(", ", rollup.by()))
        + which;
  }

  /** A table with the columns of a rollup. */
  static TextTable table(StepFigures.RolledUp rollup) {
    TextTable table =
        new TextTable("l".repeat(rollup.by().size()) + "r".repeat(rollup.totals().size()));
    rollup.by().forEach(name -> table.cell(name, Ink.DIM));
    rollup.totals().forEach(name -> table.cell(name, Ink.DIM));
    table.end();
    return table;
  }

  /** Adds the line of a group, whose first cells are what it is of. */
  static void group(List<@Nullable String> group, int by, TextTable table) {
    for (int i = 0; i < group.size(); i++) {
      String value = group.get(i);
      table.cell(
          value == null ? (i < by ? "(none)" : "null") : i < by ? value : number(value),
          value == null ? Ink.WARN : Ink.PLAIN);
    }
    table.end();
  }

  /** Adds the line of all groups, where the rollup has one. */
  static void grandTotal(StepFigures.RolledUp rollup, TextTable table) {
    if (rollup.grandTotal().isEmpty() || rollup.by().isEmpty()) {
      return;
    }
    for (int i = 0; i < rollup.by().size(); i++) {
      table.cell(i == 0 ? "all" : "", Ink.BOLD);
    }
    for (String value : rollup.grandTotal()) {
      table.cell(value == null ? "null" : number(value), Ink.BOLD);
    }
    table.end();
  }

  /** A total; the least and greatest of text, dates and codes stay as they are. */
  private static String number(String value) {
    return NUMBER.matcher(value).matches() ? Words.number(new BigDecimal(value)) : value;
  }
}
