package org.abletwine.benchmarks;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.function.ToDoubleFunction;
import org.abletwine.demo.WendleVale;

/**
 * Runs the tool, the plain program and one that only rewrites the tickets side by side on the same
 * data, in turn, and prints the ratios of wall time, of processor time and of peak memory. Each run
 * is a process of its own; processor time and peak memory (the kernel's high-water mark of resident
 * memory) are looked up while the process lives.
 */
public final class Compare {
  private static final long POLL_MILLIS = 20;

  private record Measured(double seconds, double processor, double mebibytes) {}

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
    List<String> rewrite =
        List.of(
            java,
            "-cp",
            System.getProperty("java.class.path"),
            RewriteProgram.class.getName(),
            ticketFile,
            data.resolve("rewritten.csv").toString());
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
    List<Measured> rewrites = new ArrayList<>();
    List<Measured> ourRuns = new ArrayList<>();
    for (int round = 1; round <= rounds; round++) {
      plainRuns.add(again(plain, data));
      rewrites.add(again(rewrite, data));
      ourRuns.add(again(ours, data));
      System.out.printf(
          Locale.ROOT,
          "round %d: plain %s; rewriting alone %s; able-twine %s%n",
          round,
          last(plainRuns),
          last(rewrites),
          last(ourRuns));
    }
    System.out.printf(
        Locale.ROOT,
        "medians, to plain: wall %.3f, processor %.3f, peak memory %.3f;"
            + " to rewriting: wall %.3f, processor %.3f%n",
        ratio(ourRuns, plainRuns, Measured::seconds),
        ratio(ourRuns, plainRuns, Measured::processor),
        ratio(ourRuns, plainRuns, Measured::mebibytes),
        ratio(ourRuns, rewrites, Measured::seconds),
        ratio(ourRuns, rewrites, Measured::processor));
  }

  private static String last(List<Measured> runs) {
    Measured run = runs.get(runs.size() - 1);
    return String.format(
        Locale.ROOT,
        "%.2f s (%.2f s of processor time), %.0f MiB",
        run.seconds(),
        run.processor(),
        run.mebibytes());
  }

  private static double ratio(
      List<Measured> runs, List<Measured> others, ToDoubleFunction<Measured> of) {
    return median(runs, of) / median(others, of);
  }

  private static double median(List<Measured> runs, ToDoubleFunction<Measured> of) {
    double[] values = runs.stream().mapToDouble(of).sorted().toArray();
    return (values[(values.length - 1) / 2] + values[values.length / 2]) / 2;
  }

  /** A run that finds nothing that one before wrote: its output, the last word, is taken away. */
  private static Measured again(List<String> command, Path data)
      throws IOException, InterruptedException {
    Files.deleteIfExists(Path.of(command.get(command.size() - 1)));
    return measure(command, data);
  }

  private static Measured measure(List<String> command, Path data)
      throws IOException, InterruptedException {
    File log = data.resolve("log.txt").toFile();
    long begun = System.nanoTime();
    Process process =
        new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log).start();
    Path status = Path.of("/proc", Long.toString(process.pid()), "status");
    long peak = 0;
    Duration processor = Duration.ZERO;
    do {
      peak = Math.max(peak, highWater(status));
      processor = process.info().totalCpuDuration().orElse(processor);
    } while (!process.waitFor(POLL_MILLIS, TimeUnit.MILLISECONDS));
    double seconds = (System.nanoTime() - begun) / 1e9;
    if (process.exitValue() != 0) {
      throw new IOException(command + " failed: " + Files.readString(log.toPath()));
    }
    return new Measured(seconds, processor.toMillis() / 1e3, peak / 1024.0);
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
