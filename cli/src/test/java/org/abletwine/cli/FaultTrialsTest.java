package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.abletwine.demo.WendleVale;
import org.abletwine.plan.PlanFile;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/**
 * Runs that are killed, and disks that are too small: whatever happens, each output is the old one
 * or the new one, whole; and where some are new and some old, the next run says so. More of them by
 * {@code -Dkills=200 -Dsizes=50}.
 */
@Timeout(3_600)
class FaultTrialsTest {
  private static final int KILLS = Integer.getInteger("kills", 4);
  private static final int SIZES = Integer.getInteger("sizes", 10);
  private static final List<String> OUTPUTS =
      List.of("out.csv", "exceptions.csv", "left.csv", "up.csv", "draft.csv", "run.json");

  /** More outputs, so that their moves take long enough to fall between two of them. */
  private static final int MORE = 40;

  @TempDir private Path folder;
  private Path small = Path.of("");

  @BeforeEach
  void tables() throws IOException {
    WendleVale.write(folder, 30_000, 500, 1);
  }

  @AfterEach
  void unmount() throws Exception {
    if (!small.toString().isEmpty()) {
      new ProcessBuilder("umount", small.toString()).start().waitFor();
    }
  }

  /** A plan whose outputs all say which version wrote them, with more rollups on request. */
  private Path plan(String version, Path outputs, int more) throws IOException {
    return Files.writeString(
        folder.resolve(version + ".plan.yaml"),
        """
        able-twine: 1
        title: %1$s
        transactions: { file: tickets.csv }
        references: { growers: { file: growers.csv, key: grower_no } }
        steps:
          - compute: { version: "'%1$s'", key: "grower_code || '%1$s'" }
          - { lookup: growers, name: "%1$s", key: key = grower_no, bring: [name] }
          - { keep: "version = '%1$s' and ticket_no not like '%%7'", left-out: %2$s/left.csv }
        outputs:
          enriched: %2$s/out.csv
          exceptions: %2$s/exceptions.csv
          corrections: %2$s/draft.csv
          record: %2$s/run.json
          rollups:
            - { by: [version], totals: [count(*)], file: %2$s/up.csv }
        """
                .formatted(version, outputs)
            + IntStream.range(0, more)
                .mapToObj(
                    i ->
                        "    - { by: [version], totals: [count(*)], file: "
                            + outputs
                            + "/more"
                            + i
                            + ".csv }\n")
                .collect(Collectors.joining()));
  }

  private Process start(Path plan, Path log) throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-XX:TieredStopAtLevel=1",
            "-cp",
            System.getProperty("java.class.path"),
            Main.class.getName(),
            "run",
            plan.toString())
        .redirectErrorStream(true)
        .redirectOutput(log.toFile())
        .start();
  }

  /** Which version each output is of; each must be whole. */
  private static TreeSet<String> versions(Path outputs, List<List<byte[]>> whole)
      throws IOException {
    TreeSet<String> found = new TreeSet<>();
    for (int i = 0; i < OUTPUTS.size(); i++) {
      byte[] bytes = Files.readAllBytes(outputs.resolve(OUTPUTS.get(i)));
      if (OUTPUTS.get(i).equals("run.json")) {
        String text = new String(bytes, StandardCharsets.UTF_8); // times differ from run to run
        assertThat(text).endsWith("}\n");
        found.add(text.contains("\"one\"") ? "one" : "two");
      } else if (java.util.Arrays.equals(bytes, whole.get(0).get(i))) {
        boolean alike = java.util.Arrays.equals(whole.get(0).get(i), whole.get(1).get(i));
        found.addAll(alike ? List.of() : List.of("one"));
      } else {
        assertThat(bytes).as(OUTPUTS.get(i)).isEqualTo(whole.get(1).get(i));
        found.add("two");
      }
    }
    return found;
  }

  private static List<byte[]> read(Path outputs) throws IOException {
    List<byte[]> all = new ArrayList<>();
    for (String name : OUTPUTS) {
      all.add(Files.readAllBytes(outputs.resolve(name)));
    }
    return all;
  }

  private static long count(Path outputs, String end) throws IOException {
    try (var files = Files.list(outputs)) {
      return files.filter(file -> file.toString().endsWith(end)).count();
    }
  }

  @Test
  void killedRunsLeaveWholeFilesAndAreToldWhereTheyWereMovingThem() throws Exception {
    Path outputs = Files.createDirectory(folder.resolve("o"));
    Path log = folder.resolve("log.txt");
    List<Path> plans = List.of(plan("one", outputs, MORE), plan("two", outputs, MORE));
    List<List<byte[]>> whole = new ArrayList<>();
    long longest = 0;
    for (Path plan : plans) {
      long begun = System.nanoTime();
      assertThat(start(plan, log).waitFor()).as(Files.readString(log)).isZero();
      longest = (System.nanoTime() - begun) / 1_000_000;
      whole.add(read(outputs));
    }
    Random random = new Random(1);
    int mixed = 0;
    int there = 1; // the version that lies there
    for (int kill = 0; kill < KILLS; kill++) {
      Process run = start(plans.get(1 - there), log);
      if (kill % 2 == 0) {
        run.waitFor(random.nextLong(longest), TimeUnit.MILLISECONDS);
      } else {
        while (run.isAlive() && !Files.exists(outputs.resolve(".exceptions.csv.moving"))) {
          Thread.onSpinWait(); // the moves begin now
        }
        Thread.sleep(random.nextInt(30));
      }
      run.destroyForcibly().waitFor();
      boolean between = versions(outputs, whole).size() > 1;
      mixed += between ? 1 : 0;
      boolean listed = count(outputs, ".moving") > 0;
      assertThat(listed || !between).as("a mixture is known for one").isTrue();
      there = random.nextInt(2);
      assertThat(start(plans.get(there), log).waitFor()).isZero();
      assertThat(Files.readString(log).contains("was ended while it moved its outputs"))
          .as("kill " + kill)
          .isEqualTo(listed);
      assertThat(versions(outputs, whole)).containsExactly(there == 0 ? "one" : "two");
      assertThat(count(outputs, ".part") + count(outputs, ".moving")).isZero();
    }
    assertThat(mixed).as("kills between two moves").isGreaterThanOrEqualTo(KILLS / 10);
    System.out.println(KILLS + " kills, " + mixed + " of them between two moves");
  }

  @Test
  void runsAtTheSameTimeDoNotMixTheirOutputs() throws Exception {
    Path outputs = Files.createDirectory(folder.resolve("o"));
    List<Path> plans = List.of(plan("one", outputs, MORE), plan("two", outputs, MORE));
    List<List<byte[]>> whole = new ArrayList<>();
    for (Path plan : plans) {
      assertThat(start(plan, folder.resolve("log.txt")).waitFor()).isZero();
      whole.add(read(outputs));
    }
    List<Process> runs = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      runs.add(start(plans.get(i % 2), folder.resolve("log" + i + ".txt")));
    }
    for (int i = 0; i < runs.size(); i++) {
      int status = runs.get(i).waitFor();
      assertThat(status).as(Files.readString(folder.resolve("log" + i + ".txt"))).isZero();
    }
    assertThat(versions(outputs, whole)).hasSize(1);
    assertThat(count(outputs, ".part") + count(outputs, ".moving")).isZero();
  }

  @Test
  void aDiskThatIsTooSmallChangesNothing() throws Exception {
    small = Files.createDirectory(folder.resolve("small"));
    Process mount =
        new ProcessBuilder("mount", "-t", "tmpfs", "-o", "size=6000k", "tmpfs", small.toString())
            .start();
    boolean mounted = mount.waitFor() == 0;
    if (!mounted) {
      small = Path.of("");
    }
    Assumptions.assumeTrue(mounted, "file systems can be mounted here");
    Path outputs = Files.createDirectory(folder.resolve("o"));
    PlanFile.load(plan("one", outputs, 0)).run(Progress.NONE);
    PlanFile.load(plan("two", outputs, 0)).run(Progress.NONE);
    List<byte[]> two = read(outputs);
    Path two1 = plan("two", small, 0);
    for (String name : OUTPUTS) {
      Files.writeString(small.resolve(name), name.equals("draft.csv") ? "" : "old " + name);
    }
    Files.delete(small.resolve("draft.csv"));
    Path filler = small.resolve("filler");
    int told = 0;
    for (int size = 0; size < SIZES; size++) {
      long free = 4_000 + size * 5_500_000L / SIZES;
      Files.write(filler, new byte[(int) (6_000_000 - free)]);
      try {
        PlanFile.load(two1).run(Progress.NONE);
        assertThat(Files.readAllBytes(small.resolve("out.csv"))).isEqualTo(two.get(0));
        assertThat(Files.readAllBytes(small.resolve("left.csv"))).isEqualTo(two.get(2));
        break; // every larger size will do too
      } catch (DataException e) {
        told++;
        assertThat(e).hasMessageContaining("No space left on device");
        assertThat(small.resolve("out.csv")).hasContent("old out.csv");
        assertThat(small.resolve("run.json")).hasContent("old run.json");
        assertThat(count(small, ".part") + count(small, ".moving")).isZero();
      }
    }
    assertThat(told).isBetween(1, SIZES);
  }
}
