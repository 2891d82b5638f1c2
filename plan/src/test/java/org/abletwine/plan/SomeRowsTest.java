package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Lookups for some rows only, prices that are too old, codes that stand in lists. */
class SomeRowsTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    write("t.csv", "id,site,day,kg", "1,A,2026-07-01,5", "2,TEST,2026-07-09,20", "3,,2026-08-01,7");
    write("sites.csv", "site,town,region", "A,Fenby,r1", "TEST,Nowhere,r9");
    write("regions.csv", "region,name", "r1,North", "r9,None");
    write("prices.csv", "from,price", "2026-06-30,10", "2026-07-08,11");
    write("areas.csv", "codes,area", "A; B,Low", "C;;TEST ; A,High", ",None");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private RunRecord run(String steps, String more) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            """
            able-twine: 1
            measure: kg
            transactions: { file: t.csv }
            references:
              sites: { file: sites.csv, key: site, links: { region: regions } }
              regions: { file: regions.csv, key: region }
              prices: { file: prices.csv }
              areas: { file: areas.csv }
            outputs: { enriched: o.csv, exceptions: e.csv, record: r.json, order-columns: [id] }
            """
                + steps
                + more);
    assertThat(PlanFile.check(plan)).isEmpty();
    return PlanFile.load(plan).run(Progress.NONE).record();
  }

  @Test
  void rowsThatAreNotAskedForAreAnOutcomeOfTheirOwn() throws IOException {
    RunRecord record =
        run(
            "steps: [{ lookup: sites, bring: [town, region.name], mark: m, when: \"site <> 'TEST'\","
                + " blank-key: fail, unmatched: drop }]\n",
            "controls: { matched: { sites: 100% } }\n");
    assertThat(Files.readString(folder.resolve("o.csv")))
        .isEqualTo(
            "id,site,day,kg,town,m,name\n1,A,2026-07-01,5,Fenby,matched,North\n"
                + "2,TEST,2026-07-09,20,,not-asked,\n3,,2026-08-01,7,,not-asked,\n");
    assertThat(Files.readString(folder.resolve("e.csv")).lines()).hasSize(1);
    for (LookupFigures lookup : record.lookups()) {
      assertThat(List.of(lookup.rows(), lookup.matched(), lookup.notAsked())).contains(3L, 1L, 2L);
      assertThat(lookup.asked()).isEqualTo(new LookupFigures.Asked("site <> 'TEST'", 1));
    }
    assertThat(record.lookups()).as("the link is not asked either").hasSize(2);
    LookupFigures.Attribute town = record.lookups().get(0).attributes().get(0);
    assertThat(town.notAsked()).isEqualTo(2).isEqualTo(town.nulls());
    assertThat(record.controls().get(0).figure()).as("of the rows asked for").contains("1 of 1");
    assertThat(Files.readString(folder.resolve("r.json")))
        .contains(
            "\"not_asked\" : 2",
            "\"when\" : \"site <> 'TEST'\"",
            "\"when_unknown\" : 1",
            "\"measure_by_outcome\" : [ 5, 0, 0, 0, 27 ]");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "no <> 1|no column is called",
        "kg + 1|a number where a condition is needed",
        "site <> |cannot read"
      })
  void aConditionThatIsNoneIsToldByCheck(String condition, String message) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { sites: { file: sites.csv,"
                + " key: site } }\noutputs: { enriched: o.csv }\nsteps: [{ lookup: sites, bring:"
                + " [town], when: \""
                + condition
                + "\" }]\n");
    assertThat(PlanFile.check(plan)).hasSize(1).allMatch(line -> line.contains(message));
  }

  @Test
  void whatIsTooOldIsAMissOfItsOwn() throws IOException {
    RunRecord record =
        run(
            "steps: [{ lookup: prices, bring: [price], key: { ours: day, theirs: from, match:"
                + " at-or-below, within: 14 } }]\n",
            "");
    assertThat(Files.readString(folder.resolve("o.csv"))).contains("1,A,2026-07-01,5,10\n", "7,\n");
    LookupFigures figures = record.lookups().get(0);
    assertThat(figures.misses())
        .containsExactly(
            new LookupFigures.Miss(
                "farther than within:",
                1,
                "row 3, 2026-08-01: 24 days above 2026-07-08, farther than within: 14"));
    assertThat(figures.distances()).isEqualTo(new LookupFigures.Distances(2, "1 day", "1 day"));
    assertThat(Files.readString(folder.resolve("r.json"))).contains("\"median\" : \"1 day\"");
  }

  @Test
  void aCodeIsFoundInALists() throws IOException {
    RunRecord record =
        run(
            "steps: [{ lookup: areas, bring: [area], key: { ours: site, theirs: codes, match:"
                + " listed, separator: \";\" }, several: each }]\n",
            "");
    assertThat(Files.readString(folder.resolve("o.csv")))
        .isEqualTo(
            "id,site,day,kg,area\n1,A,2026-07-01,5,Low\n1,A,2026-07-01,5,High\n"
                + "2,TEST,2026-07-09,20,High\n3,,2026-08-01,7,\n");
    LookupFigures figures = record.lookups().get(0);
    assertThat(figures.reference().severalKeys()).isEqualTo(1);
    assertThat(figures.fits().added()).isEqualTo(1);
  }
}
