package org.abletwine.plan.tell;

import java.math.BigDecimal;
import java.util.ArrayList;
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
public final class Needs {
  private static final Pattern OF_TEXT =
      Pattern.compile(".* (wildcard|contains|regex|starts-with) .*");

  private final RunRecord run;
  private final Closer closer;
  private final List<Need> needs = new ArrayList<>();

  /**
   * Something to look at.
   *
   * @param stake the measure's total of its rows, without its sign; 0 where nothing is measured
   * @param rows its rows
   * @param lookup the lookup
   * @param what what is wrong with the rows, in words
   * @param look where to look closer
   */
  public record Need(BigDecimal stake, long rows, String lookup, String what, Closer.Look look) {}

  private Needs(RunRecord run, Closer closer) {
    this.run = run;
    this.closer = closer;
    collect();
  }

  /**
   * What needs a person.
   *
   * @param run the figures of a run
   * @param closer tells how to look closer
   */
  public static Needs of(RunRecord run, Closer closer) {
    return new Needs(run, closer);
  }

  /** {@return rows to look at, the largest measure first} */
  public List<Need> needs() {
    return List.copyOf(needs);
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
        (one, other) -> {
          int larger = other.stake().compareTo(one.stake());
          return larger != 0 ? larger : Long.compare(other.rows(), one.rows());
        });
  }

  private static String unmatched(LookupFigures lookup) {
    long left = lookup.outcomes().wouldMatch();
    if (left > 0) {
      return left == lookup.unmatched()
          ? "match only rows that where: leaves out"
          : "unmatched, " + Words.count(left) + " match rows that where: leaves out";
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
            lookup.name(),
            Words.rows(rows) + " " + what,
            closer.look(lookup, outcome)));
  }

  /** {@return what was noticed beside, the worst first} */
  public List<String> notes() {
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
}
