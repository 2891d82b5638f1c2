package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.abletwine.demo.WendleVale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Runs in processes of their own: killed, or out of disk. The old output stands. */
class KilledRunTest {
  @TempDir private Path folder;

  private Process start(String... before) throws IOException {
    return start(List.of(), before);
  }

  private Process start(List<String> more, String... before) throws IOException {
    if (!Files.exists(folder.resolve("tickets.csv"))) {
      WendleVale.write(folder, 400_000, 1_000, 1);
      Files.writeString(folder.resolve("out.csv"), "old");
    }
    List<String> command = new ArrayList<>(List.of(before));
    command.addAll(
        List.of(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            Main.class.getName(),
            "enrich",
            folder.resolve("tickets.csv").toString(),
            "--from",
            folder.resolve("growers.csv").toString(),
            "--key",
            "grower_code=grower_no",
            "--bring",
            "name",
            "--out",
            folder.resolve("out.csv").toString()));
    command.addAll(more);
    return new ProcessBuilder(command)
        .redirectErrorStream(true)
        .redirectOutput(folder.resolve("log.txt").toFile())
        .start();
  }

  private boolean partExists() throws IOException {
    return partExists(folder);
  }

  private static boolean partExists(Path folder) throws IOException {
    try (var files = Files.list(folder)) {
      return files.anyMatch(f -> f.getFileName().toString().endsWith(".part"));
    }
  }

  @Test
  void killedWhileWritingTheOldOutputStands() throws Exception {
    Process run = start();
    while (run.isAlive() && !partExists()) {
      Thread.sleep(5);
    }
    run.destroyForcibly().waitFor(20, TimeUnit.SECONDS);
    assertThat(run.exitValue()).as("killed before its end").isNotZero();
    assertThat(folder.resolve("out.csv")).hasContent("old");
    assertThat(partExists()).as("kill -9 leaves the part").isTrue();

    Process again = start();
    assertThat(again.waitFor(60, TimeUnit.SECONDS)).isTrue();
    assertThat(again.exitValue()).isZero();
    assertThat(Files.size(folder.resolve("out.csv"))).isGreaterThan(1_000_000);
    assertThat(partExists()).as("cleared by the next run").isFalse();
  }

  @Test
  void aFullDiskIsToldAndChangesNothing() throws Exception {
    // A limit on the size of files meets the same error path as a full disk, without needing one.
    Process run = start("bash", "-c", "ulimit -f 2000; trap '' XFSZ; exec \"$@\"", "limited");
    assertThat(run.waitFor(60, TimeUnit.SECONDS)).isTrue();
    assertThat(run.exitValue()).isEqualTo(1);
    assertThat(folder.resolve("log.txt")).content().contains("cannot write", "nothing was changed");
    assertThat(folder.resolve("out.csv")).hasContent("old");
    assertThat(partExists()).isFalse();
  }

  /** Nothing fits in one byte of memory: the reference goes to disk. */
  private List<String> onDisk() throws IOException {
    Path temporary = folder.resolve("temporary");
    Files.createDirectories(temporary);
    return List.of("--memory", "1", "--temporary-folder", temporary.toString());
  }

  @Test
  void whatAKilledRunHasKeptOnDiskIsClearedByTheNext() throws Exception {
    List<String> onDisk = onDisk();
    Path temporary = folder.resolve("temporary");
    Process run = start(onDisk);
    while (run.isAlive() && !partExists(temporary)) {
      Thread.sleep(5);
    }
    run.destroyForcibly().waitFor(20, TimeUnit.SECONDS);
    assertThat(run.exitValue()).as("killed before its end").isNotZero();
    assertThat(partExists(temporary)).as("kill -9 leaves what was kept").isTrue();
    assertThat(folder.resolve("out.csv")).hasContent("old");

    Process again = start(onDisk);
    assertThat(again.waitFor(60, TimeUnit.SECONDS)).isTrue();
    assertThat(again.exitValue()).isZero();
    assertThat(temporary).isEmptyDirectory();
    byte[] divided = Files.readAllBytes(folder.resolve("out.csv"));
    assertThat(start().waitFor()).isZero();
    assertThat(Files.readAllBytes(folder.resolve("out.csv"))).isEqualTo(divided);
  }

  @Test
  void aFullTemporaryFolderIsToldAndChangesNothing() throws Exception {
    Process run =
        start(onDisk(), "bash", "-c", "ulimit -f 2000; trap '' XFSZ; exec \"$@\"", "limited");
    assertThat(run.waitFor(60, TimeUnit.SECONDS)).isTrue();
    assertThat(run.exitValue()).isEqualTo(1);
    assertThat(folder.resolve("log.txt"))
        .content()
        .contains("cannot keep what does not fit in memory in the folder", "make room there");
    assertThat(folder.resolve("out.csv")).hasContent("old");
    assertThat(folder.resolve("temporary")).isEmptyDirectory();
  }
}
