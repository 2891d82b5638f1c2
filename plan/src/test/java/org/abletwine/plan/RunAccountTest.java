package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.List;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The record of a run names what was read, told and written, so that anybody can check it. */
class RunAccountTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    write("t-1.csv", "no,grower,kg", "T1,G1,5", "T2,G2,20");
    write("t-2.csv", "no,grower,kg", "T3,G2,70", "T4,G9,1", "T5,G2,2", "T6,,3");
    write("g.csv", "grower,name", "G1,Ash", "G1,Oak", "G3,Elm", "G4,Fir", "G4,Fir");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private Path plan(String outputs) throws IOException {
    return Files.writeString(
        folder.resolve("p.plan.yaml"),
        "able-twine: 1\nmeasure: kg\ntransactions: { file: \"t-*.csv\" }\n"
            + "references: { g: { file: g.csv } }\n"
            + "steps: [{ lookup: g, key: grower, bring: name }, { keep: \"kg <> 20\","
            + " left-out: left.csv }]\noutputs: { record: run.json, "
            + outputs
            + " }\n");
  }

  private JsonNode record(Path plan) throws IOException {
    PlanFile.load(plan).run(Progress.NONE);
    return new ObjectMapper().readTree(folder.resolve("run.json").toFile());
  }

  private String sha256(String name) throws Exception {
    byte[] bytes = Files.readAllBytes(folder.resolve(name));
    return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
  }

  @Test
  void namesInputsWithSizeRowsAndChecksum() throws Exception {
    JsonNode inputs = record(plan("enriched: o.csv")).get("inputs");
    assertThat(inputs).hasSize(2);
    assertThat(inputs.get(0).get("name").asText()).isEqualTo("transactions");
    assertThat(inputs.get(0).get("rows").asLong()).isEqualTo(6);
    assertThat(inputs.get(0).get("files")).hasSize(2);
    JsonNode second = inputs.get(0).get("files").get(1);
    assertThat(second.get("file").asText()).isEqualTo("t-2.csv");
    assertThat(second.get("bytes").asLong()).isEqualTo(Files.size(folder.resolve("t-2.csv")));
    assertThat(second.get("sha256").asText()).isEqualTo(sha256("t-2.csv"));
    assertThat(inputs.get(1).get("name").asText()).isEqualTo("g");
    assertThat(inputs.get(1).get("rows").asLong()).isEqualTo(5);
    assertThat(inputs.get(1).get("files").get(0).get("sha256").asText()).isEqualTo(sha256("g.csv"));
  }

  @Test
  void checksumsOfOutputsAreThoseOfTheFilesThatLieThere() throws Exception {
    for (String enriched :
        List.of("o.csv", "o.csv.gz", "o.jsonl", "o.json", "o.xlsx", "o.ods", "o.csv.zip")) {
      JsonNode outputs =
          record(plan("enriched: " + enriched + ", exceptions: { file: e.csv, by: key }"))
              .get("outputs");
      assertThat(outputs).hasSize(3);
      assertThat(outputs.get(0).get("what").asText()).isEqualTo("enriched");
      assertThat(outputs.get(0).get("rows").asLong()).isEqualTo(5);
      assertThat(outputs.get(0).get("bytes").asLong())
          .as(enriched)
          .isEqualTo(Files.size(folder.resolve(enriched)));
      assertThat(outputs.get(0).get("sha256").asText()).as(enriched).isEqualTo(sha256(enriched));
      assertThat(outputs.get(1).get("rows").asLong()).isEqualTo(4);
      assertThat(outputs.get(1).get("sha256").asText()).isEqualTo(sha256("e.csv"));
      assertThat(outputs.get(2).get("what").asText()).isEqualTo("left out");
      assertThat(outputs.get(2).get("rows").asLong()).isEqualTo(1);
      assertThat(outputs.get(2).get("sha256").asText()).isEqualTo(sha256("left.csv"));
    }
  }

  @Test
  void holdsThePlanItselfAndTheVersion() throws Exception {
    Path plan = plan("enriched: o.csv");
    JsonNode record = record(plan);
    assertThat(record.get("plan").get("file").asText()).isEqualTo("p.plan.yaml");
    assertThat(record.get("plan").get("text").asText()).isEqualTo(Files.readString(plan));
    assertThat(record.get("plan").get("sha256").asText()).isEqualTo(sha256("p.plan.yaml"));
    assertThat(record.get("version").asText()).isNotEmpty();
  }

  @Test
  void namesUnmatchedKeysAndKeysOnSeveralRows() throws Exception {
    JsonNode lookup = record(plan("enriched: o.csv")).get("lookups").get(0);
    assertThat(lookup.get("distinct_unmatched_keys").asLong()).isEqualTo(2);
    assertThat(lookup.get("unmatched_keys"))
        .hasToString(
            "[{\"key\":\"G2\",\"rows\":3,\"measure\":\"92\"},"
                + "{\"key\":\"G9\",\"rows\":1,\"measure\":\"1\"}]");
    assertThat(lookup.get("several_rows"))
        .hasToString(
            "[{\"key\":\"G1\",\"rows\":\"1, 2\",\"conflicting\":true},"
                + "{\"key\":\"G4\",\"rows\":\"4, 5\",\"conflicting\":false}]");
  }

  @Test
  void aFileThatIsWrittenToMeanwhileStopsTheRunBeforeAnythingIsThere() throws Exception {
    PlannedRun run = PlanFile.load(plan("enriched: o.csv"));
    Files.setLastModifiedTime(folder.resolve("g.csv"), FileTime.fromMillis(1_000));
    assertThatThrownBy(() -> run.run(Progress.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("g.csv was written to while the run read it");
    assertThat(folder.resolve("o.csv")).doesNotExist();
    assertThat(folder.resolve("run.json")).doesNotExist();
  }

  @Test
  void ofAFileThatWasReplacedMeanwhileNoChecksumIsTold() throws Exception {
    PlannedRun run = PlanFile.load(plan("enriched: o.csv"));
    Path other = Files.copy(folder.resolve("g.csv"), folder.resolve("other"));
    Files.move(other, folder.resolve("g.csv"), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
    run.run(Progress.NONE);
    JsonNode record = new ObjectMapper().readTree(folder.resolve("run.json").toFile());
    assertThat(record.get("inputs").get(1).get("files").get(0).get("sha256").isNull()).isTrue();
  }

  @Test
  void beyondTenThousandUnmatchedKeysOnlyTheirNumberIsTold() throws Exception {
    StringBuilder rows = new StringBuilder("no,grower,kg\n");
    for (int i = 0; i < 10_001; i++) {
      rows.append("T,X").append(i).append(',').append(i).append('\n');
    }
    Files.writeString(folder.resolve("t-1.csv"), rows);
    JsonNode lookup = record(plan("enriched: o.csv")).get("lookups").get(0);
    assertThat(lookup.get("distinct_unmatched_keys").asLong()).isEqualTo(10_003);
    assertThat(lookup.get("unmatched_keys")).hasSize(10_000);
    assertThat(lookup.get("unmatched_keys").get(0).get("key").asText()).isEqualTo("X10000");
  }
}
