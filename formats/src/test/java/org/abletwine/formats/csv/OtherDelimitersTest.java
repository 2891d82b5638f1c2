package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.enrich.Enrichment;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Destination;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * A table leaves with the cells it came with, whatever stands between them there and here, and
 * however many of them a run has looked at: which it did not, it must find when they leave apart.
 */
class OtherDelimitersTest {
  private static final String DELIMITERS = ",;\t|";
  private static final int COLUMNS = 6;

  @TempDir private Path folder;

  private static String cell(Random random) {
    char some = DELIMITERS.charAt(random.nextInt(4));
    return switch (random.nextInt(9)) {
      case 0 -> "";
      case 1 -> "two" + some + "three";
      case 2 -> "say \"" + some + "\"";
      case 3 -> "line\nbreak";
      case 4 -> "" + some;
      default -> "w" + random.nextInt(100);
    };
  }

  /** Rows with cells of every sort, or with some rows all plain: those are read the short way. */
  private static List<List<String>> rows(Random random) {
    List<List<String>> rows = new ArrayList<>();
    for (int row = 0; row < 3_000; row++) {
      List<String> cells = new ArrayList<>();
      boolean plain = random.nextInt(4) > 0;
      for (int column = 0; column < COLUMNS; column++) {
        cells.add(plain ? random.nextInt(5) == 0 ? "" : "p" + row : cell(random));
      }
      rows.add(cells);
    }
    return rows;
  }

  private Path written(List<List<String>> rows, char delimiter) throws IOException {
    StringBuilder text = new StringBuilder();
    for (int column = 0; column < COLUMNS; column++) {
      text.append(column == 0 ? "" : delimiter).append("c").append(column);
    }
    text.append('\n');
    for (List<String> row : rows) {
      for (int column = 0; column < COLUMNS; column++) {
        String cell = row.get(column);
        boolean plain = cell.chars().noneMatch(c -> c == delimiter || c == '"' || c == '\n');
        text.append(column == 0 ? "" : delimiter);
        text.append(plain ? cell : '"' + cell.replace("\"", "\"\"") + '"');
      }
      text.append('\n');
    }
    return Files.writeString(folder.resolve("in.csv"), text);
  }

  private static List<List<String>> read(Path file, char delimiter) throws IOException {
    List<List<String>> rows = new ArrayList<>();
    try (CsvReader<CsvRecord> reader =
        CsvReader.builder().fieldSeparator(delimiter).ofCsvRecord(file)) {
      reader.forEach(record -> rows.add(record.getFields().subList(0, COLUMNS)));
    }
    return rows.subList(1, rows.size());
  }

  private static Destination to(Path file, char delimiter, @Nullable String decimal) {
    return Tables.destination(
        file, new OutputOptions(delimiter, null, null, null, null, decimal, null));
  }

  @ParameterizedTest
  @ValueSource(chars = {',', ';', '\t', '|'})
  void cellsStayWhatTheyAre(char from) throws IOException {
    Random random = new Random(from);
    List<List<String>> rows = rows(random);
    Path in = written(rows, from);
    Table sites = Tables.of("sites", List.of("code", "name"), List.of(List.of("p1", "Mill")));
    Path out = folder.resolve("out.csv");
    for (char to : DELIMITERS.toCharArray()) {
      for (int looked = -1; looked < COLUMNS; looked++) {
        Enrichment.Builder run = Enrichment.of(Tables.file(in)).workers(1 + random.nextInt(2));
        if (looked >= 0) {
          run.lookup(Lookup.in(sites).key("c" + looked, "code").bring("name"));
        }
        String decimal = random.nextInt(4) == 0 ? "1.234,56" : null;
        run.build().writeTo(to(out, to, decimal).open(null));
        assertThat(read(out, to)).as("%s to %s, %d", from, to, looked).isEqualTo(rows);
      }
    }
  }
}
