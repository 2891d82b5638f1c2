package org.abletwine.derive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Step;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Steps that make columns of columns. */
class ColumnStepsTest {
  private static final Evaluation STRICT = Evaluation.STRICT;
  private static final Evaluation LENIENT = new Evaluation(true, null);

  private final MemoryTable table =
      MemoryTable.of("t", "id,mobile,landline,kg", "1,m1,,10", "2,,l2,20.5", "3,,,x", "4,m4,l4,");
  private final ListSink sink = new ListSink();

  private RunRecord run(Step... steps) {
    Enrichment.Builder builder = Enrichment.of(table);
    for (Step step : steps) {
      builder.step(step);
    }
    return builder.build().writeTo(sink);
  }

  @Test
  void coalesceTakesTheFirstThatIsThereAndCountsWhich() {
    RunRecord record =
        run(new Coalesce("reach", List.of("mobile", "landline"), "none", "reach_by"));
    assertThat(sink.column("reach")).containsExactly("m1", "l2", "none", "m4");
    assertThat(sink.column("reach_by")).containsExactly("mobile", "landline", "fill", "mobile");
    StepFigures.Coalesced figures = record.of(StepFigures.Coalesced.class).get(0);
    assertThat(figures.taken())
        .extracting(share -> share.rows() + " " + share.name())
        .containsExactly("2 mobile", "1 landline");
    assertThat(figures.filled()).isEqualTo(1);
    assertThat(figures.nulls()).isZero();
  }

  @Test
  void withoutAFillNullStaysNull() {
    RunRecord record = run(new Coalesce("reach", List.of("mobile", "landline"), null, null));
    assertThat(sink.column("reach")).containsExactly("m1", "l2", null, "m4");
    assertThat(record.of(StepFigures.Coalesced.class).get(0).nulls()).isEqualTo(1);
  }

  @Test
  void columnsAreRenamedOrderedAndDroppedWithoutTouchingCells() {
    run(
        new DropColumns(List.of("mobile")),
        new ArrangeColumns(Map.of("landline", "phone"), List.of("kg", "phone")));
    assertThat(sink.names()).containsExactly("kg", "phone", "id");
    assertThat(sink.column("phone")).containsExactly(null, "l2", null, "l4");
  }

  @Test
  void columnsAreOrderedByTheirOldNamesToo() {
    run(new ArrangeColumns(Map.of("landline", "phone"), List.of("landline", "kg")));
    assertThat(sink.names()).containsExactly("phone", "kg", "id", "mobile");
    assertThat(sink.column("phone")).containsExactly(null, "l2", null, "l4");
  }

  @Test
  void aColumnLeftOutIsGoneForWhatFollows() {
    assertThatThrownBy(
            () -> run(new DropColumns(List.of("kg")), new Compute("x", "kg + 1", STRICT)))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("no column is called \"kg\"");
    assertThatThrownBy(() -> run(new ArrangeColumns(Map.of("id", "kg"), List.of())))
        .hasMessageContaining("two columns would be called \"kg\"");
  }

  @Test
  void twoColumnsMayChangeTheirNamesForEachOther() {
    run(new ArrangeColumns(Map.of("mobile", "landline", "landline", "mobile"), List.of("mobile")));
    assertThat(sink.column("mobile")).containsExactly(null, "l2", null, "l4");
  }

  @Test
  void aValueThatIsNoNumberStopsARunOrBecomesNullWithItsReason() {
    assertThatThrownBy(() -> run(new Compute("double", "kg * 2", STRICT)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 3, compute double: column \"kg\": \"x\" is not a number")
        .hasMessageContaining("errors: null");
    RunRecord record = run(new Compute("double", "kg * 2", LENIENT));
    StepFigures.Computed figures = record.of(StepFigures.Computed.class).get(0);
    assertThat(sink.column("double")).containsExactly("20", "41.0", null, null);
    assertThat(figures.nulls()).isEqualTo(2);
    assertThat(figures.errors()).isEqualTo(1);
    assertThat(figures.errorExample()).contains("row 3");
    assertThat(figures.reasons())
        .extracting(share -> share.rows() + " " + share.name())
        .containsExactlyInAnyOrder("1 double: cannot be computed", "1 kg: empty");
  }

  @Test
  void aColumnCalledLikeAWordOfSqlIsToBeQuoted() {
    assertThatThrownBy(
            () ->
                run(
                    new Compute("double", "kg * 2", LENIENT),
                    new Compute("more", "double + 1", LENIENT)))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("cannot read `double + 1`: it goes wrong at character 8")
        .hasMessageContaining("write \"double\" in double quotes, since it is a word of SQL too");
    assertThatThrownBy(() -> run(new Compute("more", "kg +", LENIENT)))
        .message()
        .doesNotContain("double quotes");
  }

  /** An error, and an expression that gives null by itself, are told apart down the chain. */
  @Test
  void aNullOfTheExpressionItselfIsNamedAfterItsColumn() {
    RunRecord record =
        run(
            new Compute("double", "kg * 2", LENIENT),
            new Compute("more", "\"double\" + 1", LENIENT),
            new Compute("none", "nullif(id, id)", LENIENT),
            new Compute("after", "none || '!'", LENIENT));
    List<String> reasons = new ArrayList<>();
    for (StepFigures.Computed figures : record.of(StepFigures.Computed.class)) {
      figures
          .reasons()
          .forEach(
              share -> reasons.add(figures.column() + " " + share.rows() + " " + share.name()));
    }
    assertThat(reasons)
        .containsExactlyInAnyOrder(
            "double 1 double: cannot be computed",
            "double 1 kg: empty",
            "more 1 double: cannot be computed",
            "more 1 kg: empty",
            "none 4 none: the expression gives null",
            "after 4 none: the expression gives null");
  }

  /** Down the chain: the reason a computed null gives is that of the column it came from. */
  @Test
  void aComputedNullNamesWhyDownTheChain() {
    MemoryTable rates = MemoryTable.of("rates", "no,rate", "1,2", "2,", "4,3");
    RunRecord record =
        run(
            Lookup.in(rates).key("id", "no").bring("rate"),
            new Compute("fee", "rate * 10", STRICT),
            new Compute("total", "fee + 1", STRICT));
    assertThat(sink.column("total")).containsExactly("21", null, null, "31");
    assertThat(record.of(StepFigures.Computed.class).get(1).reasons())
        .extracting(share -> share.rows() + " " + share.name())
        .containsExactlyInAnyOrder("1 rate: empty", "1 rate: unmatched");
  }

  @ParameterizedTest
  @CsvSource({"0, 10, 21, 0, -4", "1, 10.0, 20.5, 0.1, -3.5", "3, 10.000, 20.500, 0.050, -3.500"})
  void decimalsAreRoundedHalfUpOrFilledUp(int places, String a, String b, String c, String d) {
    MemoryTable numbers = MemoryTable.of("n", "kg", "10", "20.5", "0.05", "-3.5", "");
    ListSink out = new ListSink();
    RunRecord record =
        Enrichment.of(numbers)
            .step(new FormatColumn("kg", null, places, STRICT))
            .build()
            .writeTo(out);
    assertThat(out.column("kg")).containsExactly(a, b, c, d, null);
    assertThat(record.of(StepFigures.Formatted.class).get(0).form())
        .isEqualTo(places + " decimals");
  }

  @Test
  void aFormatOfAComputedColumnIsTheLastThingDoneToIt() {
    run(
        new Compute("half", "id / 3", STRICT),
        new FormatColumn("half", null, 2, STRICT),
        new ArrangeColumns(Map.of("half", "third"), List.of("third")));
    assertThat(sink.names().get(0)).isEqualTo("third");
    assertThat(sink.column("third")).containsExactly("0.33", "0.67", "1.00", "1.33");
  }
}
