package org.abletwine.plan.drift;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What changed between two runs, each change from a cause that the test lays out. */
class DriftTest {
  @TempDir private Path folder;
  private String lookup = "{ lookup: g, key: grower, bring: [name, district] }";
  private String more = "";

  @BeforeEach
  void tables() throws IOException {
    write("t.csv", "no,grower,kg", "T1,G1,5", "T2,G2,20", "T3,G3,70", "T4,G9,1");
    write("g.csv", "grower,name,district", "G1,Ash,D1", "G2,Oak,D2", "G3,Elm,D1");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private Path run(String record) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            String.join(
                "\n",
                "able-twine: 1",
                "title: Intake",
                "measure: kg",
                "transactions: { file: t.csv }",
                "references: { g: { file: g.csv } }",
                "steps:",
                "  - " + lookup,
                "  - compute: { twice: kg * 2 }",
                more.isEmpty() ? "" : "  - " + more,
                "controls: { matched: { g: 70% }, totals: [kg] }",
                "outputs:",
                "  enriched: o.csv",
                "  record: " + record,
                "  rollups: [{ by: [district], totals: [kg], file: r.csv }]",
                ""));
    PlanFile.load(plan).run(Progress.NONE);
    return folder.resolve(record);
  }

  private static Change only(Drift drift, String area, String what) {
    List<Change> found =
        drift.changes().stream()
            .filter(change -> change.area().equals(area) && change.what().equals(what))
            .toList();
    assertThat(found).as(area + " " + what + " in " + drift.changes()).hasSize(1);
    return found.get(0);
  }

  @Test
  void nothingIsToldOfTwoRunsThatAreTheSame() throws IOException {
    Drift drift = Drift.between(run("one.json"), run("two.json"), Limits.NONE);
    assertThat(drift.changes()).isEmpty();
    assertThat(drift.inputs()).extracting(Drift.Table::state).containsOnly("same");
    // The plan writes its record elsewhere, so one line of it is another.
    assertThat(drift.plan()).containsExactly("-   record: one.json", "+   record: two.json");
  }

  @Test
  void tellsRatesAndKeysOfALookup() throws IOException {
    Path before = run("one.json");
    write("t.csv", "no,grower,kg", "T1,G1,5", "T2,G7,20", "T3,G8,70", "T4,G8,1", "T5,G2,4");
    Drift drift = Drift.between(before, run("two.json"), Limits.NONE);
    assertThat(only(drift, "g", "matched"))
        .extracting(Change::before, Change::after, Change::change)
        .containsExactly("75.00 %", "40.00 %", "-35.00 points");
    Change fresh = only(drift, "g", "new unmatched keys");
    assertThat(fresh.examples()).containsExactly("G8", "G7");
    assertThat(fresh.change()).isEqualTo("3 rows, kg 91");
    assertThat(only(drift, "g", "unmatched keys no more").examples()).containsExactly("G9");
    assertThat(only(drift, "transactions", "rows").change()).isEqualTo("+25.0 %");
    assertThat(only(drift, "kg", "total").change()).isEqualTo("+4.2 %, for each row -16.7 %");
  }

  @Test
  void ofVeryManyGroupsTheirNumberIsCompared() throws IOException {
    districts(10_001);
    Path before = run("one.json");
    assertThat(Files.readString(before)).contains("\"groups_wanted\" : 10001", "\"D10000\"");
    assertThat(Files.readString(before)).doesNotContain("\"D99999\"");
    districts(10_003);
    Drift drift = Drift.between(before, run("two.json"), Limits.NONE);
    assertThat(only(drift, "totals by district", "groups"))
        .extracting(Change::before, Change::after, Change::change)
        .containsExactly("10001", "10003", "too many to name those that are new or gone");
    assertThat(drift.changes()).noneMatch(change -> change.what().contains("new groups"));
  }

  /** As many districts; the last of them has a name that comes behind the others. */
  private void districts(int count) throws IOException {
    StringBuilder growers = new StringBuilder("grower,name,district\n");
    StringBuilder tickets = new StringBuilder("no,grower,kg\n");
    for (int i = 0; i < count; i++) {
      int district = i == count - 1 ? 99_999 : 10_000 + i;
      growers.append("G" + i + ",n,D" + district + "\n");
      tickets.append("T" + i + ",G" + i + ",1\n");
    }
    Files.writeString(folder.resolve("g.csv"), growers);
    Files.writeString(folder.resolve("t.csv"), tickets);
  }

  @Test
  void aControlThatBrokeStandsFirst() throws IOException {
    Path before = run("one.json");
    write("t.csv", "no,grower,kg", "T1,G1,5", "T2,G7,20");
    Drift drift = Drift.between(before, run("two.json"), Limits.NONE);
    assertThat(drift.changes().get(0))
        .extracting(Change::area, Change::what, Change::change)
        .containsExactly("controls", "matched g", "does not hold: expected at least 70 %");
    Drift back = Drift.between(folder.resolve("two.json"), before, Limits.NONE);
    assertThat(only(back, "controls", "matched g").change()).isEqualTo("holds again");
  }

  @Test
  void tellsNewKeysOnSeveralRowsAndWhetherTheyConflict() throws IOException {
    Path before = run("one.json");
    write(
        "g.csv",
        "grower,name,district",
        "G1,Ash,D1",
        "G1,Ash,D3",
        "G2,Oak,D2",
        "G2,Oak,D2",
        "G3,Elm,D1");
    Drift drift = Drift.between(before, run("two.json"), Limits.NONE);
    Change change = only(drift, "g", "new keys on several rows");
    assertThat(change.change()).isEqualTo("2 new, 1 conflicting");
    assertThat(change.examples()).containsExactly("G1", "G2");
    assertThat(only(drift, "g", "ambiguous").change()).isEqualTo("+25.00 points");
    assertThat(drift.inputs().get(0)).isEqualTo(new Drift.Table("g", "g.csv", "changed", 3, 5));
  }

  @Test
  void tellsNullsColumnsAndGroups() throws IOException {
    Path before = run("one.json");
    write("g.csv", "grower,name,district", "G1,Ash,D1", "G2,,D4", "G3,Elm,D1");
    write("t.csv", "no,grower,kg", "T1,G1,5", "T2,G2,", "T3,G3,70", "T4,G9,1");
    more = "compute: { third: kg * 3 }";
    Drift drift = Drift.between(before, run("two.json"), Limits.NONE);
    assertThat(only(drift, "name", "null").change()).isEqualTo("+25.00 points");
    assertThat(only(drift, "twice", "null").change()).isEqualTo("+25.00 points");
    assertThat(only(drift, "columns", "new").examples()).containsExactly("third");
    assertThat(only(drift, "totals by district", "new groups").examples()).containsExactly("D4");
    assertThat(only(drift, "totals by district", "groups gone").examples()).containsExactly("D2");
    assertThat(drift.plan()).contains("+   - compute: { third: kg * 3 }");
  }

  @Test
  void aLookupThatIsNotDoneAnyMoreIsTold() throws IOException {
    Path before = run("one.json");
    lookup = "{ lookup: g, name: others, key: grower, bring: [name, district] }";
    Files.writeString(
        folder.resolve("p.plan.yaml"),
        Files.readString(folder.resolve("p.plan.yaml")).replace("{ g: 70% }", "{ others: 70% }"));
    Path plan =
        Files.writeString(
            folder.resolve("q.plan.yaml"),
            "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { g: { file: g.csv } }\n"
                + "steps: [{ lookup: g, name: others, key: grower, bring: name }]\n"
                + "outputs: { record: two.json }\n");
    PlanFile.load(plan).run(Progress.NONE);
    Drift drift = Drift.between(before, folder.resolve("two.json"), Limits.NONE);
    assertThat(only(drift, "g", "lookup").change()).isEqualTo("gone");
    assertThat(only(drift, "others", "lookup").change()).isEqualTo("new");
    assertThat(only(drift, "columns", "gone").examples()).containsExactly("district", "twice");
    assertThat(only(drift, "controls", "matched g").change()).isEqualTo("not asked for any more");
  }

  @Test
  void limitsMarkWhatIsBeyondThem() throws IOException {
    Path before = run("one.json");
    write("t.csv", "no,grower,kg", "T1,G1,5", "T2,G7,20", "T3,G8,70", "T4,G8,1", "T5,G2,4");
    Path after = run("two.json");
    assertThat(Drift.between(before, after, Limits.of(List.of("matched=35"))).holds()).isTrue();
    assertThat(Drift.between(before, after, Limits.of(List.of("matched=34.99"))).holds()).isFalse();
    assertThat(
            Drift.between(before, after, Limits.of(List.of("matched=0", "matched.g=40"))).holds())
        .isTrue();
    assertThat(Drift.between(before, after, Limits.of(List.of("unmatched-keys=1"))).holds())
        .isFalse();
    assertThat(Drift.between(before, after, Limits.of(List.of("rows=25 %"))).holds()).isTrue();
    assertThat(Drift.between(before, after, Limits.of(List.of("rows=24"))).holds()).isFalse();
    assertThat(Drift.between(before, after, Limits.of(List.of("totals=16"))).holds()).isFalse();
    assertThat(Drift.between(before, after, Limits.of(List.of("controls=0"))).holds()).isFalse();
    assertThat(Drift.between(before, after, Limits.of(List.of("plan=0"))).holds()).isFalse();
    assertThat(Drift.between(before, after, Limits.of(List.of("plan=2"))).holds()).isTrue();
    assertThat(Drift.between(before, after, Limits.of(List.of("duplicates=0"))).holds()).isTrue();
    assertThat(Drift.between(before, after, Limits.of(List.of("nulls.name=1"))).holds()).isFalse();
    Drift judged = Drift.between(before, after, Limits.of(List.of("plan=0")));
    assertThat(judged.changes().get(0).beyond()).isEqualTo("plan=0");
  }

  @Test
  void aLimitThatNamesNothingIsRefused() throws IOException {
    Path one = run("one.json");
    assertThatThrownBy(() -> Limits.of(List.of("unmached-keys=1")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"unmatched-keys\"?");
    assertThatThrownBy(() -> Limits.of(List.of("matched=few")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("state a number from 0 on");
    assertThatThrownBy(() -> Drift.between(one, one, Limits.of(List.of("nulls.nam=1"))))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"name\"?");
  }

  @Test
  void whatIsNoRecordIsRefused() throws IOException {
    Path one = run("one.json");
    write("other.json", "{ \"a\": 1 }");
    write("broken.json", "{ \"a\": 1,", "]");
    assertThatThrownBy(() -> Drift.between(one, folder.resolve("other.json"), Limits.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("other.json is no record of a run");
    assertThatThrownBy(() -> Drift.between(one, folder.resolve("broken.json"), Limits.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("broken.json: line 2 is not well-formed JSON");
    assertThatThrownBy(() -> Drift.between(folder.resolve("none.json"), one, Limits.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("there is no file");
    assertThatThrownBy(() -> Drift.between(folder, one, Limits.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("is a folder");
  }

  @Test
  void aRunTellsWhatChangedSinceARecordThatItReplaces() throws IOException {
    Path record = run("one.json");
    write("t.csv", "no,grower,kg", "T1,G1,5", "T2,G7,20");
    Drift.Since since = Drift.since(record);
    PlannedRun.Result result = PlanFile.load(folder.resolve("p.plan.yaml")).run(Progress.NONE);
    assertThat(result.account()).isNotNull();
    Drift drift = since.to(result.account());
    assertThat(only(drift, "g", "matched").before()).isEqualTo("75.00 %");
    assertThat(Drift.since(record).to(result.account()).changes()).isEmpty();
  }

  @Test
  void keysThatARecordDoesNotNameAreNotCompared() throws IOException {
    lookup = "{ lookup: g, key: grower, bring: [name, district], unmatched: expected }";
    Path before = run("one.json");
    lookup = "{ lookup: g, key: grower, bring: [name, district] }";
    Path after = run("two.json");
    assertThat(Drift.between(before, after, Limits.NONE).changes())
        .extracting(Change::what)
        .doesNotContain("new unmatched keys");
    assertThat(Drift.between(after, before, Limits.NONE).changes())
        .extracting(Change::what)
        .doesNotContain("unmatched keys no more");
  }

  @Test
  void plansAreComparedLineByLine() {
    assertThat(PlanChanges.of("a\nb\nc\n", "a\r\nb \nc")).isEmpty();
    assertThat(PlanChanges.of("a\nb\nc", "a\nc\nd")).containsExactly("- b", "+ d");
    assertThat(PlanChanges.of("", "a")).containsExactly("+ a");
  }
}
