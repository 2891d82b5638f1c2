package org.abletwine.match.index;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.TreeSet;
import org.abletwine.index.InternedSets;
import org.abletwine.match.MatchRule;
import org.abletwine.table.DataException;
import org.abletwine.table.text.Utf8;

/**
 * Cuts the number line into segments for an ordered rule. Sorts once by partition and value, then
 * goes through each partition in one sweep.
 */
final class SegmentBuilder {
  private static final long LOWEST = Long.MIN_VALUE;

  private final RuleRows rows;
  private final MatchRule rule;
  private final Domain domain;
  private final String place;
  private final RuleIndexes.RowNumber number;
  private final long[] from;
  private final long[] to;
  private int[] order;
  private final InternedSets sets = new InternedSets();
  private long[] starts;
  private int[] targets;
  private int segments;
  private int partitionStart;

  SegmentBuilder(
      RuleRows rows, MatchRule rule, Domain domain, String place, RuleIndexes.RowNumber number) {
    this.rows = rows;
    this.rule = rule;
    this.domain = domain;
    this.place = place;
    this.number = number;
    int count = rows.rows();
    this.from = new long[count];
    this.to = rule.kind() == MatchRule.Kind.BETWEEN ? new long[count] : from;
    this.order = new int[count];
    this.starts = new long[2 * count + 16];
    this.targets = new int[2 * count + 16];
  }

  SegmentIndex build() {
    int fitting = 0;
    for (int row = 0; row < rows.rows(); row++) {
      if (rule.kind() == MatchRule.Kind.BETWEEN) {
        band(row);
      } else {
        from[row] = bound(row, 0);
      }
      // A band whose ends are equal and do not both belong to it is there, but nothing fits it.
      boolean empty = rule.kind() == MatchRule.Kind.BETWEEN && from[row] >= to[row];
      order[fitting] = row;
      fitting += empty ? 0 : 1;
    }
    order = Arrays.copyOf(order, fitting);
    sort();
    int partitions = rows.partitionCount();
    int[] first = new int[partitions + 1];
    int at = 0;
    for (int partition = 0; partition < partitions; partition++) {
      first[partition] = segments;
      partitionStart = segments;
      int end = at;
      while (end < order.length && rows.partition(order[end]) == partition) {
        end++;
      }
      partition(at, end);
      at = end;
    }
    first[partitions] = segments;
    return new SegmentIndex(
        domain,
        new Segments(first, Arrays.copyOf(starts, segments)),
        Arrays.copyOf(targets, segments),
        sets,
        rule);
  }

  /** A band as a half-open stretch of coordinates, from {@code from} up to {@code to}. */
  private void band(int row) {
    boolean openBelow = rows.isNull(row, 0);
    boolean openAbove = rows.isNull(row, 1);
    long low = openBelow ? LOWEST : bound(row, 0);
    long high = openAbove ? Long.MAX_VALUE : bound(row, 1);
    if (low > high) {
      throw new DataException(
          place
              + ", row "
              + number.of(rows.number(row))
              + ": the band runs backwards, from "
              + rows.shown(row, 0)
              + " to "
              + rows.shown(row, 1)
              + "; correct the row",
          place,
          number.of(rows.number(row)),
          null);
    }
    from[row] = openBelow ? LOWEST : low + (rule.ends().lowerIn() ? 0 : 1);
    to[row] = openAbove ? Long.MAX_VALUE : high + (rule.ends().upperIn() ? 1 : 0);
  }

  private long bound(int row, int value) {
    if (domain instanceof Numbers numbers && rows.plainNumbers()) {
      return numbers.coordinate(rows.plain(row, value));
    }
    return domain.coordinate(rows.text(), rows.start(row, value), rows.end(row, value));
  }

  private boolean before(int one, int other) {
    if (rows.partition(one) != rows.partition(other)) {
      return rows.partition(one) < rows.partition(other);
    }
    return from[one] < from[other];
  }

  /** Stable merge sort of row numbers, bottom up; nothing to do for what is sorted already. */
  private void sort() {
    int count = order.length;
    boolean sorted = true;
    for (int i = 1; i < count && sorted; i++) {
      sorted = !before(order[i], order[i - 1]);
    }
    if (sorted) {
      return;
    }
    int[] current = order;
    int[] next = new int[count];
    for (int width = 1; width < count; width *= 2) {
      for (int low = 0; low < count; low += 2 * width) {
        merge(current, next, low, Math.min(low + width, count), Math.min(low + 2 * width, count));
      }
      int[] swap = current;
      current = next;
      next = swap;
    }
    if (current != order) {
      System.arraycopy(current, 0, order, 0, count);
    }
  }

  private void merge(int[] source, int[] target, int low, int middle, int high) {
    int a = low;
    int b = middle;
    for (int i = low; i < high; i++) {
      boolean second = b < high && (a >= middle || before(source[b], source[a]));
      target[i] = second ? source[b++] : source[a++];
    }
  }

  private void partition(int begin, int end) {
    switch (rule.kind()) {
      case AT_OR_BELOW -> atOrBelow(begin, end);
      case AT_OR_ABOVE -> atOrAbove(begin, end);
      case NEAREST -> nearest(begin, end);
      default -> between(begin, end);
    }
  }

  private void atOrBelow(int begin, int end) {
    long reach = reach();
    segment(LOWEST, begin == end ? RuleIndex.ABSENT : RuleIndex.BELOW);
    for (int at = begin; at < end; ) {
      int next = runEnd(at, end);
      long here = from[order[at]];
      segment(here, target(at, next));
      if (reach < Domain.FARTHEST && (next == end || from[order[next]] - here > reach + 1)) {
        segment(here + reach + 1, RuleIndex.FAR);
      }
      at = next;
    }
  }

  private void atOrAbove(int begin, int end) {
    long reach = reach();
    long start = LOWEST;
    for (int at = begin; at < end; ) {
      int next = runEnd(at, end);
      long here = from[order[at]];
      if (reach < Domain.FARTHEST && start < here - reach) {
        segment(start, RuleIndex.FAR);
        start = here - reach;
      }
      segment(start, target(at, next));
      start = here + 1;
      at = next;
    }
    segment(start, begin == end ? RuleIndex.ABSENT : RuleIndex.ABOVE);
  }

  /**
   * A value belongs to the nearer of its two neighbours; exactly half way, it fits both.
   * Coordinates of the reference are multiples of 20, since numbers and times carry a decimal place
   * more for this, so half way is an even coordinate, and what lies on either side is apart from
   * it.
   */
  private void nearest(int begin, int end) {
    long reach = reach();
    long start = LOWEST;
    for (int at = begin; at < end; ) {
      int next = runEnd(at, end);
      long here = from[order[at]];
      int target = target(at, next);
      boolean last = next == end;
      long there = last ? Long.MAX_VALUE : from[order[next]];
      if (start == LOWEST && reach < Domain.FARTHEST) {
        segment(LOWEST, RuleIndex.FAR);
        start = here - reach;
      }
      segment(start, target);
      if (last) {
        if (reach < Domain.FARTHEST) {
          segment(here + reach + 1, RuleIndex.FAR);
        }
        return;
      }
      long half = here + (there - here) / 2;
      if (half - here > reach) {
        segment(here + reach + 1, RuleIndex.FAR);
        start = there - reach;
      } else {
        assert half % 2 == 0 : "half way between two values is a value that can be met";
        segment(half, target(at, runEnd(next, end)));
        start = half + 1;
      }
      at = next;
    }
    if (begin == end) {
      segment(LOWEST, RuleIndex.ABSENT);
    }
  }

  private long reach() {
    BigDecimal within = rule.within();
    if (within == null) {
      return Domain.FARTHEST;
    }
    if (domain instanceof Times times) {
      return times.reach(within);
    }
    if (!(domain instanceof Numbers)) {
      return Domain.FARTHEST; // there is no value, and so nothing near
    }
    byte[] text = Utf8.bytes(within.toPlainString());
    return domain.coordinate(text, 0, text.length);
  }

  /** Sweeps over the ends of the bands, with the set of bands that are open. */
  private void between(int begin, int end) {
    if (apart(begin, end)) {
      betweenApart(begin, end);
      return;
    }
    int count = end - begin;
    long[] cuts = new long[2 * count];
    for (int i = 0; i < count; i++) {
      cuts[2 * i] = from[order[begin + i]];
      cuts[2 * i + 1] = to[order[begin + i]];
    }
    Arrays.sort(cuts);
    Integer[] byEnd = new Integer[count];
    for (int i = 0; i < count; i++) {
      byEnd[i] = order[begin + i];
    }
    Arrays.sort(byEnd, (a, b) -> Long.compare(to[a], to[b]));
    TreeSet<Integer> open = new TreeSet<>();
    int opening = begin;
    int closing = 0;
    boolean any = false;
    segment(LOWEST, RuleIndex.BELOW);
    for (int i = 0; i < cuts.length; i++) {
      long cut = cuts[i];
      if (i > 0 && cut == cuts[i - 1] || cut == Long.MAX_VALUE) {
        continue;
      }
      while (opening < end && from[order[opening]] <= cut) {
        int row = order[opening++];
        if (to[row] > cut) {
          open.add(row);
        }
      }
      while (closing < count && to[byEnd[closing]] <= cut) {
        open.remove(byEnd[closing++]);
      }
      boolean more = opening < end || !open.isEmpty();
      int miss = !more ? RuleIndex.ABOVE : any ? RuleIndex.GAP : RuleIndex.BELOW;
      any |= !open.isEmpty();
      segment(cut, open.isEmpty() ? miss : target(open));
    }
  }

  /** Whether no two bands overlap, which is how most tables of bands are meant. */
  private boolean apart(int begin, int end) {
    for (int at = begin; at + 1 < end; at++) {
      if (to[order[at]] > from[order[at + 1]] || from[order[at]] == from[order[at + 1]]) {
        return false;
      }
    }
    return true;
  }

  private void betweenApart(int begin, int end) {
    segment(LOWEST, begin == end ? RuleIndex.ABSENT : RuleIndex.BELOW);
    for (int at = begin; at < end; at++) {
      int row = order[at];
      segment(from[row], rows.place(row));
      if (to[row] != Long.MAX_VALUE) {
        segment(to[row], at + 1 < end ? RuleIndex.GAP : RuleIndex.ABOVE);
      }
    }
  }

  private int target(TreeSet<Integer> open) {
    if (open.size() == 1) {
      return rows.place(open.first());
    }
    return ~sets.of(open.stream().mapToInt(rows::number).toArray());
  }

  /** Rows of one value. */
  private int runEnd(int at, int end) {
    int next = at + 1;
    while (next < end && from[order[next]] == from[order[at]]) {
      next++;
    }
    return next;
  }

  private int target(int at, int end) {
    if (end - at == 1) {
      return rows.place(order[at]);
    }
    int[] members = new int[end - at];
    for (int i = at; i < end; i++) {
      members[i - at] = rows.number(order[i]);
    }
    Arrays.sort(members);
    return ~sets.of(members);
  }

  private void segment(long start, int target) {
    if (segments > partitionStart && starts[segments - 1] == start) {
      targets[segments - 1] = target; // an open lower end starts where the line does
      return;
    }
    if (segments == starts.length) {
      starts = Arrays.copyOf(starts, segments * 2);
      targets = Arrays.copyOf(targets, segments * 2);
    }
    starts[segments] = start;
    targets[segments++] = target;
  }
}
