package org.abletwine.benchmarks;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.demo.WendleVale;
import org.abletwine.key.Normalise;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;

/** Times the search for duplicates against reading and parsing the same file, alternating. */
public final class DuplicateSpeed {
  private DuplicateSpeed() {}

  /**
   * Runs the comparison.
   *
   * @param args the number of growers; rounds; the folder for data
   * @throws IOException when data cannot be written
   */
  public static void main(String[] args) throws IOException {
    int growers = Integer.parseInt(args[0]);
    int rounds = Integer.parseInt(args[1]);
    Path data = Files.createDirectories(Path.of(args[2], "d" + growers));
    if (!Files.exists(data.resolve("growers.csv"))) {
      WendleVale.write(data, 1, growers, WendleVale.SEED);
    }
    System.out.println("equal keys follow each other:");
    compare(Tables.file(data.resolve("growers.csv")), rounds);
    System.out.println("equal keys are half the table apart:");
    compare(Tables.file(apart(data)), rounds);
  }

  /** The same rows, those at even places first. */
  private static Path apart(Path data) throws IOException {
    Path file = data.resolve("growers-apart.csv");
    if (!Files.exists(file)) {
      try (BufferedWriter writer = Files.newBufferedWriter(file)) {
        for (int half = 0; half < 2; half++) {
          try (BufferedReader lines = Files.newBufferedReader(data.resolve("growers.csv"))) {
            String header = lines.readLine();
            writer.write(half == 0 ? header + "\n" : "");
            int number = 0;
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
              if (number++ % 2 == half) {
                writer.write(line + "\n");
              }
            }
          }
        }
      }
    }
    return file;
  }

  private static void compare(Table table, int rounds) {
    List<Double> ratios = new ArrayList<>();
    for (int round = 1; round <= rounds; round++) {
      long begun = System.nanoTime();
      long rows = 0;
      try (BatchReader reader = new BatchReader(table)) {
        for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
          rows += batch.rows();
        }
      }
      double reading = (System.nanoTime() - begun) / 1e9;
      begun = System.nanoTime();
      DuplicateAudit.Report report =
          DuplicateAudit.of(table, new int[] {0}, List.of(Normalise.trim())).report(10);
      double finding = (System.nanoTime() - begun) / 1e9;
      System.out.printf(
          Locale.ROOT,
          "%,d rows: reading %.2f s, duplicates %.2f s, ratio %.2f; %,d keys on several rows, %.0f bytes a key%n",
          rows,
          reading,
          finding,
          finding / reading,
          report.duplicateKeys(),
          report.bytesPerKey());
      ratios.add(finding / reading);
    }
    System.out.printf(
        Locale.ROOT, "median ratio %.2f%n", ratios.stream().sorted().toList().get(rounds / 2));
  }
}
