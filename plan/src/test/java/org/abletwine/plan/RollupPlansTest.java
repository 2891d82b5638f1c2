package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Rollups of a plan: which groups, in which order and form, and as a reference of the same plan.
 */
class RollupPlansTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    write("t.csv", "id,site,kg", "1,A,500", "2,B,20", "3,A,100", "4,C,80", "5,,1");
    write(
        "s.csv", "site,region,crop", "A,North,oats", "B,South,rye", "C,South,oats", "C,South,pea");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private Path plan(String more, String steps, String outputs) throws IOException {
    return Files.writeString(
        folder.resolve("p.plan.yaml"),
        "able-twine: 1\ntransactions: { file: t.csv }\nreferences:\n  s: { file: s.csv, key: site }\n"
            + more
            + "steps:\n"
            + steps
            + "outputs: { "
            + outputs
            + " }\n");
  }

  private PlannedRun.Result run(String more, String steps, String outputs) throws IOException {
    Path plan = plan(more, steps, outputs);
    assertThat(PlanFile.check(plan)).isEmpty();
    return PlanFile.load(plan).run(Progress.NONE);
  }

  private static final String REGION = "  - { lookup: s, bring: [region], several: first }\n";

  @Test
  void groupsAreOrderedCutAndFormatted() throws IOException {
    PlannedRun.Result result =
        run(
            "",
            REGION,
            "rollups: { by: [region], totals: [kg, \"sum(kg) / count(*) as mean\"], having: \"kg >"
                + " 1\", order: [kg desc], top: 1, grand-total: true, formats: { mean: { decimals:"
                + " 1 }, kg: { decimals: 2 } }, file: u.csv }");
    assertThat(Files.readString(folder.resolve("u.csv")))
        .isEqualTo("region,kg,mean\nNorth,600.00,300.0\nall,701.00,140.2\n");
    assertThat(result.others()).anyMatch(line -> line.contains("totals by region, 1 of 3 groups"));
    StepFigures.RolledUp figures = result.record().of(StepFigures.RolledUp.class).get(0);
    assertThat(figures.order()).containsExactly("kg desc");
  }

  @Test
  void aListOfNothingMakesOneLineOfAllRows() throws IOException {
    PlannedRun.Result result =
        run(
            "",
            REGION,
            "rollups: { by: [], totals: [kg, count(*)], grand-total: true, file: u.csv }");
    assertThat(Files.readString(folder.resolve("u.csv"))).isEqualTo("kg,rows\n701,5\n");
    assertThat(result.others()).anyMatch(line -> line.contains("totals of all rows"));
  }

  @Test
  void aTotalOfTheSamePlanIsFetchedByALaterStep() throws IOException {
    run(
        "  of_region: { rollup: { by: [region], totals: [sum(net) as region_kg] } }\n",
        REGION
            + "  - compute: { net: kg - 1 }\n"
            + "  - { lookup: of_region, bring: [region_kg] }\n"
            + "  - compute: { share: \"round(100 * net / region_kg, 1)\" }\n",
        "enriched: o.csv");
    assertThat(Files.readString(folder.resolve("o.csv")))
        .isEqualTo(
            "id,site,kg,region,net,region_kg,share\n1,A,500,North,499,598,83.4\n"
                + "2,B,20,South,19,98,19.4\n3,A,100,North,99,598,16.6\n4,C,80,South,79,98,80.6\n"
                + "5,,1,,0,,\n");
  }

  /** The rows that a filter left out are in no total, and its file is written once, by the run. */
  @Test
  void totalsAreOfTheRowsAsTheStepsBeforeLeaveThem() throws IOException {
    run(
        "  all: { rollup: { by: [site], totals: [count(*) as n] } }\n",
        "  - { keep: kg > 50, left-out: left.csv }\n  - { lookup: all, bring: [n] }\n",
        "enriched: o.csv");
    assertThat(Files.readString(folder.resolve("o.csv")))
        .isEqualTo("id,site,kg,n\n1,A,500,2\n3,A,100,2\n4,C,80,1\n");
    assertThat(Files.readString(folder.resolve("left.csv")))
        .isEqualTo("id,site,kg\n2,B,20\n5,,1\n");
  }

  @Test
  void differentValuesAreCountedOfTheRowsAKeyFits() throws IOException {
    run(
        "",
        "  - { lookup: s, bring: [\"count(distinct crop) as crops\", \"count(distinct region) as r\"] }\n",
        "enriched: o.csv");
    assertThat(Files.readString(folder.resolve("o.csv")))
        .isEqualTo(
            "id,site,kg,crops,r\n1,A,500,1,1\n2,B,20,1,1\n3,A,100,1,1\n4,C,80,2,1\n5,,1,,\n");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "by: [region], totals: [kg], file: x.csv|references, of, rollup: no setting is called \"file\" here",
        "by: [town], totals: [kg]|rollups, by: t.csv has no column \"town\"",
        "by: [], totals: [kg]|totals that a step fetches are found by what they are by",
        "by: [region]|state a rollup as { by: [COLUMN], totals: [COLUMN]",
        "by: [region], totals: [kg], top: none|expected how many groups are wanted, 1 or more"
      })
  void mistakesInTotalsAreToldByCheck(String rollup, String message) throws IOException {
    Path plan =
        plan(
            "  of: { rollup: { " + rollup + " } }\n",
            REGION + "  - { lookup: of, key: region, bring: [kg as all_kg] }\n",
            "enriched: o.csv");
    assertThat(PlanFile.check(plan).toString()).contains(message);
  }

  @Test
  void correctionsAreNoTotals() throws IOException {
    Path plan =
        plan(
            "  of: { rollup: { by: [site], totals: [kg] } }\n",
            "  - { correct: site, using: of }\n",
            "enriched: o.csv");
    assertThat(PlanFile.check(plan)).hasSize(1).allMatch(line -> line.contains("written"));
  }
}
