package org.abletwine.match;

import org.abletwine.index.InternedSets;
import org.abletwine.index.RowSets;
import org.abletwine.table.CellVector;

/**
 * Every ordered rule as a map from segments of the number line to rows.
 *
 * <p>Whatever the rule, the rows a value fits change only at finitely many places. So each
 * partition is cut there once, and looking up is a binary search for the last cut not above the
 * value: {@code log2(n)} steps, with neither tree nor object. Memory is 12 bytes a segment, of
 * which there are at most two to a row ({@code 2n + 1} for bands).
 *
 * <p>Invariant: the segments of partition {@code p} are those from {@code first[p]} to {@code
 * first[p + 1]}, exclusive; their {@code starts} ascend, and the first is the smallest long, so the
 * search always ends on one of them.
 */
final class SegmentIndex implements RuleIndex {
  private static final long serialVersionUID = 1L;

  private static final int SAMPLE_BITS = 6;
  private static final int LARGE = 256;

  private final Domain domain;
  private final int[] first;
  private final long[] starts;
  private final int[] targets;
  private final long[] sampled;
  private final InternedSets sets;
  private final String reach;

  SegmentIndex(
      Domain domain, int[] first, long[] starts, int[] targets, InternedSets sets, String reach) {
    this.reach = reach;
    sampled = new long[(starts.length >>> SAMPLE_BITS) + 1];
    for (int i = 0; i << SAMPLE_BITS < starts.length; i++) {
      sampled[i] = starts[i << SAMPLE_BITS];
    }
    this.domain = domain;
    this.first = first;
    this.starts = starts;
    this.targets = targets;
    this.sets = sets;
  }

  @Override
  public void probe(int[] partitions, CellVector values, int rows, int[] found) {
    char[] text = values.text;
    for (int row = 0; row < rows; row++) {
      int start = values.starts[row];
      int end = values.ends[row];
      if (start >= end) {
        found[row] = ABSENT;
        continue;
      }
      long coordinate = domain.coordinate(text, start, end);
      int partition = partitions[row];
      if (coordinate == Domain.UNFIT) {
        found[row] = UNFIT;
      } else {
        found[row] = partition < 0 ? ABSENT : targets[segment(partition, coordinate)];
      }
    }
  }

  /**
   * The last segment that starts at or below a coordinate: a binary search without branches, first
   * among every 64th start, which stay in the cache, then in one stretch of neighbours.
   */
  private int segment(int partition, long coordinate) {
    int low = first[partition];
    int end = first[partition + 1];
    int length = end - low;
    if (length > LARGE) {
      int sample = (low >>> SAMPLE_BITS) + 1;
      int samples = (end - 1 >>> SAMPLE_BITS) - sample + 1;
      while (samples > 0) {
        int half = samples >>> 1;
        boolean above = sampled[sample + half] <= coordinate;
        sample = above ? sample + half + 1 : sample;
        samples = above ? samples - half - 1 : half;
      }
      low = Math.max(low, sample - 1 << SAMPLE_BITS);
      length = Math.min(end, sample << SAMPLE_BITS) - low;
    }
    while (length > 1) {
      int half = length >>> 1;
      low = starts[low + half] <= coordinate ? low + half : low;
      length -= half;
    }
    return low;
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
    int segment = segment(partition, coordinate);
    int target = targets[segment];
    if (!reach.isEmpty()) {
      return target < 0 && target <= LAST_MISS ? "more than " + reach + " from the nearest" : "";
    }
    if (target == BELOW && segment + 1 < first[partition + 1]) {
      return apart(coordinate, starts[segment + 1]) + "below the lowest, " + edge(segment + 1);
    }
    if (target == ABOVE) {
      return apart(coordinate, starts[segment]) + "above the highest, " + edge(segment);
    }
    if (target == GAP && segment + 1 < first[partition + 1]) {
      return "in the gap from " + edge(segment) + " to " + edge(segment + 1);
    }
    return "";
  }

  private String edge(int segment) {
    return domain.show(Math.floorDiv(starts[segment], 2) * 2);
  }

  private String apart(long coordinate, long edge) {
    String distance = domain.distance(coordinate, Math.floorDiv(edge, 2) * 2);
    return distance.isEmpty() ? "" : distance + " ";
  }

  @Override
  public String toString() {
    return "SegmentIndex[" + starts.length + " segments, " + (first.length - 1) + " partitions]";
  }
}
