package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The files a run writes beside the enriched one, read back. */
class OutputFilesTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    write(
        "t.csv",
        "id,code,kg",
        "1,Thistle,500",
        "2,Thistel,20.5",
        "3,,7",
        "4,Thistel,9.5",
        "5,Mero,x",
        "6,Q,1",
        "7,Twin,2");
    write(
        "r.csv", "code,name,seen", "Thistle,T,1", "Merow,M,1", "Twin,A,1", "Twin,B,2", "twin,C,3");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private void run(String reference, String steps, String outputs) throws IOException {
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"),
            """
            able-twine: 1
            transactions: { file: t.csv }
            measure: kg
            references:
              r: { file: r.csv, key: code%s }
              draft: { file: draft.csv, where: "accept = 'yes'" }
            steps: [%s]
            outputs: { enriched: o.csv, %s }
            """
                .formatted(reference, steps, outputs));
    PlanFile.load(plan).run(Progress.NONE);
  }

  private static final String LOOKUP = "{ lookup: r, bring: [name] }";

  private void emptyDraft() throws IOException {
    write("draft.csv", "column,written,meant,likeness,judged,rows,measure,accept");
  }

  /** What is made of the rows, without the rows: the same as with them. */
  @Test
  void aPlanMayWriteTotalsAloneOrWhatItLeavesOut() throws IOException {
    Path plan = folder.resolve("totals.plan.yaml");
    String text =
        """
        able-twine: 1
        transactions: { file: "t*.csv" }
        references: { r: { file: [r.csv], key: code } }
        steps: [ { lookup: r, bring: [name] }, { keep: "code <> 'Twin'", left-out: left.csv } ]
        outputs: { %s record: run.json, rollups: [ { by: [name], totals: [count(*)], file: n.csv } ] }
        """;
    Files.writeString(plan, text.formatted("enriched: o.csv,"));
    PlanFile.load(plan).run(Progress.NONE);
    String totals = Files.readString(folder.resolve("n.csv"));
    assertThat(totals).isEqualTo("name,rows\nT,1\n,4\n");
    Files.delete(folder.resolve("o.csv"));
    Files.delete(folder.resolve("n.csv"));
    Files.writeString(plan, text.formatted(""));
    PlannedRun.Result result = PlanFile.load(plan).run(Progress.NONE);
    assertThat(result.enriched()).isNull();
    assertThat(result.record().rowsOut()).isEqualTo(5);
    assertThat(folder.resolve("n.csv")).content().isEqualTo(totals);
    assertThat(folder.resolve("left.csv")).content().contains("3,,7").contains("7,Twin,2");
    assertThat(folder.resolve("o.csv")).doesNotExist();
    assertThat(folder.resolve("run.json")).exists();
  }

  @Test
  void exceptionsNameRowKeyDetailAndMeasure() throws IOException {
    emptyDraft();
    run(
        "",
        LOOKUP.replace("[name]", "[name], normalise: [trim, ignore-case]"),
        "exceptions: x.csv");
    assertThat(Files.readAllLines(folder.resolve("x.csv")))
        .containsExactly(
            "step,kind,table,row,key,detail,measure",
            "r,collision,r.csv,,\"\"\"Twin\"\" = \"\"twin\"\" (rows 3, 4, 5)\",equal only by normalising,",
            "r,unmatched,t.csv,2,Thistel,,20.5",
            "r,blank-key,t.csv,3,,,7",
            "r,unmatched,t.csv,4,Thistel,,9.5",
            "r,unmatched,t.csv,5,Mero,,x",
            "r,unmatched,t.csv,6,Q,,1",
            "r,ambiguous,t.csv,7,Twin,\"rows 3, 4, 5 of r.csv\",2");
  }

  @Test
  void duplicatesLeftOutAreExceptionsToo() throws IOException {
    emptyDraft();
    run(", duplicates: { newest-by: seen }", LOOKUP, "exceptions: x.csv");
    assertThat(Files.readString(folder.resolve("x.csv")))
        .contains("r,duplicate left out,r.csv,3,Twin,row 4 stays (newest-by: seen),\n")
        .doesNotContain("ambiguous");
  }

  @Test
  void aDraftProposesCorrectionsWithRowsAndMeasure() throws IOException {
    emptyDraft();
    run("", LOOKUP, "corrections: draft.csv");
    assertThat(Files.readAllLines(folder.resolve("draft.csv")))
        .containsExactly(
            "column,written,meant,likeness,judged,rows,measure,accept",
            "code,Thistel,Thistle,0.72,clear,2,30.0,",
            "code,Mero,Merow,0.78,clear,1,,",
            "code,Q,,,none,1,1,");
  }

  @Test
  void linesDecidedEarlierAreKeptUsedAndNotProposedAgain() throws IOException {
    write(
        "draft.csv",
        "column,written,meant,likeness,judged,rows,measure,accept",
        "code,Thistel,Thistle,0.86,clear,2,30.0,yes",
        "code,Mero,Merow,0.80,likely,1,,no",
        "code,Old,Thistle,0.9,likely,1,,",
        "code,Thistl,Thistle,0.93,clear,1,,",
        "code,Never,Nowhere,0.93,likely,1,,yes");
    run("", "{ correct: code, using: draft }, " + LOOKUP, "corrections: draft.csv");
    assertThat(Files.readAllLines(folder.resolve("draft.csv")))
        .containsExactly(
            "column,written,meant,likeness,judged,rows,measure,accept",
            "code,Thistel,Thistle,0.86,clear,2,30.0,yes",
            "code,Mero,Merow,0.80,likely,1,,no",
            "code,Thistl,Thistle,0.93,clear,1,,",
            "code,Never,Nowhere,0.93,likely,1,,yes",
            "code,Q,,,none,1,1,");
    assertThat(Files.readString(folder.resolve("o.csv")))
        .contains("2,Thistle,20.5,T\n")
        .contains("5,Mero,x,\n");
  }

  /** All clear ones at once: the draft keeps the lines that it is the reason for, run after run. */
  @Test
  void clearLinesAreAcceptedAtOnceAndStay() throws IOException {
    emptyDraft();
    Path plan = folder.resolve("clear.plan.yaml");
    Files.writeString(
        plan,
        """
        able-twine: 1
        transactions: { file: t.csv }
        measure: kg
        references:
          r: { file: r.csv, key: code }
          draft: { file: draft.csv, where: "coalesce(accept, judged) in ('yes', 'clear')" }
        steps: [ { correct: code, using: draft }, { lookup: r, bring: [name] } ]
        outputs: { enriched: o.csv, corrections: draft.csv }
        """);
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(folder.resolve("o.csv")).content().contains("2,Thistel,20.5,\n");
    for (int again = 0; again < 3; again++) {
      PlanFile.load(plan).run(Progress.NONE);
      assertThat(folder.resolve("o.csv"))
          .content()
          .contains("2,Thistle,20.5,T\n", "4,Thistle,9.5,T\n");
      assertThat(folder.resolve("draft.csv")).content().contains("code,Thistel,Thistle,0.72,clear");
    }
    Files.writeString(
        folder.resolve("draft.csv"),
        Files.readString(folder.resolve("draft.csv"))
            .replace("Thistle,0.72,clear,2,30.0,", "Thistle,0.72,clear,2,30.0,no")
            .replace("code,Q,,,none,1,1,", "code,Q,Quince,,none,1,1,yes"));
    PlannedRun.Result result = PlanFile.load(plan).run(Progress.NONE);
    assertThat(folder.resolve("o.csv")).content().contains("2,Thistel,20.5,\n");
    assertThat(result.others())
        .anyMatch(
            line ->
                line.contains(
                    "1 accepted line means what the reference has not, such as \"Quince\" of"
                        + " r.csv"));
  }

  @Test
  void aFileThatIsNoDraftIsNotWrittenOver() throws IOException {
    emptyDraft();
    write("mine.csv", "a,b", "1,2");
    assertThatThrownBy(() -> run("", LOOKUP, "corrections: mine.csv"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("mine.csv is there already and is no draft");
    assertThat(Files.readString(folder.resolve("mine.csv"))).isEqualTo("a,b\n1,2\n");
    assertThat(folder.resolve("o.csv")).doesNotExist();
  }

  @Test
  void aRunThatFailsLeavesEveryFileAsItWas() throws IOException {
    emptyDraft();
    for (String name : new String[] {"o.csv", "x.csv", "run.json", "sum.csv"}) {
      write(name, "before");
    }
    assertThatThrownBy(
            () ->
                run(
                    "",
                    LOOKUP + ", { compute: { more: kg + 1 } }",
                    "exceptions: x.csv, record: run.json, rollups: [{ by: [name], totals: [id],"
                        + " file: sum.csv }]"))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 5, compute more: column \"kg\": \"x\" is not a number");
    for (String name : new String[] {"o.csv", "x.csv", "run.json", "sum.csv"}) {
      assertThat(Files.readString(folder.resolve(name))).as(name).isEqualTo("before\n");
    }
    try (var files = Files.list(folder)) {
      assertThat(files.map(file -> file.getFileName().toString()))
          .as("nothing half-written is left behind")
          .containsExactlyInAnyOrder(
              "t.csv",
              "r.csv",
              "draft.csv",
              "p.plan.yaml",
              "o.csv",
              "x.csv",
              "run.json",
              "sum.csv");
    }
  }

  @Test
  void theRecordHoldsTheFiguresOfEveryKindOfStep() throws IOException {
    emptyDraft();
    run(
        "",
        """
        { correct: code, using: draft }, { lookup: r, bring: [name], mark: m },
          { coalesce: who, from: [name, code], fill: nobody },
          { compute: { double: id * 2, none: "nullif(id, id)" } }, { keep: "id <> 6" }
        """
            .strip()
            .replace("\n", " "),
        "record: run.json, formats: { double: { decimals: 1 } }, rollups: [{ by: [m], totals: [id,"
            + " count(*)], grand-total: true, file: sum.csv }]");
    JsonNode record = new ObjectMapper().readTree(folder.resolve("run.json").toFile());
    assertThat(record.at("/rows_in").asLong()).isEqualTo(7);
    assertThat(record.at("/rows_out").asLong()).isEqualTo(6);
    assertThat(record.at("/corrections/0/lines").asLong()).isZero();
    JsonNode lookup = record.at("/lookups/0");
    assertThat(lookup.at("/matched").asLong()).isEqualTo(1);
    assertThat(lookup.at("/unmatched").asLong()).isEqualTo(4);
    assertThat(lookup.at("/ambiguous").asLong()).isEqualTo(1);
    assertThat(lookup.at("/blank_key").asLong()).isEqualTo(1);
    assertThat(record.at("/coalesced/0/taken/0/rows").asLong()).isEqualTo(1);
    assertThat(record.at("/coalesced/0/filled").asLong()).isEqualTo(1);
    assertThat(record.at("/computed/1/nulls").asLong()).isEqualTo(7);
    assertThat(record.at("/computed/1/nulls_because/0/reason").asText())
        .isEqualTo("none: the expression gives null");
    assertThat(record.at("/kept/0/left_out").asLong()).isEqualTo(1);
    assertThat(record.at("/formatted/0/form").asText()).isEqualTo("1 decimals");
    assertThat(record.at("/rollups/0/grand_total/0").asText()).isEqualTo("22");
    assertThat(record.at("/rollups/0/errors").asLong()).isZero();
    assertThat(record.at("/controls_hold").asBoolean()).isTrue();
    assertThat(Files.readAllLines(folder.resolve("sum.csv")))
        .containsExactly(
            "m,id,rows",
            "ambiguous,7,1",
            "blank-key,3,1",
            "matched,1,1",
            "unmatched,11,3",
            "all,22,6");
  }
}
