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
import org.abletwine.table.Batch;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableReader;
import org.abletwine.table.Tables;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The scanner finds the cells that the library's parser finds. */
class RowScannerTest {
  private static final String[] ENDS = {"\n", "\r\n", "\r"};

  @TempDir private Path folder;

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
  void agreesWithTheLibraryOnRandomText(long seed) throws IOException {
    Random random = new Random(seed);
    char delimiter = ",;\t|".charAt(random.nextInt(4));
    int columns = 2 + random.nextInt(6);
    StringBuilder text = new StringBuilder();
    for (int row = 0; row < 9_000; row++) {
      for (int column = 0; column < columns; column++) {
        text.append(column == 0 ? "" : delimiter).append(cell(random, row, column, delimiter));
      }
      // Every line end is taken, mixed ones too, and lines with nothing on them are passed over.
      text.append(ENDS[random.nextInt(3)]);
      text.append(random.nextInt(50) == 0 ? "\n\n" : "");
    }
    Path file = Files.writeString(folder.resolve("in.csv"), text);
    TableOptions stated = new TableOptions(delimiter, '"', true, null, List.of(), false);
    assertThat(read(Tables.file(file, stated))).isEqualTo(library(text.toString(), delimiter));
  }

  private static String cell(Random random, int row, int column, char delimiter) {
    if (row == 0) {
      return "c" + column;
    }
    return switch (random.nextInt(14)) {
      case 0 -> column == 0 ? "-" : "";
      case 1 -> "\"\"";
      case 2 -> "\"a" + delimiter + "b\"";
      case 3 -> "\"line\r\nbreak\"";
      case 4 -> "\"say \"\"hi\"\" \"";
      case 5 -> "5\" pipe";
      case 6 -> "Brönn ж \uD83C\uDF3E";
      case 7 -> "\"" + "long ".repeat(random.nextInt(900)) + "\"";
      case 8 -> "a\u000Bb\bc";
      default -> "w".repeat(random.nextInt(12)) + random.nextInt(100);
    };
  }

  private static List<List<String>> library(String text, char delimiter) throws IOException {
    List<List<String>> rows = new ArrayList<>();
    try (CsvReader<CsvRecord> reader =
        CsvReader.builder().fieldSeparator(delimiter).ofCsvRecord(text)) {
      reader.forEach(record -> rows.add(record.getFields()));
    }
    return rows.subList(1, rows.size());
  }

  private static List<List<String>> read(Table table) {
    List<List<String>> rows = new ArrayList<>();
    int columns = table.schema().size();
    try (TableReader reader = table.open()) {
      Batch batch = new Batch(columns);
      while (reader.read(batch)) {
        assertThat(batch.rows()).isLessThanOrEqualTo(Batch.ROWS);
        for (int row = 0; row < batch.rows(); row++) {
          List<String> cells = new ArrayList<>();
          for (int column = 0; column < columns; column++) {
            String value = batch.column(column).get(row);
            cells.add(value == null ? "" : value);
          }
          rows.add(cells);
        }
      }
    }
    return rows;
  }

  @Test
  void rowsTooLongForABatchStayWhole() throws IOException {
    String wide = "x".repeat(3_000_000);
    Path file =
        Files.writeString(
            folder.resolve("in.csv"),
            "a,b\n" + (wide + ",1\n\"" + wide + "\"," + wide + "\n").repeat(3));
    List<List<String>> rows = read(Tables.file(file));
    assertThat(rows).hasSize(6);
    assertThat(rows.get(4)).isEqualTo(List.of(wide, "1"));
    assertThat(rows.get(5)).isEqualTo(List.of(wide, wide));
  }

  @Test
  void aSingleColumnKeepsItsEmptyLines() throws IOException {
    Path file = Files.writeString(folder.resolve("in.csv"), "a\n1\n\n3");
    assertThat(read(Tables.file(file))).isEqualTo(List.of(List.of("1"), List.of(""), List.of("3")));
  }
}
