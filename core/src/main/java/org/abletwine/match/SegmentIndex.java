package org.abletwine.match;

import org.abletwine.index.InternedSets;
import org.abletwine.index.RowSets;
import org.abletwine.table.CellVector;

/**
 * Every ordered rule as a map from segments of the number line to rows.
 *
 * <p>Whatever the rule, the rows a value fits change only at finitely many places. So each
 * partition is cut there once, and looking up is a search for the last cut not above the value,
 * with neither tree nor object. Memory is up to 16 bytes a segment, of which there are at most two
 * to a row ({@code 2n + 1} for bands).
 */
final class SegmentIndex implements RuleIndex {
  private static final long serialVersionUID = 1L;

  private final Domain domain;
  private final Segments segments;
  private final int[] targets;
  private final InternedSets sets;
  private final String reach;

  SegmentIndex(Domain domain, Segments segments, int[] targets, InternedSets sets, String reach) {
    this.reach = reach;
    this.domain = domain;
    this.segments = segments;
    this.targets = targets;
    this.sets = sets;
  }

  @Override
  public void probe(int[] partitions, CellVector values, int rows, int[] found) {
    char[] text = values.text;
    long[] coordinates = new long[rows];
    for (int row = 0; row < rows; row++) {
      int start = values.starts[row];
      int end = values.ends[row];
      coordinates[row] = start < end ? domain.coordinate(text, start, end) : Domain.UNFIT;
    }
    segments.find(partitions, coordinates, rows, found);
    for (int row = 0; row < rows; row++) {
      if (values.starts[row] >= values.ends[row]) {
        found[row] = ABSENT;
      } else if (coordinates[row] == Domain.UNFIT) {
        found[row] = UNFIT;
      } else {
        found[row] = partitions[row] < 0 ? ABSENT : targets[found[row]];
      }
    }
  }

  @Override
  public RowSets sets() {
    return sets;
  }

  @Override
  public int specificity(int row) {
    return 0;
  }

  @Override
  public String describeMiss(int partition, String value) {
    long coordinate = domain.coordinate(value.toCharArray(), 0, value.length());
    if (coordinate == Domain.UNFIT) {
      return "not " + domain.noun();
    }
    int segment = segments.find(partition, coordinate);
    int target = targets[segment];
    if (!reach.isEmpty()) {
      return target < 0 && target <= LAST_MISS ? "more than " + reach + " from the nearest" : "";
    }
    if (target == BELOW && !segments.isLast(partition, segment)) {
      return apart(coordinate, segments.start(segment + 1))
          + "below the lowest, "
          + edge(segment + 1);
    }
    if (target == ABOVE) {
      return apart(coordinate, segments.start(segment)) + "above the highest, " + edge(segment);
    }
    if (target == GAP && !segments.isLast(partition, segment)) {
      return "in the gap from " + edge(segment) + " to " + edge(segment + 1);
    }
    return "";
  }

  private String edge(int segment) {
    return domain.show(Math.floorDiv(segments.start(segment), 2) * 2);
  }

  private String apart(long coordinate, long edge) {
    String distance = domain.distance(coordinate, Math.floorDiv(edge, 2) * 2);
    return distance.isEmpty() ? "" : distance + " ";
  }

  @Override
  public String toString() {
    return "SegmentIndex["
        + segments.count()
        + " segments, "
        + segments.partitions()
        + " partitions]";
  }
}
