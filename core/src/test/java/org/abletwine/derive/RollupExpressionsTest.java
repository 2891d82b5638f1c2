package org.abletwine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.TreeMap;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Evaluation;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Totals of expressions and arithmetic with totals, which groups are wanted and in which order. */
class RollupExpressionsTest {
  private static final Table TABLE =
      MemoryTable.of("t", "g,h,kg,price", "a,x,10,2", "b,x,5,1", "a,y,30,4", "c,y,0,3", ",x,7,");

  private static StepFigures.RolledUp rollup(
      Table table, int workers, List<String> by, Rollup.Shown shown, String... totals) {
    Rollup rollup = new Rollup(by, List.of(totals), shown, true, null, table, Evaluation.STRICT);
    return Enrichment.of(table)
        .workers(workers)
        .step(rollup)
        .build()
        .writeTo(new ListSink())
        .of(StepFigures.RolledUp.class)
        .get(0);
  }

  private static Rollup.Shown shown(int top, @Nullable String having, String... order) {
    return new Rollup.Shown(List.of(order), top, having, List.of());
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void agreeWithAddingUpRowByRow(long seed) {
    Random random = new Random(seed);
    List<@Nullable String[]> cells = new ArrayList<>();
    TreeMap<String, List<BigDecimal[]>> expected = new TreeMap<>();
    for (int row = 0; row < 4_000; row++) {
      String group = "g" + random.nextInt(50);
      BigDecimal kg = BigDecimal.valueOf(random.nextInt(2_000), 1);
      BigDecimal price = BigDecimal.valueOf(random.nextInt(500), 2);
      boolean noPrice = random.nextInt(9) == 0;
      cells.add(
          new @Nullable String[] {
            group, kg.toPlainString(), noPrice ? null : price.toPlainString()
          });
      expected
          .computeIfAbsent(group, g -> new ArrayList<>())
          .add(new @Nullable BigDecimal[] {kg, noPrice ? null : price});
    }
    MemoryTable table = new MemoryTable("t", List.of("g", "kg", "price"), cells, 64);
    int top = 1 + random.nextInt(60);
    StepFigures.RolledUp figures =
        rollup(
            table,
            1 + random.nextInt(4),
            List.of("g"),
            shown(top, "rows > 60", "value desc", "g"),
            "sum(kg * price) as value",
            "round(sum(kg * price) / sum(kg), 4) as per_kg",
            "count(*) as rows",
            "count(distinct floor(kg / 100)) as hundreds",
            "max(kg) - min(kg) as spread");
    record Line(String group, BigDecimal value, List<String> cells) {}
    List<Line> lines = new ArrayList<>();
    expected.forEach(
        (group, rows) -> {
          BigDecimal value =
              rows.stream()
                  .filter(row -> row[1] != null)
                  .map(row -> row[0].multiply(row[1]))
                  .reduce(BigDecimal.ZERO, BigDecimal::add);
          BigDecimal kg = rows.stream().map(row -> row[0]).reduce(BigDecimal.ZERO, BigDecimal::add);
          BigDecimal per = value.divide(kg, 4, RoundingMode.HALF_UP);
          List<BigDecimal> all = rows.stream().map(row -> row[0]).sorted().toList();
          long hundreds = all.stream().map(one -> one.intValue() / 100).distinct().count();
          BigDecimal spread = all.get(all.size() - 1).subtract(all.get(0));
          lines.add(
              new Line(
                  group,
                  value,
                  List.of("" + value, "" + per, "" + rows.size(), "" + hundreds, "" + spread)));
        });
    List<Line> wanted =
        lines.stream()
            .filter(line -> Integer.parseInt(line.cells().get(2)) > 60)
            .sorted(Comparator.comparing(Line::value).reversed().thenComparing(Line::group))
            .limit(top)
            .toList();
    assertThat(figures.allGroups()).isEqualTo(expected.size());
    assertThat(figures.groups()).hasSize(wanted.size());
    for (int i = 0; i < wanted.size(); i++) {
      List<@Nullable String> got = figures.groups().get(i);
      assertThat(got.get(0)).isEqualTo(wanted.get(i).group());
      for (int cell = 0; cell < 5; cell++) {
        assertThat(new BigDecimal(Objects.requireNonNull(got.get(cell + 1))))
            .isEqualByComparingTo(wanted.get(i).cells().get(cell));
      }
    }
    BigDecimal all = lines.stream().map(Line::value).reduce(BigDecimal.ZERO, BigDecimal::add);
    assertThat(new BigDecimal(figures.grandTotal().get(0)))
        .as("over all groups, whichever are wanted")
        .isEqualByComparingTo(all);
  }

  @Test
  void aGrandTotalAloneIsOneGroupEvenOfNoRows() {
    StepFigures.RolledUp all =
        rollup(TABLE, 2, List.of(), Rollup.Shown.ALL, "kg", "sum(kg) / count(*) as mean");
    assertThat(all.groups()).containsExactly(List.of("52", "10.4"));
    Table none = MemoryTable.of("t", "g,kg");
    List<@Nullable String> nothing = new ArrayList<>();
    nothing.add("0");
    nothing.add(null);
    assertThat(rollup(none, 2, List.of(), Rollup.Shown.ALL, "count(*)", "kg").groups())
        .containsExactly(nothing);
    assertThat(rollup(none, 2, List.of("g"), Rollup.Shown.ALL, "kg").groups()).isEmpty();
  }

  @Test
  void aRatioOfNothingIsNullAndCounted() {
    StepFigures.RolledUp figures =
        rollup(TABLE, 1, List.of("g"), Rollup.Shown.ALL, "sum(price) / sum(kg) as ratio");
    assertThat(figures.groups().get(2)).containsExactly("c", null);
    assertThat(figures.errors()).isEqualTo(1);
    assertThat(figures.errorExample()).startsWith("group c, rollups, ratio: ").contains("zero");
  }

  @Test
  void orderIsThatOfTheValuesWithNullLast() {
    assertThat(firsts(shown(0, null, "kg desc"))).containsExactly("a", null, "b", "c");
    assertThat(firsts(shown(0, null, "kg"))).containsExactly("c", "b", null, "a");
    assertThat(firsts(shown(0, null, "g desc"))).containsExactly("c", "b", "a", null);
    assertThat(firsts(shown(2, null, "kg asc"))).containsExactly("c", "b");
    assertThat(firsts(shown(0, "kg between 5 and 7"))).containsExactly("b", null);
  }

  private static List<@Nullable String> firsts(Rollup.Shown shown) {
    List<@Nullable String> firsts = new ArrayList<>();
    rollup(TABLE, 1, List.of("g"), shown, "kg").groups().forEach(line -> firsts.add(line.get(0)));
    return firsts;
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "kg * 2 as x|has no column \"kg * 2\"",
        "sum(kg) + 1|needs a name; write sum(kg) + 1 as NAME",
        "sum(kgs)|has no column \"kgs\", nor has a step before added one; did you mean \"kg\"?",
        "sum(kg + kgs) as x|no column is called \"kgs\"",
        "sum(*)|only count takes *",
        "sum(distinct kg)|only count takes distinct",
        "sum(kg as x|needs a name",
        "round(kg, 2) as x|has no total in it",
        "1 + (2) as x|has no total in it",
        "count(*) as g|two columns are called \"g\"",
        "listagg(kg, ',') as x|listagg is not a total"
      })
  void whatCannotBeTotalledIsToldWithTheNextStep(String total, String message) {
    assertThatThrownBy(() -> rollup(TABLE, 1, List.of("g"), Rollup.Shown.ALL, total))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining(message);
  }

  @Test
  void settingsOfOrderAreChecked() {
    assertThatThrownBy(() -> firsts(shown(3, null)))
        .hasMessageContaining("top: the first of which order? State order: [COLUMN desc]");
    assertThatThrownBy(() -> firsts(shown(0, null, "kgs desc")))
        .hasMessageContaining("the rollup has no column \"kgs\"");
    assertThatThrownBy(() -> firsts(shown(0, "price > 1")))
        .hasMessageContaining("having: no column is called \"price\"");
  }

  /** Names and texts in quotes that look like totals are none. */
  @Test
  void quotesHideWhatLooksLikeATotal() {
    Table odd = MemoryTable.of("t", "g,sum(x) as y,k", "a,3,sum(kg)", "a,4,b");
    StepFigures.RolledUp figures =
        rollup(
            odd,
            1,
            List.of("g"),
            Rollup.Shown.ALL,
            "sum(\"sum(x) as y\") as t",
            "count(case when k = 'sum(kg)' then 1 end) as n");
    assertThat(figures.groups()).containsExactly(List.of("a", "7", "1"));
  }

  @Test
  void totalsAreFetchedLikeAnyReference() {
    Enrichment.Builder rows =
        Enrichment.of(TABLE).step(new Compute("value", "kg * price", Evaluation.STRICT));
    Table totals =
        rows.build()
            .totals(
                new Rollup(
                    List.of("g"),
                    List.of("sum(value) as of_group"),
                    false,
                    null,
                    TABLE,
                    Evaluation.STRICT));
    assertThat(totals.schema().names()).containsExactly("g", "of_group");
    ListSink sink = new ListSink();
    rows.lookup(Lookup.in(totals).key("g").bring("of_group"))
        .step(new Compute("share", "round(value / nullif(of_group, 0), 3)", Evaluation.STRICT))
        .build()
        .writeTo(sink);
    assertThat(sink.column("of_group")).containsExactly("140", "5", "140", "0", null);
    assertThat(totals.name()).isEqualTo("totals by g");
  }
}
