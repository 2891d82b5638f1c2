package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.abletwine.figures.RunRecord;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Every kind of control, at its limit and on either side of it. */
class ControlsTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(
        folder.resolve("t.csv"), "id,code,kg,day\n1,A,5,2026-07-01\n2,B,7,\n3,C,,\n4,Z,x,\n");
    Files.writeString(
        folder.resolve("r.csv"), "code,name,rate\nA,Ash,2\nB,Birch,3\nC,Cedar,\nC,Cedar,\n");
  }

  private static Arguments expect(String text, boolean holds, String figure, String limit) {
    return Arguments.of(text, holds, figure, limit);
  }

  static Stream<Arguments> controls() {
    return Stream.of(
        expect("matched: { r: 75% }", true, "75.00 % (3 of 4)", "at least 75 %"),
        expect("matched: { r: 75.01% }", false, "75.00 % (3 of 4)", "at least 75.01 %"),
        expect("rows: same", true, "4 rows out", "4 rows"),
        expect("rows: 5", false, "4 rows out", "5 rows"),
        expect("unique: [r]", false, "1 key on several rows", "none"),
        expect("nulls: { name: 25% }", true, "25.00 % (1 of 4)", "at most 25 %"),
        expect("nulls: { rate: 25% }", false, "50.00 % (2 of 4)", "at most 25 %"),
        expect(
            "totals: [kg]",
            true,
            "12 after, cells that are no numbers not counted: 1",
            "12 before"),
        expect("that: ['sum(id) = 10']", true, "sum(id) is 10", "sum(id) = 10"),
        expect("that: ['count(name) > 3']", false, "count(name) is 3", "count(name) > 3"),
        expect(
            "that: [\"max(day) = '2026-07-01'\"]",
            true,
            "max(day) is 2026-07-01",
            "max(day) = '2026-07-01'"),
        expect("that: ['avg(id) = 2.5']", true, "avg(id) is 2.5", "avg(id) = 2.5"),
        expect(
            "that: ['count(distinct code) = 4']",
            true,
            "count(distinct code) is 4",
            "count(distinct code) = 4"));
  }

  private RunRecord run(String rest) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\ntransactions: { file: t.csv }\n"
                + "references: { r: { file: r.csv, key: code } }\n"
                + rest
                + "outputs: { enriched: o.csv, record: run.json }\n");
    assertThat(PlanFile.check(plan)).isEmpty();
    return PlanFile.load(plan).run(Progress.NONE).record();
  }

  @ParameterizedTest
  @MethodSource("controls")
  void areJudgedExactly(String text, boolean holds, String figure, String limit)
      throws IOException {
    RunRecord record =
        run("steps: [{ lookup: r, bring: [name, rate] }]\ncontrols: { " + text + " }\n");
    assertThat(record.controls()).hasSize(1);
    RunRecord.Control one = record.controls().get(0);
    assertThat(one.figure()).isEqualTo(figure);
    assertThat(one.limit()).isEqualTo(limit);
    assertThat(one.holds()).isEqualTo(holds);
    assertThat(record.holds()).isEqualTo(holds);
    assertThat(Files.readString(folder.resolve("run.json")))
        .contains("\"controls_hold\" : " + holds);
    assertThat(folder.resolve("o.csv")).as("written all the same").exists();
  }

  @Test
  void aTotalThatALookupMultipliedDoesNotHold() throws IOException {
    Files.writeString(folder.resolve("r.csv"), "code,name\nA,Ash\nB,Birch\nC,Cedar\nC,Cypress\n");
    RunRecord record =
        run(
            """
            steps: [{ lookup: r, bring: [name], several: each }, { keep: "id <> 4" }]
            controls: { totals: [id], rows: same }
            """);
    assertThat(record.controls())
        .extracting(RunRecord.Control::figure)
        .containsExactlyInAnyOrder("4 rows out", "9 after");
    assertThat(record.controls())
        .extracting(RunRecord.Control::holds)
        .containsExactlyInAnyOrder(true, false);
  }

  @Test
  void aTotalStartsWhereItsColumnIsFirstThere() throws IOException {
    RunRecord record =
        run(
            """
            steps: [{ compute: { twice: id * 2 } }, { keep: "id < 3" }]
            controls: { totals: [twice] }
            """);
    RunRecord.Control one = record.controls().get(0);
    assertThat(List.of(one.figure(), one.limit())).containsExactly("6 after", "20 before");
    assertThat(one.holds()).isFalse();
  }
}
