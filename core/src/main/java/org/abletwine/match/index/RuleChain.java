package org.abletwine.match.index;

import java.io.Serializable;
import java.util.Arrays;
import java.util.List;
import org.abletwine.index.RowSets;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.MatchRule;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * One or more rules of a key, each looking among the rows that those before it let through: any
 * number of bands, then one rule of any kind. Mostly there is one rule, and nothing but its index.
 *
 * <p>With several, the rows that fit a value by a band are known when the reference is loaded: they
 * are a partition for the rule after it, so that each further rule costs one more search, and
 * memory follows the rows in all these partitions together. Immutable once built, but for sets
 * found while looking; safe to share between threads.
 */
public final class RuleChain implements Serializable {
  private static final long serialVersionUID = 1L;
  private static final long MOST_ENTRIES = 50_000_000;
  private static final int NO_MISS = 0;

  private final SegmentIndex[] bands;
  private final RuleIndex last;
  private final String[] names;

  private RuleChain(SegmentIndex[] bands, RuleIndex last, String[] names) {
    this.bands = bands;
    this.last = last;
    this.names = names;
  }

  /**
   * A rule of the key.
   *
   * @param rows its values of the reference's rows; those of the first rule with their partitions
   * @param rule the rule; not equality, and a band unless it is the last
   * @param folded whether normalising ignores case
   * @param declared what the column holds, when that is stated
   * @param steps what makes of an item of a list what is compared
   * @param name the column of ours, for messages
   * @param place the reference and column, for messages
   */
  public record Part(
      RuleRows rows,
      MatchRule rule,
      boolean folded,
      @Nullable ColumnType declared,
      List<NormaliseStep> steps,
      String name,
      String place) {
    /**
     * Holds that all values can be ordered, as {@link RuleChain#build} does before anything else.
     *
     * @throws DataException when one cannot
     */
    public void requireOrder(RuleIndexes.RowNumber number) {
      if (rule.kind().ordered()) {
        Domains.of(rows, rule, declared, place, number);
      }
    }

    RuleIndex index(RuleRows among, RuleIndexes.RowNumber number) {
      return RuleIndexes.build(among, rule, folded, declared, place, number, steps);
    }
  }

  /**
   * Builds the indexes.
   *
   * @param parts the rules, in the order they look; all hold the same rows in the same order
   * @param number the rows' numbers in the file, for messages
   * @return the rules, ready to look
   * @throws DataException when a value of the reference cannot be ordered, a band runs backwards, a
   *     pattern does not compile, or bands overlap so much that there is no holding them
   */
  public static RuleChain build(List<Part> parts, RuleIndexes.RowNumber number) {
    SegmentIndex[] bands = new SegmentIndex[parts.size() - 1];
    RuleRows all = parts.get(0).rows();
    RuleRows among = all;
    for (int i = 0; i < bands.length; i++) {
      SegmentIndex band = (SegmentIndex) parts.get(i).index(among, number);
      RuleRows next =
          new RuleRows(parts.get(i + 1).rows().width(), parts.get(i + 1).rows().hidden());
      next.tellApart(parts.get(i + 1).rows().finest());
      RuleRows values = parts.get(i + 1).rows();
      String place = parts.get(i).place();
      bands[i] =
          band.leading(
              (partition, target) -> {
                int[] rows = target >= 0 ? new int[] {all.numberAt(target)} : band.rows(target);
                if (next.rows() + (long) rows.length > MOST_ENTRIES) {
                  throw new DataException(
                      place
                          + ": the bands overlap so much that those that fit one value cannot be"
                          + " held; look them up by a step of their own");
                }
                for (int row : rows) {
                  next.add(values, row, partition);
                }
              });
      among = next;
    }
    RuleIndex last = parts.get(bands.length).index(among, number);
    return new RuleChain(bands, last, parts.stream().map(Part::name).toArray(String[]::new));
  }

  /**
   * Looks up values.
   *
   * @param partitions the partition of each row, or negative for none
   * @param values our values for each rule, normalised
   * @param rows how many
   * @param found as {@link RuleIndex#probe} gives it; a miss is that of the first rule that missed
   * @param apart takes how far away what was found is, where {@link #measures}; else left alone
   */
  public void probe(int[] partitions, CellVector[] values, int rows, int[] found, long[] apart) {
    if (bands.length == 0) {
      probeLast(partitions, values[0], rows, found, apart);
      return;
    }
    int[] among = Arrays.copyOf(partitions, rows);
    int[] misses = new int[rows];
    for (int i = 0; i < bands.length; i++) {
      bands[i].probe(among, values[i], rows, found);
      for (int row = 0; row < rows; row++) {
        if (found[row] < 0) {
          boolean first = misses[row] == NO_MISS || found[row] == RuleIndex.UNFIT;
          misses[row] = first ? found[row] : misses[row];
        }
        among[row] = Math.max(-1, found[row]);
      }
    }
    probeLast(among, values[bands.length], rows, found, apart);
    for (int row = 0; row < rows; row++) {
      if (misses[row] != NO_MISS && found[row] != RuleIndex.UNFIT) {
        found[row] = misses[row];
      }
    }
  }

  private void probeLast(int[] partitions, CellVector values, int rows, int[] found, long[] apart) {
    if (last instanceof SegmentIndex segments && segments.measures()) {
      segments.probe(partitions, values, rows, found, apart);
    } else {
      last.probe(partitions, values, rows, found);
    }
  }

  /** Returns whether {@link #probe} tells how far away what it found is. */
  public boolean measures() {
    return last instanceof SegmentIndex segments && segments.measures();
  }

  /**
   * A distance as a person would write it.
   *
   * @param apart what {@link #probe} gave
   * @return such as {@code 12 days}
   */
  public String distance(long apart) {
    return last instanceof SegmentIndex segments ? segments.distance(apart) : "";
  }

  /** Returns the sets that {@link #probe} names. */
  public RowSets sets() {
    return last.sets();
  }

  /**
   * How specific a row's pattern is.
   *
   * @param row a row of the store, 0-based
   * @return literal characters of its pattern; 0 for rules without patterns
   */
  public int specificity(int row) {
    return last.specificity(row);
  }

  /**
   * Which rule cannot compare its value, for a row that was found to be {@link RuleIndex#UNFIT}.
   *
   * @param values our values for each rule; null for null
   * @return the rule, 0-based
   */
  public int unfit(@Nullable String[] values) {
    int rule = 0;
    while (rule < bands.length && !bands[rule].unfit(values[rule])) {
      rule++;
    }
    return rule;
  }

  /**
   * Says in words how a row missed, the column named where there are several rules.
   *
   * @param partition its partition, not negative
   * @param values our values for each rule; null for null
   * @param unfit whether a value cannot be compared
   * @return such as {@code 0.5 below the lowest, 8.0}; empty when there is nothing to say
   */
  public String describeMiss(int partition, @Nullable String[] values, boolean unfit) {
    int rule = unfit ? unfit(values) : 0;
    int among = partition;
    while (!unfit && rule < bands.length) {
      int next = bands[rule].target(among, String.valueOf(values[rule]));
      if (next < 0) {
        break;
      }
      among = next;
      rule++;
    }
    RuleIndex index = rule < bands.length ? bands[rule] : last;
    String miss = index.describeMiss(among, String.valueOf(values[rule]));
    return bands.length == 0 || miss.isEmpty() ? miss : names[rule] + " " + miss;
  }

  @Override
  public String toString() {
    return "RuleChain[" + String.join(", ", names) + "]";
  }
}
