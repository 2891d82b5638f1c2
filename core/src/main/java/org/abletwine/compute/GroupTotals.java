package org.abletwine.compute;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.spill.ByteCursor;
import org.abletwine.table.spill.RowBytes;
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
    /** How many different values there are: counted by whoever has them all. */
    COUNT_DISTINCT
  }

  private static final int AVERAGE_PLACES = 10;
  private static final int MOST_SCALE = 15;

  /** About how many bytes a sum takes that does not fit in a long. */
  private static final int WIDE = 150;

  private final Function function;
  private final @Nullable ColumnType type;
  private final String what;
  private final Evaluation settings;
  private final GroupIndex index;
  private final int counter;
  private final Values one = new Values();
  private int scale;
  private final Map<Integer, BigDecimal> wide = new HashMap<>();
  private final Extremes extremes;
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
    this.type = type;
    this.what = what;
    this.settings = settings;
    this.extremes = new Extremes(function == Function.MIN, type);
    this.frame = new Frame(what, settings.errorsAreNull(), false);
    this.whole = type != null && type.kind() == ColumnType.Kind.INTEGER;
    this.index = index;
    this.counter = counter;
    one.prepare(1, Kind.NUMBER);
  }

  /**
   * Returns the same total of nothing.
   *
   * @param groups other groups
   * @param of which of their counters to use
   */
  public GroupTotals over(GroupIndex groups, int of) {
    return new GroupTotals(function, groups, of, type, what, settings);
  }

  /** Returns how many groups there are. */
  public int groups() {
    return index.groups();
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
    if (counts()) {
      index.records()[at(group) + 1]++;
      return;
    }
    if (orders()) {
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

  private boolean counts() {
    return function == Function.COUNT || function == Function.COUNT_DISTINCT;
  }

  private boolean orders() {
    return function == Function.MIN || function == Function.MAX;
  }

  /**
   * Adds to a count.
   *
   * @param group the group
   * @param more how many more there are
   */
  public void count(int group, long more) {
    index.records()[at(group) + 1] += more;
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
      case COUNT, COUNT_DISTINCT -> Long.toString(count(group));
      case SUM -> count(group) == 0 ? null : sumOf(group).toPlainString();
      case AVG -> count(group) == 0 ? null : mean(sumOf(group), count(group));
      case MIN, MAX -> extremes.of(group);
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

  /** Returns about how many bytes it takes beside the groups' counters. */
  public long bytes() {
    return (long) WIDE * wide.size() + (orders() ? (long) Extremes.BYTES * index.groups() : 0);
  }

  /** Forgets what is held of groups beside their counters, but not what their values are. */
  public void forgetGroups() {
    wide.clear();
    extremes.forgetGroups();
  }

  /**
   * Writes what a group has come to.
   *
   * @param group the group
   * @param into takes it
   */
  public void write(int group, RowBytes into) {
    if (orders()) {
      extremes.write(group, into);
      return;
    }
    into.number(count(group));
    if (!counts()) {
      BigDecimal sum = sumOf(group);
      boolean narrow = wide.isEmpty() || !wide.containsKey(group);
      into.number(narrow ? scale : -1);
      if (narrow) {
        into.number(index.records()[at(group)]);
      } else {
        into.text(sum.toString());
      }
    }
  }

  /**
   * Adds what was {@linkplain #write written}.
   *
   * @param group the group it is added to
   * @param from gives it
   */
  public void read(int group, ByteCursor from) {
    if (orders()) {
      extremes.read(group, from);
      return;
    }
    count(group, from.number());
    if (!counts()) {
      int places = (int) from.number();
      one.forgetWide();
      if (places < 0) {
        wide.merge(group, new BigDecimal(from.text()), BigDecimal::add);
      } else {
        one.number(0, from.number(), places);
        sum(group);
      }
    }
  }

  /**
   * Takes over what is known of the values of all groups: their places, and whether all are
   * numbers.
   *
   * @param other the same total
   */
  public void takeAfter(GroupTotals other) {
    if (other.scale > scale) {
      rescale(other.scale);
    }
    extremes.takeAfter(other.extremes);
  }

  /**
   * Adds what another thread has totalled.
   *
   * @param other the same total, over groups of its own
   * @param groupOf for each of those groups the one here with the same values
   */
  public void merge(GroupTotals other, int[] groupOf) {
    takeAfter(other);
    for (int group = 0; group < groupOf.length; group++) {
      add(groupOf[group], other, group);
    }
    merged = merged.and(other.errors());
  }

  /**
   * Adds what a group of another has come to, of whose values is known what is known here.
   *
   * @param to the group it is added to
   * @param other the same total
   * @param group its group
   */
  public void add(int to, GroupTotals other, int group) {
    if (orders()) {
      extremes.add(to, other.extremes, group);
      return;
    }
    count(to, other.count(group));
    if (counts()) {
      return;
    }
    one.forgetWide();
    one.number(0, other.index.records()[other.at(group)], other.scale);
    sum(to);
    BigDecimal more = other.wide.isEmpty() ? null : other.wide.get(group);
    if (more != null) {
      wide.merge(to, more, BigDecimal::add);
    }
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
  }

  @Override
  public String toString() {
    return "GroupTotals[" + function + ", " + index.groups() + " groups]";
  }
}
