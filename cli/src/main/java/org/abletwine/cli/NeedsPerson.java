package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.tell.Closer;
import org.abletwine.plan.tell.Needs;
import org.abletwine.plan.tell.Words;

/** What of a run needs a person, as lines: at most eight, with the way to look closer. */
final class NeedsPerson {
  private static final int MOST = 8;

  /** Of these, lines that are left to what was noticed, if anything was. */
  private static final int ROOM_FOR_NOTES = 2;

  private NeedsPerson() {}

  static List<String> lines(RunRecord run, Closer closer, boolean colour) {
    Needs found = Needs.of(run, closer);
    List<Needs.Need> needs = found.needs();
    List<String> notes = found.notes();
    List<String> lines = new ArrayList<>();
    if (needs.isEmpty() && notes.isEmpty()) {
      return lines;
    }
    boolean measured = !run.measure().isEmpty();
    lines.add("");
    String one = needs.isEmpty() ? "" : closer.one();
    lines.addAll(
        Screen.line(
            Ink.BOLD.on("Needs a person", colour)
                + (measured && !needs.isEmpty() ? ", most " + run.measure() + " first" : "")
                + (one.isEmpty() ? "" : " (" + one + ")")));
    TextTable table = new TextTable(measured ? "rll" : "ll");
    List<String> commands = new ArrayList<>();
    int shown = Math.min(MOST - Math.min(ROOM_FOR_NOTES, notes.size()), needs.size());
    for (Needs.Need need : needs.subList(0, shown)) {
      if (measured) {
        table.cell(Words.number(need.stake()), Ink.WARN);
      }
      Closer.Look look = need.look();
      table
          .cell(need.lookup() + ": " + need.what())
          .cell(look.command() ? "" : look.text(), Ink.DIM)
          .end();
      if (look.command()) {
        commands.add(Ink.DIM.on("      " + look.text(), colour));
      }
    }
    lines.addAll(table.render(colour));
    lines.addAll(commands);
    int free = Math.min(MOST - shown, notes.size());
    notes.subList(0, free).forEach(note -> lines.addAll(Screen.line("  " + note)));
    int more = needs.size() - shown + notes.size() - free;
    if (more > 0) {
      lines.add(Ink.DIM.on("  and " + more + " more: --figures all", colour));
    }
    return lines;
  }
}
