package org.abletwine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.total.ControlThat;
import org.abletwine.derive.total.ControlTotal;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Rollups, totals, filters and computed columns against adding up row by row. */
class RollupTest {
  private static MemoryTable table(long seed, int rows) {
    Random random = new Random(seed);
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      String kg =
          switch (random.nextInt(6)) {
            case 0 -> null;
            case 1 -> random.nextInt(100) + ".25";
            case 2 -> Long.toString(random.nextLong());
            default -> Integer.toString(random.nextInt(1_000));
          };
      String region = random.nextInt(7) == 0 ? null : "r" + random.nextInt(40);
      cells.add(new @Nullable String[] {region, "c" + random.nextInt(3), kg});
    }
    return new MemoryTable("t", List.of("region", "crop", "kg"), cells, 100);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void groupsAddUpExactly(long seed) {
    MemoryTable table = table(seed, 3_000);
    List<String> totals =
        List.of(
            "kg",
            "min(kg) as least",
            "max(kg) as most",
            "count(kg) as weighed",
            "count(*) as rows",
            "count(distinct kg) as different");
    Rollup rollup =
        new Rollup(List.of("region", "crop"), totals, true, null, table, Evaluation.STRICT);
    RunRecord run = Enrichment.of(table).step(rollup).build().writeTo(new ListSink());

    Map<String, List<@Nullable BigDecimal>> expected = new TreeMap<>();
    for (int row = 0; row < table.rowCount(); row++) {
      String kg = table.cell(row, 2);
      expected
          .computeIfAbsent(table.cell(row, 0) + "|" + table.cell(row, 1), k -> new ArrayList<>())
          .add(kg == null ? null : new BigDecimal(kg));
    }
    StepFigures.RolledUp figures = run.of(StepFigures.RolledUp.class).get(0);
    assertThat(figures.groups()).hasSize(expected.size());
    BigDecimal all = BigDecimal.ZERO;
    for (List<@Nullable String> group : figures.groups()) {
      List<@Nullable BigDecimal> values = expected.get(group.get(0) + "|" + group.get(1));
      List<BigDecimal> known = new ArrayList<>();
      values.stream().filter(java.util.Objects::nonNull).forEach(known::add);
      BigDecimal sum = known.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
      all = all.add(sum);
      if (!known.isEmpty()) {
        assertThat(new BigDecimal(group.get(2))).isEqualByComparingTo(sum);
        assertThat(new BigDecimal(group.get(3)))
            .isEqualByComparingTo(known.stream().min(BigDecimal::compareTo).orElseThrow());
        assertThat(new BigDecimal(group.get(4)))
            .isEqualByComparingTo(known.stream().max(BigDecimal::compareTo).orElseThrow());
      }
      assertThat(group.get(5)).isEqualTo("" + known.size());
      assertThat(group.get(6)).isEqualTo("" + values.size());
      assertThat(group.get(7)).isEqualTo("" + known.stream().distinct().count());
    }
    assertThat(new BigDecimal(figures.grandTotal().get(0))).isEqualByComparingTo(all);
    assertThat(figures.grandTotal().get(4)).isEqualTo("3000");
    assertThat(figures.groups().get(figures.groups().size() - 1).get(0)).as("nulls last").isNull();
  }

  @Test
  void filtersAndComputedColumnsCountWhatTheyDo() {
    MemoryTable table = MemoryTable.of("t", "a,b", "1,2", "5,", "9,3", ",1");
    ListSink sink = new ListSink();
    RunRecord run =
        Enrichment.of(table)
            .step(new Compute("sum", "a + b", Evaluation.STRICT))
            .step(new Compute("twice", "sum * 2", Evaluation.STRICT))
            .step(new ControlTotal("a", "before"))
            .step(new Keep("a > 1", null, table, Evaluation.STRICT))
            .step(new Compute("more", "twice + 1", Evaluation.STRICT))
            .step(new ControlTotal("a", "after"))
            .step(new Coalesce("first", List.of("sum", "a"), "none", "from"))
            .step(new ArrangeColumns(Map.of("first", "best"), List.of("best")))
            .step(new DropColumns(List.of("b")))
            .build()
            .writeTo(sink);
    assertThat(sink.names()).containsExactly("best", "a", "sum", "twice", "more", "from");
    assertThat(sink.column("more")).containsExactly(null, "25");
    assertThat(sink.column("best")).containsExactly("5", "12");
    assertThat(sink.column("from")).containsExactly("a", "sum");
    StepFigures.Computed twice = run.of(StepFigures.Computed.class).get(1);
    assertThat(twice.nulls()).isEqualTo(2);
    assertThat(twice.reasons().toString()).contains("b: empty", "a: empty");
    StepFigures.Kept keep = run.of(StepFigures.Kept.class).get(0);
    assertThat(keep.leftOut()).isEqualTo(2);
    assertThat(keep.unknown()).isEqualTo(1);
    assertThat(run.of(StepFigures.Control.class).get(0).total()).isEqualByComparingTo("15");
    assertThat(run.of(StepFigures.Control.class).get(1).total()).isEqualByComparingTo("14");
    assertThat(run.rowsOut()).isEqualTo(2);
  }

  private static StepFigures.RolledUp rollup(
      MemoryTable table, boolean errorsAreNull, String... totals) {
    Rollup rollup =
        new Rollup(
            List.of("by"), List.of(totals), true, null, table, new Evaluation(errorsAreNull, null));
    return Enrichment.of(table)
        .step(rollup)
        .build()
        .writeTo(new ListSink())
        .of(StepFigures.RolledUp.class)
        .get(0);
  }

  @Test
  void leastAndGreatestAreThoseOfTheColumnsTypeAndStayAsWritten() {
    MemoryTable table =
        MemoryTable.of(
                "t",
                "by,code,mixed,day,local",
                "a,007,9,2026-02-01,01.03.2026",
                "a,0010,x,2026-10-01,28.02.2026",
                "b,,10,,31.12.2025",
                "b,5,,2026-01-31,01.01.2026")
            .typed("day", ColumnType.Kind.DATE)
            .typed("local", ColumnType.Kind.DATE, "dd.MM.yyyy");
    StepFigures.RolledUp figures =
        rollup(
            table,
            false,
            "min(code) as c1",
            "max(code) as c2",
            "min(mixed) as m1",
            "max(mixed) as m2",
            "min(day) as d1",
            "max(day) as d2",
            "min(local) as l1",
            "max(local) as l2");
    assertThat(figures.groups())
        .containsExactly(
            List.of(
                "a",
                "007",
                "0010",
                "9",
                "x",
                "2026-02-01",
                "2026-10-01",
                "28.02.2026",
                "01.03.2026"),
            List.of(
                "b", "5", "5", "10", "10", "2026-01-31", "2026-01-31", "31.12.2025", "01.01.2026"));
    assertThat(figures.grandTotal())
        .containsExactly(
            "5", "0010", "10", "x", "2026-01-31", "2026-10-01", "31.12.2025", "01.03.2026");
  }

  @Test
  void aCellThatCannotBeTotalledEndsTheRunOrIsCounted() {
    MemoryTable table = MemoryTable.of("t", "by,kg", "a,1", "a,n/a", "b,none", "b,2");
    for (String total : List.of("kg", "avg(kg) as mean")) {
      assertThatThrownBy(() -> rollup(table, false, total))
          .isInstanceOf(DataException.class)
          .hasMessageContaining("row 2, rollups, ")
          .hasMessageContaining("(kg): \"n/a\" is not a number");
    }
    StepFigures.RolledUp figures = rollup(table, true, "kg", "count(kg) as filled");
    assertThat(figures.groups()).containsExactly(List.of("a", "1", "2"), List.of("b", "2", "2"));
    assertThat(figures.errors()).isEqualTo(2);
    assertThat(figures.errorExample())
        .isEqualTo("row 2, rollups, sum(kg): \"n/a\" is not a number");
  }

  @Test
  void aTotalOfAColumnStatedToHoldNoNumbersIsRefusedBeforeTheRun() {
    MemoryTable table =
        MemoryTable.of("t", "by,day", "a,2026-01-01").typed("day", ColumnType.Kind.DATE);
    assertThatThrownBy(() -> rollup(table, true, "day"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("sum(day): the column holds a date, and a number is needed");
    assertThat(rollup(table, true, "max(day) as last").errors()).isZero();
  }

  @Test
  void conditionsOnTheWholeMayBeAboutDatesAndText() {
    MemoryTable table =
        MemoryTable.of("t", "kg,day,code", "9,2026-07-01,a", "10,2026-06-30,b", ",,c")
            .typed("day", ColumnType.Kind.DATE);
    String[] hold = {
      "min(day) = date '2026-06-30' and max(day) < date '2026-07-02'",
      "max(kg) = 10 and min(kg) = 9",
      "max(code) = 'c'",
      "count(distinct code) = 3 and count(kg) = 2 and count(*) = 3",
      "sum(kg) = sum(kg * 2) / 2",
      "max(day) - min(day) = 1"
    };
    for (String condition : hold) {
      assertThat(that(table, condition).holds()).as(condition).isTrue();
    }
    StepFigures.Judged failed = that(table, "max(day) < date '2026-07-01'");
    assertThat(failed.holds()).isFalse();
    assertThat(failed.figure()).isEqualTo("max(day) is 2026-07-01");
    assertThatThrownBy(() -> that(table, "sum(day) > 1"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("day")
        .hasMessageContaining("number is needed");
    assertThatThrownBy(() -> that(table, "sum(kg) > date '2026-01-01'"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("sum(kg)");
    assertThatThrownBy(() -> that(table, "kg > 3"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("has no total in it");
  }

  private static StepFigures.Judged that(MemoryTable table, String condition) {
    return Enrichment.of(table)
        .step(new ControlThat(condition, Evaluation.STRICT))
        .build()
        .writeTo(new ListSink())
        .of(StepFigures.Judged.class)
        .get(0);
  }
}
