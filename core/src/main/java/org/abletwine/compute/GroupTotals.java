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

  /** For each group the sum's digits and, beside it in memory, how many were added. */
  private long[] held = new long[128];

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
    if (2 * group >= held.length) {
      held = Arrays.copyOf(held, Math.max(2 * group + 2, held.length * 2));
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
    held[2 * group + 1]++;
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
      held[2 * group + 1]++;
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
    held[2 * group + 1]++;
    if (function == Function.MIN || function == Function.MAX) {
      keepBest(group, one.number(0));
    } else {
      sum(group);
    }
  }

  private void keepBest(int group, BigDecimal value) {
    if (group >= best.length) {
      best = Arrays.copyOf(best, held.length / 2);
    }
    BigDecimal most = best[group];
    int order = most == null ? 0 : value.compareTo(most);
    if (most == null || (function == Function.MIN ? order < 0 : order > 0)) {
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
      long sum = held[2 * group] + value;
      if (fits && ((held[2 * group] ^ sum) & (value ^ sum)) >= 0) {
        held[2 * group] = sum;
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
      long scaled = held[2 * group] * factor;
      if (Math.multiplyHigh(held[2 * group], factor) == scaled >> 63) {
        held[2 * group] = scaled;
      } else {
        wide.merge(group, BigDecimal.valueOf(held[2 * group], scale), BigDecimal::add);
        held[2 * group] = 0;
      }
    }
    scale = places;
  }

  private BigDecimal sumOf(int group) {
    return BigDecimal.valueOf(held[2 * group], scale)
        .add(wide.getOrDefault(group, BigDecimal.ZERO));
  }

  /**
   * A group's total.
   *
   * @param group the group
   * @return its total as text, or null for one of nothing
   */
  public @Nullable String value(int group) {
    return switch (function) {
      case COUNT -> Long.toString(held[2 * group + 1]);
      case COUNT_DISTINCT -> Integer.toString(values.getOrDefault(group, Set.of()).size());
      case SUM -> held[2 * group + 1] == 0 ? null : sumOf(group).toPlainString();
      case AVG -> held[2 * group + 1] == 0 ? null : mean(sumOf(group), held[2 * group + 1]);
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
      count += held[2 * group + 1];
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
