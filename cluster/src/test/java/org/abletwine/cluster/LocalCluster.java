package org.abletwine.cluster;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** A cluster of real processes on this machine, by the script that people use. */
final class LocalCluster implements AutoCloseable {
  private static final Path SCRIPT = Path.of("local").toAbsolutePath();
  private static final int MOST_SECONDS = 240;

  private final Path folder;

  LocalCluster(Path folder, int taskManagers) throws IOException {
    this.folder = folder;
    Ran started = script("start", "" + taskManagers).ended();
    if (started.status != 0) {
      throw new IOException("no cluster: " + started.err);
    }
  }

  /** A command that has ended. */
  record Ran(int status, String out, String err) {}

  /** A command under way. */
  final class Running {
    private final Process process;
    private final Path out;
    private final Path err;

    private Running(Process process, Path out, Path err) {
      this.process = process;
      this.out = out;
      this.err = err;
    }

    boolean alive() {
      return process.isAlive();
    }

    Ran ended() throws IOException {
      try {
        if (!process.waitFor(MOST_SECONDS, TimeUnit.SECONDS)) {
          process.destroyForcibly().waitFor();
          throw new IOException("does not end: " + Files.readString(err));
        }
      } catch (InterruptedException e) {
        throw new IOException(e);
      }
      return new Ran(process.exitValue(), Files.readString(out), Files.readString(err));
    }
  }

  private Running script(String... args) throws IOException {
    List<String> command = new ArrayList<>(List.of(SCRIPT.toString()));
    command.addAll(List.of(args));
    Path out = Files.createTempFile(folder, "out", "");
    Path err = Files.createTempFile(folder, "err", "");
    ProcessBuilder builder =
        new ProcessBuilder(command).redirectOutput(out.toFile()).redirectError(err.toFile());
    builder.environment().put("ABLE_TWINE_CLUSTER", folder.resolve("cluster").toString());
    builder.environment().put("ABLE_TWINE_HEAP", "384");
    builder
        .environment()
        .put("ABLE_TWINE_ENGINE_PATH", Path.of("target/test-classes").toAbsolutePath().toString());
    return new Running(builder.start(), out, err);
  }

  Running begun(String... args) throws IOException {
    List<String> all = new ArrayList<>(List.of("run"));
    all.addAll(List.of(args));
    return script(all.toArray(new String[0]));
  }

  Ran run(String... args) throws IOException {
    return begun(args).ended();
  }

  /** Kills the process of a name, as a machine does that fails. */
  void kill(String name) throws IOException {
    for (String line : Files.readAllLines(folder.resolve("cluster/pids"))) {
      String[] parts = line.split(" ");
      if (parts[0].equals(name)) {
        ProcessHandle.of(Long.parseLong(parts[1])).ifPresent(ProcessHandle::destroyForcibly);
      }
    }
  }

  void more() throws IOException {
    script("more").ended();
  }

  @Override
  public void close() {
    try {
      script("stop").ended();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
