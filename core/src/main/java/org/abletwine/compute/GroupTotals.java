package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.CellVector;
import org.jspecify.annotations.Nullable;

/**
 * One total for each of many groups. Sums are held as longs of a common scale, and as big decimals
 * from the group and row on where they no longer fit. Groups are numbered from 0. Used by one
 * thread.
 */
public final class GroupTotals {
  /** What is totalled. */
  public enum Function {
    /** The exact sum of the numbers. */
    SUM,
    /** Their mean, rounded half up to ten places where it does not come out even. */
    AVG,
    /** The least, as numbers. */
    MIN,
    /** The greatest, as numbers. */
    MAX,
    /** How many are not null, or how many rows. */
    COUNT,
    /** How many different values there are. */
    COUNT_DISTINCT
  }

  private static final int AVERAGE_PLACES = 10;
  private static final int MOST_SCALE = 15;

  private final Function function;
  private final Values one = new Values();
  private long[] sums = new long[64];
  private long[] counts = new long[64];
  private int scale;
  private final Map<Integer, BigDecimal> wide = new HashMap<>();
  private BigDecimal[] best = new BigDecimal[0];
  private final Map<Integer, Set<String>> values = new HashMap<>();
  private int groups;
  private long notNumbers;

  /**
   * @param function what is totalled
   */
  public GroupTotals(Function function) {
    this.function = function;
    one.prepare(1, Kind.NUMBER);
  }

  /**
   * Makes a group known, so that it has a total of nothing.
   *
   * @param group the group
   */
  public void touch(int group) {
    if (group >= counts.length) {
      int length = Math.max(group + 1, counts.length * 2);
      sums = Arrays.copyOf(sums, length);
      counts = Arrays.copyOf(counts, length);
    }
    groups = Math.max(groups, group + 1);
  }

  /**
   * Counts a row whatever it holds.
   *
   * @param group its group
   */
  public void addRow(int group) {
    touch(group);
    counts[group]++;
  }

  /**
   * Adds a cell; null is passed over, and so is what is no number where one is needed.
   *
   * @param group its group
   * @param cells its column
   * @param row its row, 0-based
   */
  public void add(int group, CellVector cells, int row) {
    touch(group);
    int start = cells.starts[row];
    if (start < 0) {
      return;
    }
    if (function == Function.COUNT) {
      counts[group]++;
      return;
    }
    if (function == Function.COUNT_DISTINCT) {
      values.computeIfAbsent(group, g -> new HashSet<>()).add(String.valueOf(cells.get(row)));
      return;
    }
    one.wide[0] = null;
    if (!Decimals.read(cells.text, start, cells.ends[row], one, 0)) {
      notNumbers++;
      return;
    }
    counts[group]++;
    if (function == Function.MIN || function == Function.MAX) {
      keepBest(group, one.number(0));
    } else {
      sum(group);
    }
  }

  private void keepBest(int group, BigDecimal value) {
    if (group >= best.length) {
      best = Arrays.copyOf(best, counts.length);
    }
    BigDecimal held = best[group];
    int order = held == null ? 0 : value.compareTo(held);
    if (held == null || (function == Function.MIN ? order < 0 : order > 0)) {
      best[group] = value;
    }
  }

  private void sum(int group) {
    if (one.wide[0] == null && one.scale[0] > scale && one.scale[0] <= MOST_SCALE) {
      rescale(one.scale[0]);
    }
    if (one.wide[0] == null && one.scale[0] <= scale) {
      long factor = pow(scale - one.scale[0]);
      long value = one.digits[0] * factor;
      boolean fits = Math.multiplyHigh(one.digits[0], factor) == value >> 63;
      long sum = sums[group] + value;
      if (fits && ((sums[group] ^ sum) & (value ^ sum)) >= 0) {
        sums[group] = sum;
        return;
      }
    }
    wide.merge(group, one.number(0), BigDecimal::add);
  }

  private static long pow(int places) {
    long power = 1;
    for (int i = 0; i < places; i++) {
      power *= 10;
    }
    return power;
  }

  private void rescale(int places) {
    long factor = pow(places - scale);
    for (int group = 0; group < groups; group++) {
      long scaled = sums[group] * factor;
      if (Math.multiplyHigh(sums[group], factor) == scaled >> 63) {
        sums[group] = scaled;
      } else {
        wide.merge(group, BigDecimal.valueOf(sums[group], scale), BigDecimal::add);
        sums[group] = 0;
      }
    }
    scale = places;
  }

  private BigDecimal sumOf(int group) {
    return BigDecimal.valueOf(sums[group], scale).add(wide.getOrDefault(group, BigDecimal.ZERO));
  }

  /**
   * A group's total.
   *
   * @param group the group
   * @return its total as text, or null for one of nothing
   */
  public @Nullable String value(int group) {
    return switch (function) {
      case COUNT -> Long.toString(counts[group]);
      case COUNT_DISTINCT -> Integer.toString(values.getOrDefault(group, Set.of()).size());
      case SUM -> counts[group] == 0 ? null : sumOf(group).toPlainString();
      case AVG -> counts[group] == 0 ? null : mean(sumOf(group), counts[group]);
      default -> group >= best.length || best[group] == null ? null : best[group].toPlainString();
    };
  }

  /** Returns the total over all groups, or null for one of nothing. */
  public @Nullable String grand() {
    long count = 0;
    BigDecimal sum = BigDecimal.ZERO;
    BigDecimal extreme = null;
    Set<String> all = new HashSet<>();
    for (int group = 0; group < groups; group++) {
      count += counts[group];
      sum = sum.add(sumOf(group));
      all.addAll(values.getOrDefault(group, Set.of()));
      BigDecimal held = group < best.length ? best[group] : null;
      if (held != null) {
        extreme =
            extreme == null
                ? held
                : function == Function.MIN ? held.min(extreme) : held.max(extreme);
      }
    }
    return switch (function) {
      case COUNT -> Long.toString(count);
      case COUNT_DISTINCT -> Integer.toString(all.size());
      case SUM -> count == 0 ? null : sum.toPlainString();
      case AVG -> count == 0 ? null : mean(sum, count);
      default -> extreme == null ? null : extreme.toPlainString();
    };
  }

  private static String mean(BigDecimal sum, long count) {
    BigDecimal mean =
        sum.divide(
                BigDecimal.valueOf(count),
                Math.max(sum.scale(), AVERAGE_PLACES),
                RoundingMode.HALF_UP)
            .stripTrailingZeros();
    return (mean.scale() < sum.scale() ? mean.setScale(sum.scale()) : mean).toPlainString();
  }

  /** Returns values that were no numbers, and so are left out. */
  public long notNumbers() {
    return notNumbers;
  }

  @Override
  public String toString() {
    return "GroupTotals[" + function + ", " + groups + " groups]";
  }
}
