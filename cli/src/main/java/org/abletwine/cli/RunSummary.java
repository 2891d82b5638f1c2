package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.tell.LookupNotes;
import org.abletwine.plan.tell.OtherNotes;
import org.abletwine.plan.tell.Words;

/** The figures of a run, to be read at a glance on a terminal. */
final class RunSummary {
  private static final int WIDEST_KEY = 46;

  private final RunRecord run;
  private final boolean colour;

  /** Whether any lookup is for some rows only: else nothing is told of rows not asked for. */
  private final boolean someRows;

  private final List<String> lines = new ArrayList<>();

  private RunSummary(RunRecord run, boolean colour) {
    this.run = run;
    this.colour = colour;
    this.someRows = someRowsOnly(run);
  }

  /**
   * @param run the account of a run
   * @param colour whether to use colour
   * @return the lines to print
   */
  static List<String> lines(RunRecord run, boolean colour) {
    RunSummary summary = new RunSummary(run, colour);
    summary.head();
    summary.corrections();
    summary.outcomes();
    MeasureTable.lines(run, colour, summary.lines);
    summary.matchedBy();
    summary.nulls();
    DerivedLines.lines(run, colour, summary.lines);
    summary.notes();
    ControlLines.lines(run, colour, summary.lines);
    return summary.lines.stream().flatMap(line -> Screen.line(line).stream()).toList();
  }

  static boolean someRowsOnly(RunRecord run) {
    return run.lookups().stream().anyMatch(lookup -> lookup.asked() != null);
  }

  private void head() {
    lines.add(Ink.BOLD.on(run.title(), colour) + "  (" + run.transactions() + ")");
    String change = run.rowsOut() == run.rowsIn() ? "" : signed(run.rowsOut() - run.rowsIn());
    lines.add(
        "  rows in "
            + Words.count(run.rowsIn())
            + "   rows out "
            + Words.count(run.rowsOut())
            + change
            + "   time "
            + Words.seconds(run.elapsed().toMillis())
            + "   "
            + Words.count(Math.round(run.rowsPerSecond()))
            + " rows a second");
  }

  /** Says which references and totals were on disk; empty where all fitted in memory. */
  static List<String> onDisk(RunRecord run) {
    List<String> names = new ArrayList<>();
    for (LookupFigures lookup : run.lookups()) {
      LookupFigures.Spilled spilled = lookup.spilled();
      if (spilled != null) {
        names.add(lookup.name() + " (" + Words.bytes(spilled.bytes()) + ")");
      }
    }
    for (StepFigures.RolledUp rollup : run.of(StepFigures.RolledUp.class)) {
      if (rollup.onDisk() > 0) {
        names.add(
            (rollup.by().isEmpty() ? "totals" : "totals by " + String.join(", ", rollup.by()))
                + " ("
                + Words.bytes(rollup.onDisk())
                + ")");
      }
    }
    return names.isEmpty()
        ? List.of()
        : Screen.line(
            "On disk, since it did not fit in memory, which takes longer: "
                + String.join(", ", names)
                + "; --memory gives more");
  }

  /** Says which columns the run kept private; empty where none was. */
  static List<String> kept(RunRecord run) {
    String kept = Words.keptPrivate(run);
    return kept.isEmpty() ? List.of() : Screen.line(kept);
  }

  private static String shortened(String key) {
    return key.length() <= WIDEST_KEY ? key : key.substring(0, WIDEST_KEY - 3) + "...";
  }

  private static String signed(long change) {
    return " (" + (change > 0 ? "+" : "-") + Words.count(Math.abs(change)) + ")";
  }

  private void outcomes() {
    if (run.lookups().isEmpty()) {
      return;
    }
    lines.add("");
    lines.add(
        Ink.BOLD.on("Lookups", colour)
            + ": matched + unmatched + ambiguous + blank key"
            + (someRows ? " + not asked" : "")
            + " = rows");
    TextTable table = new TextTable((someRows ? "l" : "ll") + "rrrrrrrrr" + (someRows ? "rr" : ""));
    for (String heading : someRows ? List.of("lookup", "rows") : List.of("lookup", "key", "rows")) {
      table.cell(heading, Ink.DIM);
    }
    for (String heading : List.of("matched", "unmatched", "ambiguous", "blank key")) {
      table.cell(heading, Ink.DIM).cell("%", Ink.DIM);
    }
    if (someRows) {
      table.cell("not asked", Ink.DIM).cell("%", Ink.DIM);
    }
    table.end();
    for (LookupFigures lookup : run.lookups()) {
      table.cell(lookup.name(), Ink.BOLD);
      if (!someRows) { // there is no room for both
        table.cell(shortened(lookup.key()));
      }
      table.cell(Words.count(lookup.rows()));
      share(table, lookup.matched(), lookup.rows(), Ink.GOOD);
      share(table, lookup.unmatched(), lookup.rows(), Ink.BAD);
      share(table, lookup.ambiguous(), lookup.rows(), Ink.WARN);
      share(table, lookup.blankKey(), lookup.rows(), Ink.WARN);
      if (someRows) {
        share(table, lookup.notAsked(), lookup.rows(), Ink.DIM);
      }
      table.end();
    }
    lines.addAll(table.render(colour));
  }

  private void corrections() {
    for (StepFigures.Corrected correction : run.corrections()) {
      lines.add(
          "  corrected "
              + correction.column()
              + " in "
              + Words.rows(correction.changed())
              + ", with "
              + correction.table()
              + ": "
              + (correction.lines() - correction.unused())
              + " of "
              + correction.lines()
              + " lines used"
              + (correction.unused() == 0
                  ? ""
                  : "; "
                      + Words.count(correction.unused())
                      + " never used, such as "
                      + correction.unusedExamples().get(0)));
    }
  }

  /** How many rows matched as written, and how many more thanks to each step in turn. */
  private void matchedBy() {
    boolean any =
        run.lookups().stream()
            .anyMatch(l -> l.matchedBy().stream().skip(1).anyMatch(s -> s.rows() > 0));
    if (!any) {
      return;
    }
    lines.add("");
    lines.add(
        Ink.BOLD.on("Matched", colour)
            + ": as written + thanks to each normalise step, and each reference tried otherwise, in turn");
    TextTable table = new TextTable("ll");
    for (LookupFigures lookup : run.lookups()) {
      List<String> parts = new ArrayList<>();
      for (LookupFigures.Share share : lookup.matchedBy()) {
        parts.add(Words.count(share.rows()) + " " + share.name());
      }
      if (lookup.matchedBy().stream().skip(1).anyMatch(s -> s.rows() > 0)) {
        table.cell(lookup.name(), Ink.BOLD).cell(String.join(" + ", parts)).end();
      }
    }
    lines.addAll(table.render(colour));
  }

  private static void share(TextTable table, long part, long whole, Ink ink) {
    Ink used = part == 0 ? Ink.DIM : ink;
    table.cell(Words.count(part), used).cell(Words.percent(part, whole).replace(" %", ""), used);
  }

  private void nulls() {
    if (run.lookups().stream().allMatch(lookup -> lookup.attributes().isEmpty())) {
      return;
    }
    lines.add("");
    lines.add(
        Ink.BOLD.on("Nulls", colour)
            + ": unmatched + ambiguous + blank key"
            + (someRows ? " + not asked" : "")
            + " + empty in the reference - filled = left null");
    TextTable table = new TextTable("llrrrrrr" + (someRows ? "r" : ""));
    for (String heading : List.of("attribute", "from", "unmatched", "ambiguous", "blank key")) {
      table.cell(heading, Ink.DIM);
    }
    if (someRows) {
      table.cell("not asked", Ink.DIM);
    }
    for (String heading : List.of("empty", "filled", "left null")) {
      table.cell(heading, Ink.DIM);
    }
    table.end();
    for (LookupFigures lookup : run.lookups()) {
      for (LookupFigures.Attribute attribute : lookup.attributes()) {
        table.cell(attribute.column()).cell(lookup.reference().name(), Ink.DIM);
        number(table, attribute.unmatched(), Ink.PLAIN);
        number(table, attribute.ambiguous(), Ink.PLAIN);
        number(table, attribute.blankKey(), Ink.PLAIN);
        if (someRows) {
          number(table, attribute.notAsked(), Ink.PLAIN);
        }
        number(table, attribute.empty(), Ink.PLAIN);
        number(table, attribute.filled(), Ink.GOOD);
        number(table, attribute.nulls(), Ink.WARN);
        table.end();
      }
    }
    lines.addAll(table.render(colour));
  }

  private static void number(TextTable table, long value, Ink ink) {
    table.cell(Words.count(value), value == 0 ? Ink.DIM : ink);
  }

  private void notes() {
    List<String> notes = new ArrayList<>();
    run.lookups().forEach(lookup -> notes.addAll(LookupNotes.of(lookup)));
    notes.addAll(OtherNotes.of(run));
    if (!notes.isEmpty()) {
      lines.add("");
      lines.add(Ink.BOLD.on("Worth a look", colour));
      notes.forEach(note -> lines.addAll(Screen.line("  " + note)));
    }
  }
}
