package org.abletwine.compute;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import org.abletwine.BatchFilling;
import org.abletwine.compute.GroupTotals.Function;
import org.abletwine.index.GroupIndex;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.spill.ByteCursor;
import org.abletwine.table.spill.MemoryBytes;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Totals of groups and of a whole column, against big decimals that hold every value. */
class GroupTotalsTest {
  private static final Evaluation LENIENT = new Evaluation(true, null);

  /** A total over rows of a group and a value, in batches of three. */
  private static GroupTotals totals(
      Function function,
      @Nullable ColumnType type,
      Evaluation settings,
      BatchFilling filling,
      List<@Nullable String[]> rows) {
    GroupIndex index = new GroupIndex(1, GroupTotals.COUNTERS + 1);
    GroupTotals totals = new GroupTotals(function, index, 1, type, "total of kg", settings);
    for (int from = 0; from < rows.size(); from += 3) {
      Batch batch = new Batch(2);
      filling.fill(batch, from + 1, rows.subList(from, Math.min(from + 3, rows.size())));
      int[] groups = new int[batch.rows()];
      index.find(new CellVector[] {batch.column(0)}, batch.rows(), groups);
      totals.add(groups, batch.column(1), batch);
    }
    return totals;
  }

  /** The total over all groups: added up as one. */
  private static @Nullable String grand(GroupTotals totals) {
    GroupIndex one = new GroupIndex(0, GroupTotals.COUNTERS);
    one.find(new CellVector[0], 1, new int[1]);
    GroupTotals all = totals.over(one, 0);
    all.merge(totals, new int[totals.groups()]);
    return all.value(0);
  }

  /** The same totals, written and read group by group. */
  private static GroupTotals onceMore(GroupTotals totals, int groups) {
    GroupIndex index = new GroupIndex(1, GroupTotals.COUNTERS);
    GroupTotals read = totals.over(index, 0);
    read.takeAfter(totals);
    RowBytes written = new RowBytes();
    Batch batch = new Batch(1);
    batch.clear(1, '\0');
    for (int group = 0; group < groups; group++) {
      totals.write(group, written);
      batch.addCell("g" + group);
      batch.endRow();
    }
    MemoryBytes bytes = new MemoryBytes();
    bytes.append(written.bytes(), written.used());
    index.find(new CellVector[] {batch.column(0)}, groups, new int[groups]);
    ByteCursor cursor = new ByteCursor(bytes, 16);
    for (int group = 0; group < groups; group++) {
      read.read(group, cursor);
    }
    assertThat(cursor.place()).isEqualTo(bytes.size());
    return read;
  }

  private static GroupTotals of(
      Function function, @Nullable ColumnType type, Evaluation settings, String... cells) {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (String cell : cells) {
      rows.add(new @Nullable String[] {"a", cell.equals("null") ? null : cell});
    }
    return totals(function, type, settings, BatchFilling.CELLS, rows);
  }

  /** Values that do and do not fit, and places that jump up and down between them. */
  private static @Nullable String cell(Random random) {
    return switch (random.nextInt(8)) {
      case 0 -> null;
      case 1 -> BigDecimal.valueOf(random.nextLong(), random.nextInt(19)).toPlainString();
      case 2 -> BigDecimal.valueOf(random.nextLong()).toPlainString();
      case 3 -> random.nextInt(40) - 20 + "e" + random.nextInt(30);
      case 4 -> BigDecimal.valueOf(random.nextInt(99), 14 + random.nextInt(4)).toPlainString();
      default -> BigDecimal.valueOf(random.nextInt(2000) - 1000, random.nextInt(4)).toPlainString();
    };
  }

  private static @Nullable String expected(Function function, List<String> values) {
    BigDecimal sum = values.stream().map(BigDecimal::new).reduce(BigDecimal.ZERO, BigDecimal::add);
    int sign = function == Function.MIN ? -1 : 1;
    return switch (function) {
      case COUNT -> String.valueOf(values.size());
      case COUNT_DISTINCT -> throw new IllegalArgumentException("counted elsewhere");
      case SUM -> values.isEmpty() ? null : sum.toPlainString();
      case AVG ->
          values.isEmpty()
              ? null
              : sum.divide(new BigDecimal(values.size()), 40, RoundingMode.HALF_UP).toPlainString();
      case MIN, MAX -> {
        String best = null;
        for (String value : values) {
          if (best == null || new BigDecimal(value).compareTo(new BigDecimal(best)) * sign > 0) {
            best = value;
          }
        }
        yield best;
      }
    };
  }

  private static void same(Function function, @Nullable String found, @Nullable String wanted) {
    boolean number = function == Function.SUM || function == Function.AVG;
    if (wanted == null || found == null || !number) {
      assertThat(found).isEqualTo(wanted);
    } else if (function == Function.SUM) {
      assertThat(new BigDecimal(found)).isEqualByComparingTo(wanted);
    } else {
      BigDecimal off = new BigDecimal(found).subtract(new BigDecimal(wanted)).abs();
      assertThat(off).isLessThanOrEqualTo(new BigDecimal("0.00000000005"));
    }
  }

  @ParameterizedTest
  @EnumSource(mode = EnumSource.Mode.EXCLUDE, names = "COUNT_DISTINCT")
  void comesToWhatBigDecimalsComeTo(Function function) {
    for (int seed = 0; seed < 60; seed++) {
      Random random = new Random(seed);
      List<@Nullable String[]> rows = new ArrayList<>();
      List<String> all = new ArrayList<>();
      List<String> names = new ArrayList<>();
      List<List<String>> held = new ArrayList<>();
      for (int row = 0; row < 40; row++) {
        String group = "g" + random.nextInt(1 + random.nextInt(6));
        String value = cell(random);
        rows.add(new @Nullable String[] {group, value});
        if (!names.contains(group)) {
          names.add(group);
          held.add(new ArrayList<>());
        }
        if (value != null) {
          held.get(names.indexOf(group)).add(value);
          all.add(value);
        }
      }
      BatchFilling filling = BatchFilling.values()[seed % BatchFilling.values().length];
      GroupTotals totals = totals(function, null, Evaluation.STRICT, filling, rows);
      for (int group = 0; group < names.size(); group++) {
        same(function, totals.value(group), expected(function, held.get(group)));
      }
      GroupTotals read = onceMore(totals, names.size());
      for (int group = 0; group < names.size(); group++) {
        assertThat(read.value(group)).isEqualTo(totals.value(group));
      }
      if (function == Function.MIN || function == Function.MAX) {
        // Of equals in several groups any may be named: they are written differently at most.
        assertThat(new BigDecimal(String.valueOf(grand(totals))))
            .isEqualByComparingTo(String.valueOf(expected(function, all)));
      } else {
        same(function, grand(totals), expected(function, all));
      }
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      nullValues = "none",
      value = {
        "SUM | 1,2.50,0.125 | 3.625",
        "SUM | 2.50,-2.5 | 0.00",
        "SUM | 9223372036854775807,1 | 9223372036854775808",
        "SUM | -9223372036854775808,-1 | -9223372036854775809",
        "SUM | 9223372036854775806,1 | 9223372036854775807",
        "SUM | 9223372036854775807,1,-1 | 9223372036854775807",
        "SUM | 922337203685477580,0.1 | 922337203685477580.1",
        "SUM | 922337203685477581,0.1 | 922337203685477581.1",
        "SUM | -922337203685477580,0.1 | -922337203685477579.9",
        "SUM | 0.1,922337203685477580.7,0.1 | 922337203685477580.9",
        "SUM | 0.1,922337203685477581 | 922337203685477581.1",
        "SUM | 0.000000000000001,1 | 1.000000000000001",
        "SUM | 0.0000000000000001,1 | 1.0000000000000001",
        "SUM | 1e30,1 | 1000000000000000000000000000001",
        "SUM | null,null | none",
        "AVG | null | none",
        "AVG | 1,2 | 1.5",
        "AVG | 1,1,2 | 1.3333333333",
        "AVG | 2,2,1 | 1.6666666667",
        "AVG | 2.00,4.00 | 3.00",
        "AVG | 0.00000000000003,0 | 0.00000000000002",
        "AVG | 10,20 | 15",
        "AVG | 100,300 | 200",
        "COUNT | null,x,7 | 2",
        "MIN | 10,9,9.0 | 9",
        "MAX | 10,9,10.0 | 10",
        "MIN | 10,9,x | 10",
        "MAX | 10,9,x | x",
        "MAX | x,10,9 | x",
        "MIN | null | none",
        "MIN | b,a, a | a",
        "MIN | \uFFFD,\uD83C\uDF3E | \uFFFD"
      })
  void ofOneGroup(String function, String cells, @Nullable String total) {
    Function of = Function.valueOf(function);
    GroupTotals totals = of(of, null, Evaluation.STRICT, cells.split(","));
    assertThat(totals.value(0)).isEqualTo(total);
    assertThat(grand(totals)).isEqualTo(total);
    assertThat(totals.errors().count()).isZero();
    assertThat(totals).hasToString("GroupTotals[" + function + ", 1 groups]");
  }

  /** A stated type orders; what is not of it ends the run, or is passed over and counted. */
  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      nullValues = "none",
      value = {
        "MIN | NUMBER | 10,x,9 | 9 | a number",
        "MAX | NUMBER | 1e3,x | 1000 | a number",
        "MAX | INTEGER | 10,9.5,9 | 10 | a whole number",
        "MIN | INTEGER | 10.0,9.5,11 | 10.0 | a whole number",
        "MAX | TEXT | 10,9 | 9 | none",
        "MIN | DATE | 2026-07-20,x,2026-07-19 | 2026-07-19 | a date",
        "SUM | INTEGER | 7.0,1.5,2 | 9.0 | a whole number",
        "SUM | NUMBER | 7,x,2 | 9 | a number",
        "AVG | NUMBER | 7,x,2 | 4.5 | a number",
        "SUM | INTEGER | 1e30,1e-1 | 1000000000000000000000000000000 | a whole number"
      })
  void ofAStatedType(
      String function, String kind, String cells, String total, @Nullable String noun) {
    Function of = Function.valueOf(function);
    ColumnType type = ColumnType.of(ColumnType.Kind.valueOf(kind));
    GroupTotals lenient = of(of, type, LENIENT, cells.split(","));
    assertThat(lenient.value(0)).isEqualTo(total);
    assertThat(grand(lenient)).isEqualTo(total);
    assertThat(lenient.errors().count()).isEqualTo(noun == null ? 0 : 1);
    if (noun != null) {
      assertThat(lenient.errors().example())
          .startsWith("row 2, total of kg: ")
          .endsWith("not " + noun);
      assertThatThrownBy(() -> of(of, type, Evaluation.STRICT, cells.split(",")))
          .isInstanceOf(DataException.class)
          .hasMessageContaining(
              "row 2, total of kg: \"" + cells.split(",")[1] + "\" is not " + noun);
    } else {
      assertThat(lenient.errors().example()).isEmpty();
    }
  }

  @Test
  void groupsWithoutAValueAreNullBesideOthersThatHaveOne() {
    List<@Nullable String[]> rows =
        List.of(
            new @Nullable String[] {"a", null},
            new @Nullable String[] {"b", "2"},
            new @Nullable String[] {"c", null},
            new @Nullable String[] {"d", "1"},
            new @Nullable String[] {"b", "3"});
    for (Function function : EnumSet.complementOf(EnumSet.of(Function.COUNT_DISTINCT))) {
      GroupTotals totals = totals(function, null, Evaluation.STRICT, BatchFilling.TEXT, rows);
      String none = function.name().startsWith("COUNT") ? "0" : null;
      assertThat(List.of(0, 2)).allSatisfy(g -> assertThat(totals.value(g)).isEqualTo(none));
      assertThat(grand(totals))
          .isEqualTo(
              switch (function) {
                case SUM -> "6";
                case AVG -> "2";
                case MIN -> "1";
                default -> "3";
              });
    }
  }

  @Test
  void rowsAreCountedWhateverTheyHold() {
    GroupIndex index = new GroupIndex(1, GroupTotals.COUNTERS + 1);
    GroupTotals totals = new GroupTotals(Function.COUNT, index, 1, null, "rows", Evaluation.STRICT);
    Batch batch = new Batch(1);
    BatchFilling.CELLS.fill(
        batch,
        1,
        List.of(
            new @Nullable String[] {"a"},
            new @Nullable String[] {null},
            new @Nullable String[] {"a"}));
    int[] groups = new int[3];
    index.find(new CellVector[] {batch.column(0)}, 3, groups);
    totals.addRows(groups, 3);
    totals.addRows(groups, 2);
    assertThat(totals.value(0)).isEqualTo("3");
    assertThat(totals.value(1)).isEqualTo("2");
    assertThat(grand(totals)).isEqualTo("5");
    assertThat(index.records()[index.counters(0)]).as("the counter of another total").isZero();
  }

  /** The least of text over groups, when numbers met a text only in a later group. */
  @Test
  void numbersAreTextInAllGroupsOnceOneIsText() {
    List<@Nullable String[]> rows =
        List.of(
            new @Nullable String[] {"a", "10"},
            new @Nullable String[] {"a", "9"},
            new @Nullable String[] {"b", "x"});
    GroupTotals least = totals(Function.MIN, null, Evaluation.STRICT, BatchFilling.TEXT, rows);
    assertThat(least.value(0)).isEqualTo("10");
    assertThat(least.value(1)).isEqualTo("x");
    assertThat(grand(least)).isEqualTo("10");
    assertThat(ValueOrder.byCodePoint("10", "9")).isNegative();
  }

  @Test
  void aTotalOfAColumnLeavesOutNullsAndWhatIsNoNumber() {
    Total total = new Total();
    Total whole = new Total(ColumnType.of(ColumnType.Kind.INTEGER));
    assertThat(total.value()).isEqualByComparingTo("0");
    String[] cells = {"9223372036854775807", "1", "null", "x", "0.5", "1e25", "-1"};
    boolean[] numbers = {true, true, false, false, true, true, true};
    for (int i = 0; i < cells.length; i++) {
      CellVector cell = OneRow.of(cells[i].equals("null") ? null : cells[i]).column(0);
      assertThat(total.add(cell, 0)).as(cells[i]).isEqualTo(numbers[i]);
      assertThat(whole.add(cell, 0)).as(cells[i]).isEqualTo(numbers[i] && i != 4);
      if (numbers[i]) {
        assertThat(total.last()).isEqualByComparingTo(cells[i]);
      }
    }
    assertThat(total.value()).isEqualByComparingTo("10000009223372036854775807.5");
    assertThat(whole.value()).isEqualByComparingTo("10000009223372036854775807");
    assertThat(List.of(total.rows(), total.nulls(), total.notNumbers()))
        .containsExactly(7L, 1L, 1L);
    assertThat(List.of(whole.rows(), whole.nulls(), whole.notNumbers()))
        .containsExactly(7L, 1L, 2L);
    assertThat(total).hasToString("Total[10000009223372036854775807.5]");
  }
}
