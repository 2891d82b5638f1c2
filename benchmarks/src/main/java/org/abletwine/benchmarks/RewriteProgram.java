package org.abletwine.benchmarks;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.file.Path;

/** Reads a table with the CSV library and writes it again: what reading and writing alone cost. */
public final class RewriteProgram {
  private RewriteProgram() {}

  /**
   * Rewrites a table.
   *
   * @param args the table, the output
   * @throws IOException when a file cannot be read or written
   */
  public static void main(String[] args) throws IOException {
    try (CsvReader<CsvRecord> reader = CsvReader.builder().ofCsvRecord(Path.of(args[0]));
        CsvWriter writer = CsvWriter.builder().build(Path.of(args[1]))) {
      for (CsvRecord row : reader) {
        writer.writeRecord(row.getFields());
      }
    }
  }
}
