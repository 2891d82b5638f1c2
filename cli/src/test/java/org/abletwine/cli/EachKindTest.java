package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.enrich.Enrichment;
import org.abletwine.table.Tables;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Every command that reads a table says the same of it, and writes the same, whatever kind of file
 * it is in: what a reader leaves out because nobody looks at it is looked at by nobody.
 */
class EachKindTest {
  private static final List<String> OUTPUTS =
      List.of("enriched.jsonl", "exceptions.jsonl", "corrections-draft.jsonl", "by-region.jsonl");

  @TempDir private Path demo;

  @BeforeEach
  void layOut() throws IOException {
    OneDemo.into(demo);
  }

  /** Puts each table of the demo beside itself in another kind of file. */
  private void inKind(String kind) throws IOException {
    for (Path file : tables()) {
      Path other = demo.resolve(file.getFileName().toString().replace(".csv", "." + kind));
      Enrichment.of(Tables.file(file)).build().writeTo(Tables.sink(other));
    }
  }

  private List<Path> tables() throws IOException {
    try (var files = Files.list(demo)) {
      return files.filter(file -> file.toString().endsWith(".csv")).toList();
    }
  }

  private String said(String kind, String command) throws IOException {
    String[] args = command.split(" ");
    for (int i = 0; i < args.length; i++) {
      args[i] = args[i].replace("@", demo + "/").replace(".csv", "." + kind);
    }
    Cli.Gave gave = Cli.run(args);
    assertThat(gave.status()).as(command + gave.err()).isZero();
    StringBuilder said = new StringBuilder(gave.out()).append(gave.err());
    Path out = demo.resolve("out.jsonl");
    if (Files.exists(out)) {
      said.append(Files.readString(out));
      Files.delete(out);
    }
    return said.toString()
        .replace("." + kind, ".csv")
        .replace(".jsonl", ".csv")
        .replaceAll("\\d+\\.\\d+ s\\b", "some s")
        .replaceAll(" +", " ");
  }

  @ParameterizedTest
  @ValueSource(strings = "parquet")
  void everyCommandSaysTheSame(String kind) throws IOException {
    inKind(kind);
    for (String command :
        List.of(
            "duplicates @growers.csv --key grower_no --show 100",
            "duplicates @growers.csv --key name,district_code",
            "duplicates @growers.csv --key grower_no --memory 1",
            "duplicates @growers.csv --key grower_no --keep newest-by=updated_on --without @out.jsonl",
            "duplicates @growers.csv --key grower_no --keep fullest --without @out.jsonl",
            "duplicates @growers.csv --key grower_no --out @out.jsonl",
            "duplicates @moisture-deductions.csv --key commodity --bands from_pct,to_pct",
            "overlap @tickets.csv @growers.csv --key grower_code=grower_no --measure gross_kg",
            "overlap @tickets.csv @grades.csv --key commodity,grade_mark=grade",
            "overlap @tickets.csv @growers.csv --key grower_code=grower_no --memory 1",
            "find @growers.csv grower_no=000324R",
            "find @growers.csv --where name='Thistle_Meadow_Farm'",
            "find @prices.csv commodity=barley",
            "profile @growers.csv",
            "draft @tickets.csv @growers.csv @districts.csv @prices.csv",
            "enrich @tickets.csv --from @growers.csv --key grower_code=grower_no --bring all --out"
                + " @out.jsonl")) {
      assertThat(said(kind, command)).as(command).isEqualTo(said("csv", command));
    }
  }

  /** The demo's plan, its tables in another kind of file, and what it writes as lines of JSON. */
  private void plan(String kind) throws IOException {
    String plan = Files.readString(demo.resolve("harvest.plan.yaml"));
    plan =
        plan.replaceAll("out/([a-z-]+)\\.csv", "out/$1.jsonl")
            .replaceAll("file: ([a-z_-]+)\\.csv", "file: $1." + kind);
    Files.writeString(demo.resolve("each.plan.yaml"), plan);
  }

  @ParameterizedTest
  @ValueSource(strings = {"parquet", "jsonl", "xlsx"})
  void aPlanGivesTheSame(String kind) throws IOException {
    plan("csv");
    List<String> written = new ArrayList<>(List.of(said("csv", "run @each.plan.yaml")));
    for (int row = 1; row < 2_800; row += 700) {
      written.add(said("csv", "trace @each.plan.yaml --row " + row));
    }
    for (String output : OUTPUTS) {
      written.add(Files.readString(demo.resolve("out/" + output)));
    }
    inKind(kind);
    plan(kind);
    List<String> other = new ArrayList<>(List.of(said(kind, "run @each.plan.yaml")));
    for (int row = 1; row < 2_800; row += 700) {
      other.add(said(kind, "trace @each.plan.yaml --row " + row));
    }
    for (String output : OUTPUTS) {
      other.add(Files.readString(demo.resolve("out/" + output)).replace("." + kind, ".csv"));
    }
    assertThat(other).isEqualTo(written);
  }
}
