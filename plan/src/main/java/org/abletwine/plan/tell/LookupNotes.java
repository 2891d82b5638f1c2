package org.abletwine.plan.tell;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;

/** What about a lookup a person should look at, in sentences. */
public final class LookupNotes {
  private LookupNotes() {}

  /** {@return what is to be said of a lookup} */
  public static List<String> of(LookupFigures lookup) {
    List<String> notes = new ArrayList<>();
    String where = lookup.name() + ": ";
    if (lookup.reference().conflictingKeys() > 0) {
      notes.add(
          where
              + several(lookup, lookup.reference().conflictingKeys())
              + (lookup.fits().byRule()
                  ? " and disagree on what is brought; "
                  : " that disagree on what is brought; ")
              + chosen(lookup));
    }
    if (lookup.reference().severalKeys() > lookup.reference().conflictingKeys()
        && lookup.reference().duplicatesDropped() == 0) {
      notes.add(
          where
              + several(
                  lookup, lookup.reference().severalKeys() - lookup.reference().conflictingKeys())
              + (lookup.fits().combined()
                  ? ", put together by the aggregates"
                  : lookup.fits().byRule()
                      ? " and agree, counted as one"
                      : " that agree, counted as one"));
    }
    if (lookup.fits().rowsIfEach() > lookup.rows()
        && lookup.reference().duplicatesDropped() == 0
        && lookup.fits().added() == 0) {
      notes.add(
          where
              + "some keys fit several rows; a row for each would make "
              + Words.count(lookup.fits().rowsIfEach())
              + " of "
              + Words.rows(lookup.rows()));
    }
    if (lookup.reference().blankKeys() > 0) {
      notes.add(
          where
              + Words.rows(lookup.reference().blankKeys())
              + " of "
              + lookup.reference().name()
              + " can never be found: a key part is blank");
    }
    if (lookup.reference().unreadable() > 0) {
      notes.add(
          where
              + Words.rows(lookup.reference().unreadable())
              + " of "
              + lookup.reference().name()
              + " left out, as a cell that puts them in order cannot be read");
    }
    if (lookup.reference().duplicatesDropped() > 0) {
      notes.add(
          where
              + Words.rows(lookup.reference().duplicatesDropped())
              + " of "
              + lookup.reference().name()
              + " left out by its rule for duplicates");
    }
    if (lookup.reference().collisions() > 0) {
      notes.add(
          where
              + Words.keys(lookup.reference().collisions())
              + " of "
              + lookup.reference().name()
              + " became equal only by normalising: "
              + lookup.reference().collisionExamples().get(0));
    }
    if (lookup.outcomes().wouldMatch() > 0) {
      notes.add(
          where
              + Words.rows(lookup.outcomes().wouldMatch())
              + " would match a row of "
              + lookup.reference().name()
              + " that its condition left out");
    }
    if (lookup.blankParts().size() > 1 && lookup.blankKey() > 0) {
      List<String> parts = new ArrayList<>();
      lookup.blankParts().stream()
          .filter(part -> part.rows() > 0)
          .forEach(part -> parts.add(part.name() + " in " + Words.rows(part.rows())));
      notes.add(where + "blank key part: " + String.join(", ", parts));
    }
    LookupFigures.Asked asked = lookup.asked();
    if (asked != null && asked.unknown() > 0) {
      notes.add(
          where
              + Words.rows(asked.unknown())
              + " not asked for because when: "
              + asked.when()
              + " is unknown there: a value it compares is null");
    }
    if (lookup.outcomes().dropped() > 0) {
      notes.add(where + Words.rows(lookup.outcomes().dropped()) + " left out, as the plan says");
    }

    LookupFigures.Spilled spilled = lookup.spilled();
    if (spilled != null) {
      notes.add(
          where
              + lookup.reference().name()
              + " did not fit in memory: divided into "
              + spilled.parts()
              + " parts, "
              + Words.bytes(spilled.bytes())
              + " on disk, "
              + LookupFigures.Spilled.READINGS
              + " readings of the transactions");
    }
    for (LookupFigures.Miss miss : lookup.misses()) {
      notes.add(
          where + Words.rows(miss.rows()) + " " + miss.kind() + ", such as " + miss.example());
    }
    LookupFigures.Distances distances = lookup.distances();
    if (distances != null) {
      notes.add(
          where
              + "what was brought is "
              + distances.median()
              + " away in the median, "
              + distances.greatest()
              + " at most");
    }
    for (String constant : lookup.constants()) {
      notes.add(
          where + constant + " on every matched row; is this the right key and the right column?");
    }
    if (lookup.fits().added() > 0) {
      notes.add(
          where
              + Words.rows(lookup.fits().added())
              + " more came out, one for each row of "
              + lookup.reference().name()
              + " that a key fits, as the plan says");
    }
    return notes;
  }

  /** Rows that one key or value fits: told as keys, or where a rule matches as places. */
  private static String several(LookupFigures lookup, long count) {
    return lookup.fits().byRule()
        ? "in "
            + Words.count(count)
            + (count == 1 ? " place" : " places")
            + " several rows of "
            + lookup.reference().name()
            + " fit"
        : Words.keys(count)
            + " of "
            + lookup.reference().name()
            + (count == 1 ? " stands" : " stand")
            + " on several rows";
  }

  private static String chosen(LookupFigures lookup) {
    if (lookup.fits().added() > 0) {
      return "each of them comes out";
    }
    return lookup.fits().picked() > 0
        ? "one was picked for " + Words.rows(lookup.fits().picked())
        : "nothing was picked for " + Words.rows(lookup.ambiguous());
  }
}
