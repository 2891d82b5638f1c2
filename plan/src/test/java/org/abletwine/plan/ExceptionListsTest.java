package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Lists of exceptions that one can work from: what goes with them, a line for each row or key. */
class ExceptionListsTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    write(
        "t.csv",
        "no,site,variety,grade,kg",
        "T1,A,Merow Gold,1,5",
        "T2,B,Merow Golb,1,20",
        "T3,B,Merow Golb,1,70",
        "T4,C,Merow Gold,9,x",
        "T5,C,,1,7",
        "T6,D,Zzz,9,1");
    write(
        "v.csv", "variety,grade,price", "Merow Gold,1,10", "Thistle Down,2,11", "Thistle Down,3,9");
    write("names.csv", "variety,crop", "Merow Gold,oats", "Thistle Down,rye", "Thistle Down,pea");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private List<String> lines(String exceptions, String key, String reference) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\nmeasure: kg\ntransactions: { file: t.csv }\nreferences: { r: { file: "
                + reference
                + " } }\nsteps: [{ lookup: r, key: "
                + key
                + ", bring: all }]\noutputs: { enriched: o.csv, exceptions: "
                + exceptions
                + " }\n");
    assertThat(PlanFile.check(plan)).isEmpty();
    PlannedRun.Result result = PlanFile.load(plan).run(Progress.NONE);
    assertThat(result.others()).hasSize(1);
    return Files.readAllLines(folder.resolve("e.csv"));
  }

  @Test
  void columnsOfTheTransactionsGoWithEachRow() throws IOException {
    assertThat(lines("{ file: e.csv, carry: [no, site] }", "[variety, grade]", "v.csv"))
        .containsExactly(
            "step,kind,table,row,no,site,key,detail,measure",
            "r,unmatched,t.csv,2,T2,B,Merow Golb | 1,\"variety not, grade known\",20",
            "r,unmatched,t.csv,3,T3,B,Merow Golb | 1,\"variety not, grade known\",70",
            "r,unmatched,t.csv,4,T4,C,Merow Gold | 9,\"variety known, grade not\",x",
            "r,blank-key,t.csv,5,T5,C, | 1,,7",
            "r,unmatched,t.csv,6,T6,D,Zzz | 9,\"variety not, grade not\",1");
  }

  @Test
  void aLineForEachKeyWithWhatIsNearAndTheLargestFirst() throws IOException {
    assertThat(lines("{ file: e.csv, by: key, carry: no }", "[variety, grade]", "v.csv"))
        .containsExactly(
            "step,kind,table,key,rows,measure,near,likeness,judged,detail,first_row,no",
            "r,unmatched,t.csv,Merow Golb | 1,2,90,Merow Gold | 1,0.91,clear,"
                + "\"variety not, grade known\",2,T2",
            "r,blank-key,t.csv, | 1,1,7,,,,,5,T5",
            "r,unmatched,t.csv,Zzz | 9,1,1,,,none,\"variety not, grade not\",6,T6",
            "r,unmatched,t.csv,Merow Gold | 9,1,,Merow Gold | 1,0.25,weak,"
                + "\"variety known, grade not\",4,T4");
  }

  @Test
  void theOutputsAreOneWhenNothingNeedsAttention() throws IOException {
    write("t.csv", "no,variety", "T1,Merow Gold");
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { r: { file: names.csv } }\n"
                + "steps: [{ lookup: r, key: variety, bring: all }]\n"
                + "outputs: { exceptions: { file: e.csv, by: key } }\n");
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(Files.readAllLines(folder.resolve("e.csv"))).hasSize(1);
  }

  @Test
  void keysBeyondTheFirstAreCountedTogether() throws IOException {
    int keys = 100_003;
    write(
        "t.csv",
        "variety,kg",
        String.join("\n", IntStream.range(0, keys).mapToObj(i -> i + ",1").toList()));
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\nmeasure: kg\ntransactions: { file: t.csv }\n"
                + "references: { r: { file: names.csv } }\n"
                + "steps: [{ lookup: r, key: variety, bring: all }]\n"
                + "outputs: { exceptions: { file: e.csv, by: key } }\n");
    PlanFile.load(plan).run(Progress.NONE);
    List<String> lines = Files.readAllLines(folder.resolve("e.csv"));
    assertThat(lines).hasSize(1 + 100_000 + 1);
    assertThat(lines.get(1))
        .isEqualTo("r,unmatched,t.csv,,3,3,,,,the rows of all keys beyond the first 100000,100001");
  }

  @Test
  void aColumnThatIsNotThereIsToldByCheck() throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { r: { file: names.csv } }\n"
                + "steps: [{ lookup: r, key: variety, bring: all }]\n"
                + "outputs: { exceptions: { file: e.csv, carry: [sit], by: line } }\n");
    assertThat(PlanFile.check(plan))
        .anyMatch(line -> line.contains("exceptions, by: expected one of row, key"));
    Files.writeString(plan, Files.readString(plan).replace("by: line", "by: row"));
    assertThat(PlanFile.check(plan))
        .hasSize(1)
        .allMatch(line -> line.contains("carry") && line.contains("did you mean \"site\"?"));
  }
}
