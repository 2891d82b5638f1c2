package org.abletwine.match.index;

import java.util.HashMap;
import java.util.Map;
import org.abletwine.index.InternedSets;
import org.abletwine.index.RowSets;
import org.abletwine.match.MatchRule;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

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
  private final MatchRule rule;

  SegmentIndex(Domain domain, Segments segments, int[] targets, InternedSets sets, MatchRule rule) {
    this.rule = rule;
    this.domain = domain;
    this.segments = segments;
    this.targets = targets;
    this.sets = sets;
  }

  @Override
  public void probe(int[] partitions, CellVector values, int rows, int[] found) {
    probe(partitions, values, rows, found, null);
  }

  /** Whether it takes the next value on one side, and knows how far away that is. */
  boolean measures() {
    boolean oneSided =
        rule.kind() == MatchRule.Kind.AT_OR_BELOW || rule.kind() == MatchRule.Kind.AT_OR_ABOVE;
    return oneSided && (domain instanceof Numbers || domain instanceof Times);
  }

  /** A distance that {@link #probe} has given, as a person would write it. */
  String distance(long apart) {
    return domain.distance(0, apart);
  }

  /**
   * As {@link RuleIndex#probe}, and tells how far away it is what was found.
   *
   * @param apart takes the distances of rows that are found, in coordinates; null for nobody asks
   */
  void probe(int[] partitions, CellVector values, int rows, int[] found, long @Nullable [] apart) {
    byte[] text = values.text;
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
        int segment = found[row];
        found[row] = segments.has(partitions[row]) ? targets[segment] : ABSENT;
        boolean hit = found[row] >= 0 || found[row] > LAST_MISS;
        if (apart != null && hit) {
          apart[row] = Math.abs(coordinates[row] - theirs(segment));
        }
      }
    }
  }

  /** The coordinate of what a segment leads to, for rules that take the next value on one side. */
  private long theirs(int segment) {
    return rule.kind() == MatchRule.Kind.AT_OR_BELOW
        ? segments.start(segment)
        : segments.start(segment + 1) - 1; // what lies above it begins the next
  }

  /** Told what each partition of the rule that follows holds. */
  interface Following {
    /**
     * @param partition the partition, counted up from 0
     * @param target the place of its row, or the complement of its set's number
     */
    void partition(int partition, int target);
  }

  /** Makes this index lead to partitions of a rule that follows, in place of rows. */
  SegmentIndex leading(Following following) {
    Map<Integer, Integer> partitions = new HashMap<>();
    int[] leading = targets.clone();
    for (int segment = 0; segment < leading.length; segment++) {
      int target = targets[segment];
      if (target >= 0 || target > LAST_MISS) {
        Integer known = partitions.get(target);
        if (known == null) {
          known = partitions.size();
          partitions.put(target, known);
          following.partition(known, target);
        }
        leading[segment] = known;
      }
    }
    return new SegmentIndex(domain, segments, leading, sets, rule);
  }

  /** The rows of a set, named by the complement of its number. */
  int[] rows(int target) {
    return sets.rows(~target);
  }

  /** What a value leads to. */
  int target(int partition, String value) {
    long coordinate = coordinate(value);
    if (coordinate == Domain.UNFIT) {
      return UNFIT;
    }
    return segments.has(partition) ? targets[segments.find(partition, coordinate)] : ABSENT;
  }

  /** Whether a value cannot be compared; null can be, and fits nothing. */
  boolean unfit(@Nullable String value) {
    return value != null && !value.isEmpty() && coordinate(value) == Domain.UNFIT;
  }

  private long coordinate(String value) {
    byte[] utf8 = Utf8.bytes(value);
    return domain.coordinate(utf8, 0, utf8.length);
  }

  @Override
  public RowSets sets() {
    return sets;
  }

  @Override
  public String describeMiss(int partition, String value) {
    long coordinate = coordinate(value);
    if (coordinate == Domain.UNFIT) {
      return "not " + domain.noun();
    }
    if (!segments.has(partition)) {
      return "";
    }
    int segment = segments.find(partition, coordinate);
    int target = targets[segment];
    if (target == FAR) {
      return far(coordinate, segment);
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

  private String far(long coordinate, int segment) {
    String within = String.valueOf(rule.within());
    if (rule.kind() == MatchRule.Kind.NEAREST) {
      return "more than " + within + " from the nearest";
    }
    boolean below = rule.kind() == MatchRule.Kind.AT_OR_BELOW;
    long next = theirs(below ? segment - 1 : segment + 1);
    return domain.distance(coordinate, next)
        + (below ? " above " : " below ")
        + domain.show(next)
        + ", farther than within: "
        + within;
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
