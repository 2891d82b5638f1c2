package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Stretch;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every step that counts, counted by several processes: the same outputs, record and failures. */
class PlanInPartsTest {
  /** Any number of orders by {@code -Dorders=100}. */
  private static final int SEEDS = Integer.getInteger("orders", 3);

  @TempDir private Path folder;

  private static final String STEPS =
      """
      able-twine: 1
      transactions: { file: t.csv, types: { day: { date: d.M.yyyy } } }
      measure: kg
      errors: "null"
      private: [phone]
      references:
        growers: { file: growers.csv, key: no }
        prices: { file: prices.csv }
        wrong: { file: wrong.csv }
        inner: { file: inner.csv }
      steps:
        - { correct: what, using: wrong, written: written, meant: meant }
        - { correct: note, using: inner, written: written, meant: meant, part: true }
        - keep: "kg is null or kg <> 13"
          left-out: out/unlucky.csv
        - lookup: growers
          key: [{ ours: code, theirs: "no", normalise: [trim, ignore-case] }]
          bring: [name, phone, office]
          unmatched: { fill: { name: Unlisted } }
          ambiguous: { apart: out/apart.csv }
          empty: { fill: { office: none } }
        - { coalesce: reach, from: [phone, office], fill: unknown }
        - lookup: prices
          key: [what, { ours: day, theirs: "from", match: nearest, within: 9 }]
          bring: [price]
        - compute:
            net: kg * 1000000000000000 / price
            ratio: kg / (kg - 7)
            late: day > '2026-07-20'
      controls:
        that: ["sum(kg) > 100", "avg(kg) > 0", "count(distinct code) > 3"]
        nulls: { price: 90% }
      outputs:
        enriched: out/enriched.csv
        exceptions: { file: out/exceptions.csv, carry: [note] }
        corrections: out/draft.csv
        record: out/run.json
        formulas: guard
        formats: { day: { date: yyyy/MM/dd }, net: { decimals: 2 } }
        rollups:
          - by: [what, name]
            totals: [kg, net, min(day) as first, max(note) as last, avg(price), count(*)]
            grand-total: true
            file: out/by-what.csv
          - { by: [], totals: [count(distinct note) as notes, max(kg)], file: out/all.csv }
      """;

  @BeforeEach
  void layOut() throws IOException {
    Files.writeString(folder.resolve("p.plan.yaml"), plan());
    Random random = new Random(7);
    StringBuilder text = new StringBuilder("code,what,day,kg,note\n");
    for (int row = 0; row < 900; row++) {
      text.append(random.nextInt(9) == 0 ? "" : " g" + random.nextInt(30)).append(',');
      text.append(List.of("wheat", "whaet", "barley", "oats").get(random.nextInt(4))).append(',');
      String day = random.nextInt(40) == 0 ? "soon" : 1 + random.nextInt(28) + ".7.2026";
      text.append(day).append(',');
      text.append(random.nextInt(11) == 0 ? "" : random.nextInt(15) + "." + random.nextInt(100));
      String note = List.of("=1+1", "dry", "\"two\nlines\"", "", "-", "damp").get(row % 6);
      text.append(',').append(note).append('\n');
    }
    Files.writeString(folder.resolve("t.csv"), text);
    StringBuilder growers = new StringBuilder("no,name,phone,office\n");
    for (int row = 0; row < 25; row++) {
      growers.append("G" + row + ",Grower " + row % 6 + "," + (row % 3 == 0 ? "" : "07" + row));
      growers.append(row % 4 == 0 ? ",\n" : ",Vale " + row + "\n");
      growers.append(row % 8 == 1 ? "G" + row + ",Another,," + "\n" : "");
    }
    Files.writeString(folder.resolve("growers.csv"), growers);
    Files.writeString(
        folder.resolve("prices.csv"),
        "what,from,price\nwheat,2026-07-03,310.5\nwheat,2026-07-21,299\nbarley,2026-07-10,0\n");
    Files.writeString(folder.resolve("wrong.csv"), "written,meant\nwhaet,wheat\nrey,rye\n");
    Files.writeString(folder.resolve("inner.csv"), "written,meant\ndam,um\nxx,y\n");
  }

  private static String plan() {
    return STEPS;
  }

  private Path copy() throws IOException {
    Path parts = Files.createDirectories(folder.resolve("parts"));
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        Files.copy(file, parts.resolve(file.getFileName()), StandardCopyOption.REPLACE_EXISTING);
      }
    }
    return parts;
  }

  @Test
  void everyStepCountsTheSame() throws IOException {
    PlanFile.load(folder.resolve("p.plan.yaml")).run(Progress.NONE);
    Map<String, String> expected = InParts.outputs(folder.resolve("out"));
    assertThat(expected.get("run.json"))
        .contains(
            "cannot be computed", "formulas_guarded", "\"corrections\"", "cannot be written as");
    for (int seed = 0; seed < SEEDS; seed++) {
      Path parts = copy();
      long bytes = List.of(4_000L, 1_500L, 9_000L).get(seed % 3);
      InParts.run(parts.resolve("p.plan.yaml"), Map.of(), bytes, new Random(seed), seed % 2);
      assertThat(InParts.outputs(parts.resolve("out"))).as("seed %d", seed).isEqualTo(expected);
    }
  }

  /** A process may be killed anywhere in putting all together, and another begins anew. */
  @Test
  void puttingTogetherMayBeginAnew() throws IOException {
    for (String form : List.of("json", "json.gz", "csv")) {
      Files.writeString(
          folder.resolve("p.plan.yaml"),
          plan().replace("out/enriched.csv", "out/enriched." + form));
      PlanFile.load(folder.resolve("p.plan.yaml")).run(Progress.NONE);
      String expected = text(folder.resolve("out/enriched." + form));
      Path parts = copy();
      Files.deleteIfExists(parts.resolve("out/all.csv"));
      Path inTheWay = Files.createDirectories(parts.resolve("out/all.csv/x")).getParent();
      PlanInParts.Sharing sharing = InParts.sharing(parts.resolve("p.plan.yaml"), "again" + form);
      try (PlanInParts one = PlanInParts.open(sharing)) {
        one.begin();
        List<Stretch.Range> ranges =
            Stretch.rows(one.stretches(3_000).stream().map(one::look).toList());
        List<@Nullable String> failures = new ArrayList<>();
        for (int number = 1; number <= ranges.size(); number++) {
          failures.add(one.take(number, ranges.get(number - 1)));
        }
        assertThatThrownBy(() -> one.finish(failures)).hasMessageContaining("all.csv is a folder");
        Files.delete(inTheWay.resolve("x"));
        Files.delete(inTheWay);
        one.finish(failures);
        assertThat(text(parts.resolve("out/enriched." + form))).as(form).isEqualTo(expected);
        one.discard();
      }
    }
  }

  private static String text(Path file) throws IOException {
    try (InputStream in = ByteSource.of(file).open().in()) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  @Test
  void theFirstRowThatFailsEndsARun() throws IOException {
    String text = Files.readString(folder.resolve("t.csv"));
    int at = text.indexOf("\n g", text.length() / 3) + 1;
    int later = text.indexOf("\n g", text.length() / 2) + 1;
    Files.writeString(
        folder.resolve("t.csv"),
        text.substring(0, at)
            + "a,b\n"
            + text.substring(at, later)
            + "c\n"
            + text.substring(later));
    Path parts = copy();
    Files.createDirectories(parts.resolve("out"));
    Files.writeString(parts.resolve("out/enriched.csv"), "old\n");
    assertThatThrownBy(
            () -> InParts.run(parts.resolve("p.plan.yaml"), Map.of(), 2_000, new Random(1), 0))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("t.csv line ")
        .hasMessageContaining("2 cells where the header has 5");
    assertThat(InParts.outputs(parts.resolve("out"))).isEqualTo(Map.of("enriched.csv", "old\n"));
  }

  @Test
  void whatCannotBeWrittenInPartsIsRefused() throws IOException {
    Path plan = folder.resolve("p.plan.yaml");
    assertThat(PlanInParts.refusals(plan, Map.of())).isEmpty();
    Files.writeString(
        plan,
        plan()
            .replace("out/enriched.csv", "out/enriched.xlsx")
            .replace("out/unlucky.csv", "out/unlucky.csv.zip")
            .replace("out/apart.csv", "out/apart.ods")
            .replace("file: out/all.csv", "file: \"-\""));
    assertThat(PlanInParts.refusals(plan, Map.of()))
        .anyMatch(line -> line.contains("enriched.xlsx: files of this kind cannot be written in"))
        .anyMatch(line -> line.contains("unlucky.csv.zip: files of this kind"))
        .anyMatch(line -> line.contains("would be written twice where a process is started again"))
        .hasSize(4);
  }

  @Test
  void addressesAreReachedWhereSomethingReachesThem() throws IOException {
    Path plan = folder.resolve("p.plan.yaml");
    Files.writeString(
        plan, plan().replace("file: growers.csv", "file: \"vale://store/growers.csv\""));
    assertThat(PlanFile.check(plan))
        .anyMatch(
            line ->
                line.contains("line 7, ")
                    && line.contains("growers.csv: such files are reached on a cluster alone"));
  }

  @Test
  void whatKilledRunsHaveLeftIsClearedAfterADay() throws IOException {
    Path parts = copy();
    Path left = Files.createDirectories(parts.resolve("out/.enriched.csv.killed.parts"));
    Path alive = Files.createDirectories(parts.resolve("out/.enriched.csv.alive.parts"));
    Files.writeString(left.resolve("part-000000001.csv"), "x");
    Files.setLastModifiedTime(left, FileTime.from(Instant.now().minus(Duration.ofHours(25))));
    InParts.run(parts.resolve("p.plan.yaml"), Map.of(), 5_000, new Random(1), 0);
    assertThat(left).doesNotExist();
    assertThat(alive).exists();
  }
}
