package org.abletwine.cli;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Outcome;

/**
 * What of a run needs a person: rows that did not match, the largest measure at stake first, each
 * with the way to look closer, then whatever else was noticed.
 */
final class NeedsPerson {
  private static final int MOST = 8;

  /** Of these, lines that are left to what was noticed, if anything was. */
  private static final int ROOM_FOR_NOTES = 2;

  private static final Pattern OF_TEXT =
      Pattern.compile(".* (wildcard|contains|regex|starts-with) .*");

  private final RunRecord run;
  private final Closer closer;
  private final List<Need> needs = new ArrayList<>();

  /** Something to look at. */
  private record Need(BigDecimal stake, long rows, String what, Closer.Look look) {}

  private NeedsPerson(RunRecord run, Closer closer) {
    this.run = run;
    this.closer = closer;
  }

  static List<String> lines(RunRecord run, Closer closer, boolean colour) {
    NeedsPerson needs = new NeedsPerson(run, closer);
    needs.collect();
    return needs.lines(colour);
  }

  private void collect() {
    Set<String> brought = new HashSet<>();
    for (LookupFigures lookup : run.lookups()) {
      LookupFigures.Outcomes outcomes = lookup.outcomes();
      need(lookup, Outcome.UNMATCHED, outcomes.unmatched(), unmatched(lookup));
      need(lookup, Outcome.AMBIGUOUS, outcomes.ambiguous(), "fit several rows that disagree");
      if (!OF_TEXT.matcher(lookup.key()).matches()) {
        blank(lookup, brought);
      }
      lookup.attributes().forEach(attribute -> brought.add(attribute.column()));
    }
    needs.sort(
        Comparator.comparing(Need::stake, Comparator.reverseOrder())
            .thenComparing(Need::rows, Comparator.reverseOrder()));
  }

  private static String unmatched(LookupFigures lookup) {
    long left = lookup.outcomes().wouldMatch();
    if (left > 0) {
      return left == lookup.unmatched()
          ? "match only rows that where: leaves out"
          : "unmatched, " + RunSummary.count(left) + " match rows that where: leaves out";
    }
    if (lookup.misses().size() == 1) {
      return lookup.misses().get(0).kind();
    }
    return "unmatched";
  }

  /** A key that is blank in the transactions themselves; one brought before is their lookup's. */
  private void blank(LookupFigures lookup, Set<String> brought) {
    List<String> parts =
        lookup.blankParts().stream()
            .filter(part -> part.rows() > 0 && !brought.contains(part.name()))
            .map(LookupFigures.Share::name)
            .toList();
    if (!parts.isEmpty()) {
      need(lookup, Outcome.BLANK_KEY, lookup.blankKey(), "without " + String.join(" or ", parts));
    }
  }

  private void need(LookupFigures lookup, Outcome outcome, long rows, String what) {
    if (rows == 0 || lookup.outcomes().expected().contains(outcome.label())) {
      return;
    }
    int at = outcome.ordinal();
    BigDecimal stake =
        at < lookup.measures().size() ? lookup.measures().get(at).abs() : BigDecimal.ZERO;
    needs.add(
        new Need(
            stake,
            rows,
            lookup.name() + ": " + RunSummary.rows(rows) + " " + what,
            closer.look(lookup, outcome)));
  }

  /** What was noticed beside: the worst first. */
  private List<String> notes() {
    List<String> notes = new ArrayList<>(OtherNotes.of(run));
    for (LookupFigures lookup : run.lookups()) {
      for (String constant : lookup.constants()) {
        notes.add(
            lookup.name()
                + ": "
                + constant
                + " on every matched row; is this the right key and the right column?");
      }
    }
    return notes;
  }

  private List<String> lines(boolean colour) {
    List<String> lines = new ArrayList<>();
    List<String> notes = notes();
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
    for (Need need : needs.subList(0, shown)) {
      if (measured) {
        table.cell(Figures.number(need.stake()), Ink.WARN);
      }
      Closer.Look look = need.look();
      table.cell(need.what()).cell(look.command() ? "" : look.text(), Ink.DIM).end();
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
