package org.abletwine.benchmarks;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What an engineer would write in an afternoon: the CSV library's records, a map on strings, the
 * library's writer. The yardstick of every speed that is claimed.
 */
public final class PlainProgram {
  private PlainProgram() {}

  /**
   * Enriches tickets with three attributes of their grower.
   *
   * @param args tickets, growers, output
   * @throws IOException when a file cannot be read or written
   */
  public static void main(String[] args) throws IOException {
    Map<String, NamedCsvRecord> growers = new HashMap<>();
    try (CsvReader<NamedCsvRecord> reader =
        CsvReader.builder().ofNamedCsvRecord(Path.of(args[1]))) {
      for (NamedCsvRecord grower : reader) {
        growers.putIfAbsent(grower.getField("grower_no").trim(), grower);
      }
    }
    long matched = 0;
    try (CsvReader<NamedCsvRecord> reader = CsvReader.builder().ofNamedCsvRecord(Path.of(args[0]));
        CsvWriter writer = CsvWriter.builder().build(Path.of(args[2]))) {
      boolean first = true;
      for (NamedCsvRecord ticket : reader) {
        if (first) {
          first = false;
          List<String> header = new ArrayList<>(ticket.getHeader());
          header.addAll(List.of("grower_name", "district_code", "mobile"));
          writer.writeRecord(header);
        }
        List<String> row = new ArrayList<>(ticket.getFields());
        NamedCsvRecord grower = growers.get(ticket.getField("grower_code").trim());
        if (grower == null) {
          row.addAll(List.of("", "", ""));
        } else {
          matched++;
          row.add(grower.getField("name"));
          row.add(grower.getField("district_code"));
          row.add(grower.getField("mobile"));
        }
        writer.writeRecord(row);
      }
    }
    System.out.println("matched " + matched);
  }
}
