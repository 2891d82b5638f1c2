package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.match.RuleIndex;

/** Counts the ways in which values miss an ordered rule, with the first of each kind in words. */
final class Misses {
  private static final String[] KINDS = {
    "below the lowest", "above the highest", "in a gap or too far", "cannot be compared"
  };

  private final long[] counts = new long[KINDS.length];
  private final String[] examples = {"", "", "", ""};

  /** Counts a row that missed. */
  void count(Source source, int row, int miss, long rowNumber) {
    int kind = miss - RuleIndex.BELOW;
    if (kind < 0 || kind >= KINDS.length) {
      return;
    }
    if (counts[kind]++ == 0) {
      examples[kind] =
          "row "
              + rowNumber
              + ", "
              + String.join(" | ", source.probe.ruled(row))
              + ": "
              + source.describeMiss(row, miss);
    }
  }

  List<LookupFigures.Miss> figures() {
    List<LookupFigures.Miss> figures = new ArrayList<>();
    for (int kind = 0; kind < KINDS.length; kind++) {
      if (counts[kind] > 0) {
        figures.add(new LookupFigures.Miss(KINDS[kind], counts[kind], examples[kind]));
      }
    }
    return figures;
  }
}
