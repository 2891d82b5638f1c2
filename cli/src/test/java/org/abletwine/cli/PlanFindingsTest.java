package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Forms in which columns leave, and what a run points out, through the command line. */
class PlanFindingsTest extends OnDemo {
  @Test
  void columnsLeaveInTheFormStated() throws IOException {
    Files.writeString(
        demo.resolve("t.csv"), "id,day,kg,due\n1,2026-07-05,12.345,05.07.26\n2,,-0.5,\n");
    Path plan =
        plan(
            "steps: [ { compute: { half: kg / 2 } } ]",
            "outputs:",
            "  enriched: out/f.csv",
            "  formats:",
            "    day: { date: d MMM yyyy }",
            "    kg: { decimals: 1 }",
            "    half: { decimals: 4 }",
            "  rename: { half: half_kg }");
    JsonNode record = run(plan, 0);
    assertThat(Files.readAllLines(demo.resolve("out/f.csv")))
        .containsExactly(
            "id,day,kg,due,half_kg", "1,5 Jul 2026,12.3,05.07.26,6.1725", "2,,-0.5,,-0.2500");
    assertThat(record.at("/formatted/0/form").asText()).isEqualTo("d MMM yyyy");
    assertThat(record.at("/formatted/0/rows").asInt()).isEqualTo(2);
  }

  @Test
  void aValueThatDoesNotFitItsFormIsNamedOrBecomesNull() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,day\n1,2026-07-05\n2,soon\n3,later\n");
    String[] lines = {
      "steps: [ { compute: { one: id } } ]",
      "outputs: { enriched: out/f.csv, formats: { day: { date: dd.MM.yyyy } } }"
    };
    Cli.Gave gave = Cli.run("run", plan(lines).toString());
    assertThat(gave.status()).isEqualTo(1);
    assertThat(gave.err())
        .contains("row 2, formats, day: \"soon\" cannot be written as dd.MM.yyyy");
    assertThat(demo.resolve("out/f.csv")).doesNotExist();

    Path lenient = plan(lines[0], lines[1], "errors: \"null\"");
    assertThat(run(lenient, 0).at("/formatted/0/errors").asInt()).isEqualTo(2);
    assertThat(Files.readString(demo.resolve("out/f.csv"))).contains("1,05.07.2026,1\n2,,2\n");
    assertThat(Cli.run("run", lenient.toString()).out())
        .contains("day: 2 rows became null for want of a value to format");
  }

  @Test
  void wrongFormsAreAllToldAtOnce() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,day,kg\n1,2026-07-05,3\n");
    Path plan =
        plan(
            "steps: [ { compute: { sum: id + kg } } ]",
            "outputs:",
            "  enriched: out/f.csv",
            "  formats:",
            "    day: { date: qq pp }",
            "    kg: { decimals: 30 }",
            "    id: { decmals: 2 }",
            "    sum: { date: yyyy }",
            "    wher: { decimals: 1 }");
    for (String command : new String[] {"check", "run"}) {
      Cli.Gave gave = Cli.run(command, plan.toString());
      assertThat(gave.status()).isEqualTo(2);
      assertThat(gave.out() + gave.err())
          .contains("line 7", "cannot read the pattern \"qq pp\"")
          .contains("line 8", "must be from 0 to 18")
          .contains("line 9", "did you mean \"decimals\"?")
          .contains("line 10", "the column holds numbers; state decimals: N")
          .contains("line 11", "no column \"wher\"");
    }
  }

  @Test
  void aRollupAboveItsControlTotalIsPointedOut() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,kind,kg\n1,a,10\n2,b,5\n3,c,1\n");
    Files.writeString(demo.resolve("r.csv"), "kind,name\na,x\na,y\nb,z\n");
    Path plan =
        plan(
            "references: { r: { file: r.csv } }",
            "steps: [ { lookup: r, key: kind, bring: [name], several: each } ]",
            "outputs: { enriched: out/e.csv, rollups: [ { by: [name], totals: [kg] } ] }");
    assertThat(run(plan, 0).at("/above_control_totals/0").asText())
        .contains("kg adds up to 26, and its control total before the lookups is 16");
    assertThat(Cli.run("run", plan.toString()).out())
        .contains("a lookup made several rows of one; is its key right?");
    assertThat(Cli.run("run", plan.toString(), "--figures", "all").out())
        .contains("a lookup made several rows of one; is its key right?")
        .contains("each of them comes out");
  }

  @Test
  void aTotalOfTheWholeReferenceOnEachRowIsPointedOut() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,kind\n1,a\n2,a\n");
    Files.writeString(demo.resolve("r.csv"), "kind,kg\na,5\na,7.5\na,1\n");
    Path plan =
        plan(
            "references: { r: { file: r.csv } }",
            "steps: [ { lookup: r, key: kind, bring: [\"sum(kg) as kg\"] } ]",
            "outputs: { enriched: out/e.csv }");
    assertThat(run(plan, 0).at("/lookups/0/constant_attributes/0").asText())
        .isEqualTo("kg = 13.5 (what all rows together come to)");
    Files.writeString(demo.resolve("r.csv"), "kind,kg\na,5\na,7.5\nb,1\n");
    assertThat(run(plan, 0).at("/lookups/0/constant_attributes/0").asText()).isEqualTo("kg = 12.5");
  }

  @Test
  void whatAllRowsComeToIsPointedOutWhereverTheReferenceIs() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,kind\n1,a\n2,a\n3,a\n");
    Files.writeString(demo.resolve("r.csv"), "kind,kg,no\na,5.0,x\na,,x\na,5,\na,2,y\nz,9,q\n");
    Path plan =
        plan(
            "references: { r: { file: r.csv, where: \"kind = 'a'\" } }",
            "steps:",
            "  - lookup: r",
            "    key: kind",
            "    bring: [sum(kg) as s, avg(kg) as a, min(kg) as l, max(kg) as m, count(*) as n,"
                + " count(no) as c, \"listagg(no, '/') as t\"]",
            "outputs: { enriched: out/e.csv, record: out/run.json }");
    for (String memory : List.of("1g", "1")) {
      assertThat(Cli.run("run", plan.toString(), "--memory", memory).status()).isZero();
      List<String> told = new ArrayList<>();
      new ObjectMapper()
          .readTree(demo.resolve("out/run.json").toFile())
          .at("/lookups/0/constant_attributes")
          .forEach(one -> told.add(one.asText()));
      assertThat(told)
          .as("in " + memory)
          .containsExactly(
              "s = 12.0 (what all rows together come to)",
              "a = 4.0 (what all rows together come to)",
              "l = 2 (what all rows together come to)",
              "m = 5.0 (what all rows together come to)",
              "n = 4 (what all rows together come to)",
              "c = 3 (what all rows together come to)",
              "t = x/x/y (what all rows together come to)");
    }
  }

  /** A reference tried otherwise may be in memory at once, and the first one divided. */
  @Test
  void whatIsWrongIsToldOfTheFirstReferenceWhereverItIs() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,kind,sort\n1,a,x\n");
    Files.writeString(demo.resolve("r.csv"), "kind,name\na,Ash\na,Alder\n");
    Files.writeString(demo.resolve("s.csv"), "sort,name\nx,Elm\nx,Oak\n");
    Path plan =
        plan(
            "references:",
            "  r: { file: r.csv, key: kind, duplicates: fail }",
            "  s: { file: s.csv, key: sort, duplicates: fail }",
            "steps:",
            "  - { lookup: r, bring: [name], otherwise: [{ reference: s, bring: [name] }] }",
            "outputs: { enriched: out/e.csv }");
    String expected = Cli.run("run", plan.toString()).err();
    assertThat(expected).contains("r.csv: 1 key stands on several rows");
    assertThat(Cli.run("run", plan.toString(), "--memory", "1").err()).isEqualTo(expected);
  }

  /** A list of all rows would be too long to be one; nobody has asked for it. */
  @Test
  void aListOnEachRowDoesNotMakeAListOfAllRows() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,kind\n1,a\n2,a\n");
    String remark = "long ".repeat(80_000);
    Files.writeString(
        demo.resolve("r.csv"),
        "kind,remark\na," + remark + "\nb," + remark + "\nc," + remark + "\n");
    Path plan =
        plan(
            "references: { r: { file: r.csv } }",
            "steps: [ { lookup: r, key: kind, bring: [listagg(remark) as remarks] } ]",
            "outputs: { enriched: out/e.csv }");
    assertThat(run(plan, 0).at("/lookups/0/constant_attributes/0").asText())
        .startsWith("remarks = long ")
        .doesNotContain("what all rows");
  }

  @Test
  void nullAndEmptyTextAreGroupsApart() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "kind,kg\na,1\n,2\n\"\",4\n,8\n\" \",16\n");
    Path plan =
        plan(
            "steps: [ { compute: { one: kg } } ]",
            "outputs: { enriched: out/e.csv, rollups: [ { by: [kind], totals: [kg], grand-total:"
                + " true, file: out/r.csv } ] }");
    run(plan, 0);
    assertThat(Files.readAllLines(demo.resolve("out/r.csv")))
        .containsExactly("kind,kg", "\"\",4", " ,16", "a,1", ",10", "all,31");
  }

  @Test
  void notesOfARuleSpeakOfPlaces() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "id,pct\n1,5\n2,15\n");
    Files.writeString(demo.resolve("r.csv"), "lo,hi,rate\n0,10,1\n10,20,2\n10,20,3\n0,10,1\n");
    Path plan =
        plan(
            "references: { r: { file: r.csv } }",
            "steps:",
            "  - lookup: r",
            "    key: { ours: pct, theirs: [lo, hi], match: between }",
            "    bring: [rate]",
            "outputs: { enriched: out/e.csv }");
    assertThat(Cli.run("run", plan.toString(), "--figures", "all").out())
        .contains("in 1 place several rows of r.csv fit and disagree on what is brought")
        .contains("in 1 place several rows of r.csv fit and agree, counted as one")
        .doesNotContain("key of r.csv");
  }
}
