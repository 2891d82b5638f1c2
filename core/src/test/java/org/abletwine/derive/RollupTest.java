package org.abletwine.derive;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.compute.Expression;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.ComputeFigures;
import org.abletwine.figures.KeepFigures;
import org.abletwine.figures.RollupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.TotalFigures;
import org.abletwine.lookup.Attribute;
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
    List<Attribute> totals =
        List.of(
            Attribute.parse("kg"),
            Attribute.parse("min(kg) as least"),
            Attribute.parse("max(kg) as most"),
            Attribute.parse("count(kg) as weighed"),
            Attribute.parse("count(*) as rows"),
            Attribute.parse("count(distinct kg) as different"));
    Rollup rollup = new Rollup(List.of("region", "crop"), totals, true, null, table);
    RunRecord run = Enrichment.of(table).step(rollup).build().writeTo(new ListSink());

    Map<String, List<@Nullable BigDecimal>> expected = new TreeMap<>();
    for (int row = 0; row < table.rowCount(); row++) {
      String kg = table.cell(row, 2);
      expected
          .computeIfAbsent(table.cell(row, 0) + "|" + table.cell(row, 1), k -> new ArrayList<>())
          .add(kg == null ? null : new BigDecimal(kg));
    }
    RollupFigures figures = run.of(RollupFigures.class).get(0);
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
            .step(new Compute("sum", "a + b", Expression.Settings.STRICT))
            .step(new Compute("twice", "sum * 2", Expression.Settings.STRICT))
            .step(new ControlTotal("a", "before"))
            .step(new Keep("a > 1", null, table, Expression.Settings.STRICT))
            .step(new Compute("more", "twice + 1", Expression.Settings.STRICT))
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
    ComputeFigures twice = run.of(ComputeFigures.class).get(1);
    assertThat(twice.nulls()).isEqualTo(2);
    assertThat(twice.reasons().toString()).contains("b: empty", "a: empty");
    KeepFigures keep = run.of(KeepFigures.class).get(0);
    assertThat(keep.leftOut()).isEqualTo(2);
    assertThat(keep.unknown()).isEqualTo(1);
    assertThat(run.of(TotalFigures.class).get(0).total()).isEqualByComparingTo("15");
    assertThat(run.of(TotalFigures.class).get(1).total()).isEqualByComparingTo("14");
    assertThat(run.rowsOut()).isEqualTo(2);
  }
}
