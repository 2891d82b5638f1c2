package org.abletwine.cluster;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;

/**
 * Plans on a cluster of real processes: what {@code run} writes, also when processes are killed.
 */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ClusterTest {
  @TempDir private static Path folder;
  private static LocalCluster cluster;

  @BeforeAll
  static void start() throws IOException {
    cluster = new LocalCluster(folder, 2);
  }

  @AfterAll
  static void stop() {
    if (cluster != null) {
      cluster.close();
    }
  }

  private static String alone(int status, String... args) {
    PrintStream out = System.out;
    PrintStream err = System.err;
    ByteArrayOutputStream told = new ByteArrayOutputStream();
    int got;
    try (PrintStream into = new PrintStream(told, true, StandardCharsets.UTF_8)) {
      System.setOut(into);
      System.setErr(into);
      got = org.abletwine.cli.Main.run(args);
    } finally {
      System.setOut(out);
      System.setErr(err);
    }
    assertThat(got).as(told.toString(StandardCharsets.UTF_8)).isEqualTo(status);
    return told.toString(StandardCharsets.UTF_8);
  }

  /** A copy of a folder, for the other way to run what is in it. */
  private static Path copy(Path from, String name) throws IOException {
    Path to = from.resolveSibling(name);
    try (Stream<Path> files = Files.walk(from)) {
      for (Path file : files.toList()) {
        Path target = to.resolve(from.relativize(file).toString());
        if (Files.isDirectory(file)) {
          Files.createDirectories(target);
        } else {
          Files.copy(file, target, StandardCopyOption.REPLACE_EXISTING);
        }
      }
    }
    return to;
  }

  private static byte[] read(Path file) throws IOException {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    if (Files.isDirectory(file)) {
      try (Stream<Path> parts = Files.list(file)) {
        for (Path part : parts.sorted().toList()) {
          all.write(Files.readAllBytes(part));
        }
      }
    } else {
      all.write(Files.readAllBytes(file));
    }
    if (!file.toString().endsWith(".gz")) {
      return all.toByteArray();
    }
    try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(all.toByteArray()))) {
      return in.readAllBytes();
    }
  }

  private static List<String> names(Path out) throws IOException {
    try (Stream<Path> files = Files.list(out)) {
      return files.map(file -> "" + file.getFileName()).sorted().toList();
    }
  }

  /** Whatever one run wrote the other has written too; private digests are drawn anew by each. */
  private static void same(Path alone, Path clustered, String... others) throws IOException {
    assertThat(names(clustered)).isEqualTo(names(alone));
    for (String name : names(alone)) {
      if (name.endsWith(".html") || List.of(others).contains(name)) {
        continue; // a page shows when it was made
      }
      if (name.equals("run.json")) {
        assertThat(record(clustered.resolve(name))).isEqualTo(record(alone.resolve(name)));
      } else {
        assertThat(known(read(clustered.resolve(name))))
            .as(name)
            .isEqualTo(known(read(alone.resolve(name))));
      }
    }
  }

  private static String known(byte[] bytes) {
    return new String(bytes, StandardCharsets.UTF_8).replaceAll("private-[0-9a-f]{12}", "private-");
  }

  private static JsonNode record(Path file) throws IOException {
    ObjectNode record = (ObjectNode) new ObjectMapper().readTree(known(read(file)));
    record.remove(List.of("started", "elapsed_seconds", "version"));
    record.path("lookups").forEach(lookup -> ((ObjectNode) lookup).remove("divided"));
    record.path("rollups").forEach(one -> ((ObjectNode) one).remove("bytes_on_disk"));
    for (JsonNode output : record.path("outputs")) {
      if (output.path("file").asText().endsWith(".gz")) { // several members are other bytes
        ((ObjectNode) output).remove(List.of("bytes", "sha256"));
      }
    }
    return record;
  }

  private static Path demo(String name) throws IOException {
    Path demo = folder.resolve(name);
    alone(0, "demo", demo.toString());
    return demo;
  }

  @Test
  @Order(1)
  void theDemoIsTheSame() throws IOException {
    Path demo = demo("demo");
    Path other = copy(demo, "demo-clustered");
    try (Stream<Path> files = Files.list(other.resolve("out"))) {
      for (Path file : files.toList()) {
        Files.delete(file);
      }
    }
    LocalCluster.Ran ran =
        cluster.run(other.resolve("harvest.plan.yaml").toString(), "--stretch", "9k");
    assertThat(ran.status()).as(ran.err()).isZero();
    assertThat(ran.out()).contains("All 10 controls hold").contains(" parts)");
    same(demo.resolve("out"), other.resolve("out"));
    assertThat(names(other.resolve("out/enriched.csv")).size()).isGreaterThan(20);
    // Once more over what is there, with nothing in memory.
    ran =
        cluster.run(
            other.resolve("harvest.plan.yaml").toString(), "--stretch", "100k", "--memory", "1");
    assertThat(ran.status()).as(ran.err()).isZero();
    same(demo.resolve("out"), other.resolve("out"));
  }

  private static final List<String> FEATURES =
      List.of(
          "able-twine: 1",
          "parameters: { least: 10 }",
          "transactions: { file: \"t*.csv\" }",
          "measure: kg",
          "private: [mobile]",
          "current-date: 2026-07-20",
          "references:",
          "  growers: { file: growers.jsonl, key: no, duplicates: fullest }",
          "  bands: { file: bands.csv }",
          "  sums: { rollup: { by: [code], totals: [kg as all_kg] } }",
          "steps:",
          "  - keep: \"kg > ${least}\"",
          "    left-out: out/small.csv.gz",
          "  - { lookup: sums, key: [code], bring: [all_kg] }",
          "  - lookup: growers",
          "    key: [{ ours: code, theirs: no, normalise: [trim, ignore-case] }]",
          "    bring: [name, mobile]",
          "    unmatched: { apart: out/apart.jsonl }",
          "    mark: found",
          "  - lookup: bands",
          "    key: [{ ours: kg, theirs: [low, high], match: between }]",
          "    bring: [band]",
          "    several: each",
          "  - compute: { share: \"round(kg / all_kg, 4)\" }",
          "controls: { that: [\"count(*) > 100\"] }",
          "outputs:",
          "  enriched: out/enriched.json",
          "  exceptions: { file: out/exceptions.csv, by: key }",
          "  rollups: [{ by: [band], totals: [kg, count(distinct name) as names, max(kg) as most], file: out/bands.csv }]",
          "  record: out/run.json");

  private static Path features(String name) throws IOException {
    Path here = Files.createDirectories(folder.resolve(name));
    for (int file = 1; file <= 3; file++) {
      StringBuilder text = new StringBuilder("code,kg,note\n");
      for (int row = 0; row < 400; row++) {
        String note = row % 7 == 0 ? "\"dry,\nand \"\"clean\"\"\n\"" : "plain";
        text.append(row % 3 == 0 ? "g" : "G").append(row * 31 % 90);
        text.append(',').append(row * 37 % 300).append(',').append(note).append('\n');
      }
      Files.writeString(here.resolve("t" + file + ".csv"), text);
    }
    StringBuilder growers = new StringBuilder();
    for (int row = 0; row < 80; row++) {
      growers.append("{\"no\": \"G" + row + "\", \"name\": \"Grower " + row % 50 + "\", ");
      growers.append("\"mobile\": " + (row % 5 == 0 ? "null" : "\"0700" + row + "\"") + "}\n");
      if (row % 9 == 0) {
        growers.append("{\"no\": \"G" + row + "\", \"name\": null, \"mobile\": null}\n");
      }
    }
    Files.writeString(here.resolve("growers.jsonl"), growers);
    Files.writeString(
        here.resolve("bands.csv"), "low,high,band\n0,50,small\n40,150,middle\n160,400,large\n");
    Files.writeString(here.resolve("p.plan.yaml"), String.join("\n", FEATURES) + "\n");
    return here;
  }

  @Test
  @Order(2)
  void aPlanWithEachFeatureIsTheSame() throws IOException {
    Path here = features("features");
    Path other = copy(here, "features-clustered");
    alone(0, "run", here.resolve("p.plan.yaml").toString(), "--set", "least=20");
    LocalCluster.Ran ran =
        cluster.run(
            other.resolve("p.plan.yaml").toString(), "--set", "least=20", "--stretch", "700");
    assertThat(ran.status()).as(ran.err()).isZero();
    same(here.resolve("out"), other.resolve("out"));
    assertThat(new ObjectMapper().readTree(read(other.resolve("out/enriched.json"))).size())
        .isGreaterThan(500);
  }

  @Test
  @Order(3)
  void badDataIsToldOfTheSameFileAndRow() throws IOException {
    Path here = features("bad");
    String text = Files.readString(here.resolve("t2.csv"));
    int at = text.indexOf('\n', text.length() / 2) + 1;
    at = text.indexOf("\nG", at) + 1;
    Files.writeString(
        here.resolve("t2.csv"), text.substring(0, at) + "G1,7,a,b\n" + text.substring(at));
    Path other = copy(here, "bad-clustered");
    String expected = alone(1, "run", here.resolve("p.plan.yaml").toString());
    LocalCluster.Ran ran = cluster.run(other.resolve("p.plan.yaml").toString(), "--stretch", "500");
    assertThat(ran.status()).isEqualTo(1);
    assertThat(ran.err().replace("bad-clustered", "bad")).isEqualTo(expected);
    assertThat(expected).contains("t2.csv line ").contains("more cells than the 3 of the header");
    assertThat(other.resolve("out")).isEmptyDirectory();
    // A plan that cannot run there says why, and what to do.
    Path plan = other.resolve("p.plan.yaml");
    Files.writeString(
        plan, Files.readString(plan).replace("out/enriched.json", "out/enriched.xlsx"));
    ran = cluster.run(plan.toString());
    assertThat(ran.status()).isEqualTo(2);
    assertThat(ran.err())
        .contains("enriched.xlsx: files of this kind cannot be written in parts; write .csv");
  }

  @Test
  @Order(4)
  void filesThatOnlyTheEngineReachesAreReadAndWritten() throws IOException {
    Path here = features("near");
    Path other = copy(here, "far");
    alone(0, "run", here.resolve("p.plan.yaml").toString());
    LocalCluster.Ran ran = cluster.run("vale://" + other.resolve("p.plan.yaml"), "--stretch", "2k");
    assertThat(ran.status()).as(ran.err()).isZero();
    same(here.resolve("out"), other.resolve("out"));
    // An address within a plan of this machine, twice over the same output.
    Path plan = other.resolve("q.plan.yaml");
    Files.writeString(
        plan,
        Files.readString(other.resolve("p.plan.yaml"))
            .replace(
                "file: growers.jsonl", "file: \"vale://" + other.resolve("growers.jsonl") + "\""));
    for (int time = 0; time < 2; time++) {
      ran = cluster.run(plan.toString());
      assertThat(ran.status()).as(ran.err()).isZero();
    }
    same(here.resolve("out"), other.resolve("out"), "run.json");
    ran = cluster.run("vale://" + other.resolve("no.plan.yaml"));
    assertThat(ran.err()).contains("there is no plan file vale:///");
  }

  private static Path large(String name) throws IOException {
    Path here = Files.createDirectories(folder.resolve(name));
    StringBuilder text = new StringBuilder("code,kg\n");
    for (int row = 0; row < 2_000_000; row++) {
      text.append('G').append(row * 31L % 50_021).append(',').append(row % 977).append('\n');
    }
    Files.writeString(here.resolve("t.csv"), text);
    StringBuilder growers = new StringBuilder("no,name\n");
    for (int row = 0; row < 50_000; row++) {
      growers.append("G" + row + ",Grower " + row % 977 + "\n");
    }
    Files.writeString(here.resolve("growers.csv"), growers);
    Files.writeString(
        here.resolve("p.plan.yaml"),
        String.join(
            "\n",
            "able-twine: 1",
            "transactions: { file: t.csv }",
            "measure: kg",
            "references: { growers: { file: growers.csv, key: no } }",
            "steps:",
            "  - { lookup: growers, key: [{ ours: code, theirs: no }], bring: [name] }",
            "outputs:",
            "  enriched: out/enriched.csv",
            "  exceptions: out/exceptions.csv",
            "  rollups: [{ by: [name], totals: [kg], file: out/names.csv }]",
            "  record: out/run.json",
            ""));
    return here;
  }

  /** Waits until so many parts were written. */
  private static void untilParts(LocalCluster.Running job, Path out, int count) throws IOException {
    untilFiles(job, out, "", count);
  }

  /** Waits until there are so many files beside the outputs whose names begin so. */
  private static void untilFiles(LocalCluster.Running job, Path out, String start, int count)
      throws IOException {
    long found = 0;
    while (found < count && job.alive()) {
      found = 0;
      if (Files.isDirectory(out)) {
        for (String name : names(out)) {
          found +=
              name.startsWith(".enriched.csv.") && name.endsWith(".parts")
                  ? names(out.resolve(name)).stream().filter(one -> one.startsWith(start)).count()
                  : 0;
        }
      }
      Thread.onSpinWait();
    }
    assertThat(job.alive()).as("the run has not ended yet").isTrue();
  }

  @Test
  @Order(5)
  void whatIsLostWithAProcessIsTakenAgain() throws IOException {
    Path here = large("killed");
    Path other = copy(here, "killed-clustered");
    alone(0, "run", here.resolve("p.plan.yaml").toString());
    LocalCluster.Running job =
        cluster.begun(other.resolve("p.plan.yaml").toString(), "--stretch", "200k");
    untilParts(job, other.resolve("out"), 8);
    cluster.kill("taskmanager-1");
    cluster.more();
    untilParts(job, other.resolve("out"), 30);
    cluster.kill("taskmanager-2");
    cluster.more();
    LocalCluster.Ran ran = job.ended();
    assertThat(ran.status()).as(ran.err()).isZero();
    same(here.resolve("out"), other.resolve("out"));
  }

  /** One is killed while parts of the reference are asked, one while rows are written. */
  @Test
  @Order(6)
  void whatIsLostWithAProcessIsExchangedAgain() throws IOException {
    Path here = folder.resolve("killed");
    Path other = copy(here, "killed-exchanged");
    LocalCluster.Running job =
        cluster.begun(
            other.resolve("p.plan.yaml").toString(), "--stretch", "200k", "--memory", "1");
    untilFiles(job, other.resolve("out"), ".found-", 1);
    cluster.kill("taskmanager-3");
    cluster.more();
    untilFiles(job, other.resolve("out"), "part-", 1);
    cluster.kill("taskmanager-4");
    cluster.more();
    LocalCluster.Ran ran = job.ended();
    assertThat(ran.status()).as(ran.err()).isZero();
    same(here.resolve("out"), other.resolve("out"));
  }

  @Test
  @Order(7)
  void withoutItsJobManagerARunEndsAndWritesNothing() throws IOException {
    Path here = large("lost");
    Files.createDirectories(here.resolve("out"));
    LocalCluster.Running job =
        cluster.begun(here.resolve("p.plan.yaml").toString(), "--stretch", "200k");
    untilParts(job, here.resolve("out"), 5);
    cluster.kill("jobmanager");
    LocalCluster.Ran ran = job.ended();
    assertThat(ran.status()).isEqualTo(1);
    assertThat(ran.err()).contains("able-twine: the cluster has given up: ");
    assertThat(ran.err()).contains("; nothing was changed. Look at its processes, and run again");
    List<String> left = new ArrayList<>(names(here.resolve("out")));
    left.removeIf(name -> name.endsWith(".parts")); // of processes that go on for a moment
    assertThat(left).isEmpty();
  }
}
