package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/**
 * One total for each group of an index. Sums are held as longs of a common scale in the groups'
 * records, and as big decimals from the group and row on where they no longer fit. Used by one
 * thread.
 */
public final class GroupTotals {
  /** What is totalled. */
  public enum Function {
    /** The exact sum of the numbers. */
    SUM,
    /** Their mean, rounded half up to ten places where it does not come out even. */
    AVG,
    /** The least: by the stated type of the column, else as numbers when all are, else as text. */
    MIN,
    /** The greatest, likewise. */
    MAX,
    /** How many are not null, or how many rows. */
    COUNT,
    /** How many different values there are. */
    COUNT_DISTINCT
  }

  private static final int AVERAGE_PLACES = 10;
  private static final int MOST_SCALE = 15;

  private final Function function;
  private final GroupIndex index;
  private final int counter;
  private final Values one = new Values();
  private int scale;
  private final Map<Integer, BigDecimal> wide = new HashMap<>();
  private final Extremes extremes;
  private final Map<Integer, Set<String>> values = new HashMap<>();
  private final Frame frame;
  private final boolean whole;

  /** Those that other threads have met. */
  private RowErrors merged = RowErrors.NONE;

  /**
   * @param function what is totalled
   * @param index the groups
   * @param counter which of their counters to use, 0-based: this one for the sum's digits, the next
   *     for how many were added
   * @param type the stated type of what is totalled; null for none
   * @param what the total as messages call it
   * @param settings whether a cell that is no such value ends the run or is passed over
   */
  public GroupTotals(
      Function function,
      GroupIndex index,
      int counter,
      @Nullable ColumnType type,
      String what,
      Evaluation settings) {
    this.function = function;
    this.extremes = new Extremes(function == Function.MIN, type);
    this.frame = new Frame(what, settings.errorsAreNull(), false);
    this.whole = type != null && type.kind() == ColumnType.Kind.INTEGER;
    this.index = index;
    this.counter = counter;
    one.prepare(1, Kind.NUMBER);
  }

  /** Counters that a total takes of its group's. */
  public static final int COUNTERS = 2;

  private int at(int group) {
    return index.counters(group) + counter;
  }

  private long count(int group) {
    return index.records()[at(group) + 1];
  }

  /**
   * Counts rows whatever they hold.
   *
   * @param groups the group of each row
   * @param rows how many rows
   */
  public void addRows(int[] groups, int rows) {
    long[] held = index.records();
    for (int row = 0; row < rows; row++) {
      held[at(groups[row]) + 1]++;
    }
  }

  /**
   * Adds the cells of a column; null is passed over.
   *
   * @param groups the group of each row
   * @param cells the column
   * @param batch the rows
   * @throws org.abletwine.table.DataException when a cell is no number, or not of the stated type,
   *     and errors end the run
   */
  public void add(int[] groups, CellVector cells, Batch batch) {
    frame.over(batch);
    for (int row = 0; row < batch.rows(); row++) {
      if (!cells.isNull(row)) {
        add(groups[row], cells, row);
      }
    }
  }

  private void add(int group, CellVector cells, int row) {
    if (function == Function.COUNT) {
      index.records()[at(group) + 1]++;
      return;
    }
    if (function == Function.COUNT_DISTINCT) {
      values.computeIfAbsent(group, g -> new HashSet<>()).add(String.valueOf(cells.get(row)));
      return;
    }
    if (function == Function.MIN || function == Function.MAX) {
      if (!extremes.add(group, cells, row, frame.batch().rowNumber(row))) {
        unfit(cells, row, extremes.noun());
      }
      return;
    }
    one.forgetWide();
    if (Decimals.read(cells, row, one, 0) && (!whole || one.isWhole(0))) {
      index.records()[at(group) + 1]++;
      sum(group);
    } else {
      unfit(cells, row, whole ? "a whole number" : "a number");
    }
  }

  private void unfit(CellVector cells, int row, String noun) {
    frame.error(row, "\"" + cells.get(row) + "\" is not " + noun);
  }

  private void sum(int group) {
    if (!one.isWide(0) && one.scale[0] > scale && one.scale[0] <= MOST_SCALE) {
      rescale(one.scale[0]);
    }
    if (!one.isWide(0) && one.scale[0] <= scale) {
      long[] held = index.records();
      int at = at(group);
      long factor = DecimalText.power(scale - one.scale[0]);
      long value = one.digits[0] * factor;
      boolean fits = Math.multiplyHigh(one.digits[0], factor) == value >> 63;
      long sum = held[at] + value;
      if (fits && ((held[at] ^ sum) & (value ^ sum)) >= 0) {
        held[at] = sum;
        return;
      }
    }
    wide.merge(group, one.number(0), BigDecimal::add);
  }

  private void rescale(int places) {
    long factor = DecimalText.power(places - scale);
    long[] held = index.records();
    for (int group = 0; group < index.groups(); group++) {
      int at = at(group);
      long scaled = held[at] * factor;
      if (Math.multiplyHigh(held[at], factor) == scaled >> 63) {
        held[at] = scaled;
      } else {
        wide.merge(group, BigDecimal.valueOf(held[at], scale), BigDecimal::add);
        held[at] = 0;
      }
    }
    scale = places;
  }

  private BigDecimal sumOf(int group) {
    BigDecimal sum = BigDecimal.valueOf(index.records()[at(group)], scale);
    BigDecimal more = wide.isEmpty() ? null : wide.get(group);
    return more == null ? sum : sum.add(more);
  }

  /**
   * A group's total.
   *
   * @param group the group
   * @return its total as text, or null for one of nothing
   */
  public @Nullable String value(int group) {
    return switch (function) {
      case COUNT -> Long.toString(count(group));
      case COUNT_DISTINCT -> Integer.toString(values.getOrDefault(group, Set.of()).size());
      case SUM -> count(group) == 0 ? null : sumOf(group).toPlainString();
      case AVG -> count(group) == 0 ? null : mean(sumOf(group), count(group));
      case MIN, MAX -> extremes.of(group);
    };
  }

  /** Returns the total over all groups, or null for one of nothing. */
  public @Nullable String grand() {
    long count = 0;
    BigDecimal sum = BigDecimal.ZERO;
    Set<String> all = new HashSet<>();
    for (int group = 0; group < index.groups(); group++) {
      count += count(group);
      sum = sum.add(sumOf(group));
      all.addAll(values.getOrDefault(group, Set.of()));
    }
    return switch (function) {
      case COUNT -> Long.toString(count);
      case COUNT_DISTINCT -> Integer.toString(all.size());
      case SUM -> count == 0 ? null : sum.toPlainString();
      case AVG -> count == 0 ? null : mean(sum, count);
      case MIN, MAX -> extremes.ofAll(index.groups());
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

  /** Returns cells that were passed over because they are no such value. */
  public RowErrors errors() {
    return RowErrors.sum(List.of(merged, frame.errors()));
  }

  /**
   * Adds what another thread has totalled.
   *
   * @param other the same total, over groups of its own
   * @param groupOf for each of those groups the one here with the same values
   */
  public void merge(GroupTotals other, int[] groupOf) {
    if (other.scale > scale) {
      rescale(other.scale);
    }
    for (int group = 0; group < groupOf.length; group++) {
      int to = groupOf[group];
      index.records()[at(to) + 1] += other.count(group);
      one.forgetWide();
      one.number(0, other.index.records()[other.at(group)], other.scale);
      sum(to);
    }
    other.wide.forEach((group, sum) -> wide.merge(groupOf[group], sum, BigDecimal::add));
    other.values.forEach(
        (group, more) -> values.computeIfAbsent(groupOf[group], g -> new HashSet<>()).addAll(more));
    extremes.merge(other.extremes, groupOf);
    merged = merged.and(other.errors());
  }

  /**
   * Carries what was totalled beside the groups' counters, or takes what another process has
   * totalled in place of nothing.
   *
   * @param carrier carries it
   */
  public void carry(Carrier carrier) {
    scale = carrier.number(scale);
    RowErrors all = errors().carried(carrier);
    merged = carrier.comesIn() ? all : merged;
    extremes.carry(carrier);
    List<Map.Entry<Integer, BigDecimal>> sums =
        carrier.all(
            List.copyOf(wide.entrySet()),
            Map.entry(0, BigDecimal.ZERO),
            sum ->
                Map.entry(
                    carrier.number(sum.getKey()),
                    Objects.requireNonNull(carrier.decimal(sum.getValue()))));
    sums.forEach(sum -> wide.put(sum.getKey(), sum.getValue()));
    List<Map.Entry<Integer, Set<String>>> sets =
        carrier.all(
            List.copyOf(values.entrySet()),
            Map.entry(0, Set.of()),
            set ->
                Map.entry(
                    carrier.number(set.getKey()),
                    new HashSet<>(carrier.all(List.copyOf(set.getValue()), "", carrier::words))));
    sets.forEach(set -> values.put(set.getKey(), set.getValue()));
  }

  @Override
  public String toString() {
    return "GroupTotals[" + function + ", " + index.groups() + " groups]";
  }
}
