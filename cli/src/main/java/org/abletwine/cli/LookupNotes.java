package org.abletwine.cli;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;

/** What about a lookup a person should look at, in sentences. */
final class LookupNotes {
  private LookupNotes() {}

  static List<String> of(LookupFigures lookup) {
    List<String> notes = new ArrayList<>();
    String where = lookup.name() + ": ";
    if (lookup.conflictingKeys() > 0) {
      notes.add(
          where
              + several(lookup, lookup.conflictingKeys())
              + (lookup.byRule()
                  ? " and disagree on what is brought; "
                  : " that disagree on what is brought; ")
              + chosen(lookup));
    }
    if (lookup.severalKeys() > lookup.conflictingKeys() && lookup.duplicatesDropped() == 0) {
      notes.add(
          where
              + several(lookup, lookup.severalKeys() - lookup.conflictingKeys())
              + (lookup.combined()
                  ? ", put together by the aggregates"
                  : lookup.byRule()
                      ? " and agree, counted as one"
                      : " that agree, counted as one"));
    }
    if (lookup.rowsIfExpanded() > lookup.rows()
        && lookup.duplicatesDropped() == 0
        && lookup.expanded() == 0) {
      notes.add(
          where
              + "some keys fit several rows; a row for each would make "
              + RunSummary.count(lookup.rowsIfExpanded())
              + " of "
              + RunSummary.rows(lookup.rows()));
    }
    if (lookup.referenceBlankKeys() > 0) {
      notes.add(
          where
              + RunSummary.rows(lookup.referenceBlankKeys())
              + " of "
              + lookup.reference()
              + " can never be found: a key part is blank");
    }
    if (lookup.duplicatesDropped() > 0) {
      notes.add(
          where
              + RunSummary.rows(lookup.duplicatesDropped())
              + " of "
              + lookup.reference()
              + " left out by its rule for duplicates");
    }
    if (lookup.collisions() > 0) {
      notes.add(
          where
              + RunSummary.keys(lookup.collisions())
              + " of "
              + lookup.reference()
              + " became equal only by normalising: "
              + lookup.collisionExamples().get(0));
    }
    if (lookup.wouldMatch() > 0) {
      notes.add(
          where
              + RunSummary.rows(lookup.wouldMatch())
              + " would match a row of "
              + lookup.reference()
              + " that its condition left out");
    }
    if (lookup.blankParts().size() > 1 && lookup.blankKey() > 0) {
      List<String> parts = new ArrayList<>();
      lookup.blankParts().stream()
          .filter(part -> part.rows() > 0)
          .forEach(part -> parts.add(part.name() + " in " + RunSummary.rows(part.rows())));
      notes.add(where + "blank key part: " + String.join(", ", parts));
    }
    if (lookup.dropped() > 0) {
      notes.add(where + RunSummary.rows(lookup.dropped()) + " left out, as the plan says");
    }

    for (LookupFigures.Miss miss : lookup.misses()) {
      notes.add(
          where + RunSummary.rows(miss.rows()) + " " + miss.kind() + ", such as " + miss.example());
    }
    for (String constant : lookup.constants()) {
      notes.add(
          where + constant + " on every matched row; is this the right key and the right column?");
    }
    if (lookup.expanded() > 0) {
      notes.add(
          where
              + RunSummary.rows(lookup.expanded())
              + " more came out, one for each row of "
              + lookup.reference()
              + " that a key fits, as the plan says");
    }
    return notes;
  }

  /** Rows that one key or value fits: told as keys, or where a rule matches as sets of rows. */
  private static String several(LookupFigures lookup, long count) {
    return lookup.byRule()
        ? RunSummary.count(count)
            + (count == 1 ? " set" : " sets")
            + " of rows of "
            + lookup.reference()
            + " fit the same value"
        : RunSummary.keys(count)
            + " of "
            + lookup.reference()
            + (count == 1 ? " stands" : " stand")
            + " on several rows";
  }

  private static String chosen(LookupFigures lookup) {
    if (lookup.expanded() > 0) {
      return "each of them comes out";
    }
    return lookup.pickedFromSeveral() > 0
        ? "one was picked for " + RunSummary.rows(lookup.pickedFromSeveral())
        : "nothing was picked for " + RunSummary.rows(lookup.ambiguous());
  }
}
