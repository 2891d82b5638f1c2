package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PlanFileTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(folder.resolve("tickets.csv"), "ticket_no,grower_code\n1,G1\n2, G2\n3,G9\n");
    Files.writeString(
        folder.resolve("growers.csv"), "grower_no,name,Postal code\nG1,Thistle,100\nG2,Merrow,\n");
  }

  private Path plan(String text) throws IOException {
    return Files.writeString(folder.resolve("p.plan.yaml"), text);
  }

  private List<String> mistakes(String text) throws IOException {
    return PlanFile.check(plan(text));
  }

  @Test
  void runsAndWritesWhatItSays() throws IOException {
    Path plan =
        plan(
            """
            able-twine: 1
            transactions: { file: tickets.csv }
            references:
              growers: { file: growers.csv, key: grower_no }
            steps:
              - lookup: growers
                key: { ours: grower_code, theirs: grower_no, normalise: trim }
                bring: [name, '"Postal code" as postcode']
                unmatched: { fill: { name: Unlisted } }
                empty: { fill: { postcode: 0 } }
                mark: outcome
            outputs: { enriched: e.csv, record: r.json }
            """);
    assertThat(PlanFile.check(plan)).isEmpty();
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(folder.resolve("e.csv"))
        .hasContent(
            """
            ticket_no,grower_code,name,postcode,outcome
            1,G1,Thistle,100,matched
            2, G2,Merrow,0,matched
            3,G9,Unlisted,,unmatched
            """);
    assertThat(Files.readString(folder.resolve("r.json")))
        .contains("\"matched\" : 2", "\"filled\" : 1", "\"rows_in\" : 3");
  }

  @Test
  void everyMistakeIsToldAtOnceWithItsPlace() throws IOException {
    List<String> mistakes =
        mistakes(
            """
            able-twine: 1
            titel: Harvest
            transactions: { file: tickets.csv }
            references:
              growers: { file: growers.csv, delimeter: comma }
            steps:
              - lookup: grower
                bring: name
              - lookup: growers
                key: grower_code = grower_nr
                bring: name
                several: frist
            outputs: { enriched: tickets.csv }
            """);
    assertThat(mistakes)
        .containsExactly(
            "p.plan.yaml line 2, column 1: no setting is called \"titel\" here; did you mean"
                + " \"title\"?",
            "p.plan.yaml line 5, column 33: references, growers: no setting is called"
                + " \"delimeter\" here; did you mean \"delimiter\"?",
            "p.plan.yaml line 7, column 13: no reference is called \"grower\"; did you"
                + " mean \"growers\"?",
            "p.plan.yaml line 9, column 13: lookup growers, key: growers.csv has no column"
                + " \"grower_nr\"; did you mean \"grower_no\"?",
            "p.plan.yaml line 12, column 14: steps, several: expected one of flag, first, last, longest, each,"
                + " found \"frist\"; did you mean \"first\"?",
            "p.plan.yaml line 13, column 10: outputs: "
                + folder.resolve("tickets.csv")
                + " is also an input; source tables are never changed, so write elsewhere");
  }

  @Test
  void whatIsNotYamlOrHasTwoOfOneKeyIsRefused() throws IOException {
    assertThat(mistakes("able-twine: 1\n  steps: [\n")).singleElement().asString().contains("YAML");
    assertThat(mistakes("able-twine: 1\nable-twine: 1\n"))
        .anyMatch(m -> m.contains("line 2") && m.contains("stands twice"));
    assertThat(mistakes("")).singleElement().asString().contains("empty");
    assertThat(mistakes("able-twine: 2\nsteps: []\n")).anyMatch(m -> m.contains("version 1"));
  }

  @Test
  void aliasesThatBlowUpAreRefused() throws IOException {
    StringBuilder bomb = new StringBuilder("a0: &a0 [x,x,x,x,x,x,x,x,x,x]\n");
    for (int i = 1; i < 9; i++) {
      bomb.append("a").append(i).append(": &a").append(i).append(" [");
      bomb.append(("*a" + (i - 1) + ",").repeat(9)).append("x]\n");
    }
    assertThat(mistakes(bomb.toString())).isNotEmpty();
  }

  @Test
  void aMissingTableIsTheDatasFault() throws IOException {
    Path plan =
        plan(
            "able-twine: 1\ntransactions: { file: ticket.csv }\nsteps: [{ lookup: x }]\nreferences: { x: { file: growers.csv, key: name } }\n");
    assertThatThrownBy(() -> PlanFile.load(plan))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("tickets.csv?");
    assertThatThrownBy(() -> PlanFile.check(folder.resolve("no.yaml")))
        .hasMessageContaining("there is no plan file");
  }

  @Test
  void bringAllTakesEveryColumnButTheKey() throws IOException {
    Path plan =
        plan(
            """
            able-twine: 1
            transactions: { file: tickets.csv }
            references: { growers: { file: growers.csv } }
            steps: [{ lookup: growers, key: grower_code = grower_no, bring: all }]
            outputs: { enriched: e.csv }
            """);
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(Files.readString(folder.resolve("e.csv")))
        .startsWith("ticket_no,grower_code,name,Postal code\n");
  }
}
