package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.match.index.RuleIndex;
import org.abletwine.table.carry.Carrier;

/** Counts the ways in which values miss an ordered rule, with the first of each kind in words. */
final class Misses {
  private static final String[] KINDS = {
    "below the lowest",
    "above the highest",
    "in a gap",
    "farther than within:",
    "cannot be compared"
  };

  private final long[] counts = new long[KINDS.length];
  private final String[] examples = {"", "", "", "", ""};

  /** The rows of the examples: the first of each kind. */
  private final long[] firstRows = new long[KINDS.length];

  /** Counts a row that missed. */
  void count(Source source, int row, int miss, long rowNumber) {
    int kind = miss - RuleIndex.BELOW;
    if (kind < 0 || kind >= KINDS.length) {
      return;
    }
    if (counts[kind]++ == 0) {
      firstRows[kind] = rowNumber;
      examples[kind] = "row " + rowNumber + ", " + source.missed(row, miss);
    }
  }

  /** Adds what another worker has counted. */
  void merge(Misses other) {
    for (int kind = 0; kind < KINDS.length; kind++) {
      boolean earlier = counts[kind] == 0 || other.firstRows[kind] < firstRows[kind];
      if (other.counts[kind] > 0 && earlier) {
        firstRows[kind] = other.firstRows[kind];
        examples[kind] = other.examples[kind];
      }
      counts[kind] += other.counts[kind];
    }
  }

  /** Carries what was counted, or takes what another process has counted. */
  void carry(Carrier carrier) {
    carrier.numbers(counts);
    carrier.numbers(firstRows);
    for (int kind = 0; kind < examples.length; kind++) {
      examples[kind] = carrier.words(examples[kind]);
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
