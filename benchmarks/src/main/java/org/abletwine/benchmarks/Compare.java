package org.abletwine.benchmarks;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.abletwine.demo.WendleVale;

/**
 * Runs the tool and the plain program side by side on the same data, alternating, and prints the
 * ratios of wall time and of peak memory. Each run is a process of its own; peak memory is the
 * kernel's high-water mark of resident memory, looked up while the process lives.
 */
public final class Compare {
  private static final long POLL_MILLIS = 50;

  private record Measured(double seconds, double mebibytes) {}

  private Compare() {}

  /**
   * Compares.
   *
   * @param args the number of tickets, of growers, of rounds; the root of the checkout; the folder
   *     for data
   * @throws IOException when data cannot be written
   * @throws InterruptedException when interrupted
   */
  public static void main(String[] args) throws IOException, InterruptedException {
    long tickets = Long.parseLong(args[0]);
    int growers = Integer.parseInt(args[1]);
    int rounds = Integer.parseInt(args[2]);
    String tool = Path.of(args[3], "able-twine").toString();
    Path data = Path.of(args[4], "t" + tickets + "-g" + growers);
    if (!Files.exists(data.resolve("done"))) {
      Files.createDirectories(data);
      WendleVale.write(data, tickets, growers, WendleVale.SEED);
      Files.createFile(data.resolve("done"));
    }
    String ticketFile = data.resolve("tickets.csv").toString();
    String growerFile = data.resolve("growers.csv").toString();
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    List<String> plain =
        List.of(
            java,
            "-cp",
            System.getProperty("java.class.path"),
            PlainProgram.class.getName(),
            ticketFile,
            growerFile,
            data.resolve("plain.csv").toString());
    List<String> ours =
        List.of(
            tool,
            "enrich",
            ticketFile,
            "--from",
            growerFile,
            "--key",
            "grower_code=grower_no",
            "--bring",
            "name as grower_name,district_code,mobile",
            "--several",
            "first",
            "--out",
            data.resolve("ours.csv").toString());
    System.out.printf(
        Locale.ROOT,
        "%,d tickets (%,d MB), %,d growers, %d rounds, %d processors%n",
        tickets,
        Files.size(data.resolve("tickets.csv")) / 1_000_000,
        growers,
        rounds,
        Runtime.getRuntime().availableProcessors());
    measure(List.of(tool, "--version"), data);
    List<Measured> plainRuns = new ArrayList<>();
    List<Measured> ourRuns = new ArrayList<>();
    for (int round = 1; round <= rounds; round++) {
      plainRuns.add(measure(plain, data));
      ourRuns.add(measure(ours, data));
      System.out.printf(
          Locale.ROOT,
          "round %d: plain %.2f s, %.0f MiB; able-twine %.2f s, %.0f MiB%n",
          round,
          last(plainRuns).seconds(),
          last(plainRuns).mebibytes(),
          last(ourRuns).seconds(),
          last(ourRuns).mebibytes());
    }
    System.out.printf(
        Locale.ROOT,
        "medians: wall ratio %.3f, peak memory ratio %.3f%n",
        median(ourRuns, true) / median(plainRuns, true),
        median(ourRuns, false) / median(plainRuns, false));
  }

  private static Measured last(List<Measured> runs) {
    return runs.get(runs.size() - 1);
  }

  private static double median(List<Measured> runs, boolean time) {
    double[] values =
        runs.stream().mapToDouble(m -> time ? m.seconds() : m.mebibytes()).sorted().toArray();
    return (values[(values.length - 1) / 2] + values[values.length / 2]) / 2;
  }

  private static Measured measure(List<String> command, Path data)
      throws IOException, InterruptedException {
    File log = data.resolve("log.txt").toFile();
    long begun = System.nanoTime();
    Process process =
        new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log).start();
    Path status = Path.of("/proc", Long.toString(process.pid()), "status");
    long peak = 0;
    while (process.isAlive()) {
      peak = Math.max(peak, highWater(status));
      Thread.sleep(POLL_MILLIS);
    }
    double seconds = (System.nanoTime() - begun) / 1e9;
    if (process.exitValue() != 0) {
      throw new IOException(command + " failed: " + Files.readString(log.toPath()));
    }
    return new Measured(seconds, peak / 1024.0);
  }

  private static long highWater(Path status) {
    try {
      return Arrays.stream(Files.readString(status).split("\n"))
          .filter(line -> line.startsWith("VmHWM:"))
          .mapToLong(line -> Long.parseLong(line.replaceAll("\\D+", "")))
          .findFirst()
          .orElse(0);
    } catch (IOException e) {
      return 0; // the process has just ended
    }
  }
}
