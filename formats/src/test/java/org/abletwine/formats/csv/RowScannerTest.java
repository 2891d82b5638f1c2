package org.abletwine.formats.csv;

import static java.nio.charset.StandardCharsets.UTF_16LE;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.CellVector;
import org.junit.jupiter.api.AfterEach;
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
    String text = text(random, delimiter);
    assertThat(read(table(text, delimiter))).isEqualTo(library(text, delimiter));
  }

  /** Wherever the text is cut into pieces, down to one row each. */
  @ParameterizedTest
  @ValueSource(ints = {1, 7, 64, 1_000, 40_000, 1 << 20})
  void agreesWithTheLibraryHoweverItIsCut(int size) throws IOException {
    cutInto(size);
    Random random = new Random(size);
    for (Charset encoding : List.of(UTF_8, UTF_16LE)) {
      String text = text(random, ';');
      Path file = folder.resolve("in.csv");
      Files.writeString(file, (encoding == UTF_8 ? "" : "\uFEFF") + text, encoding);
      TableOptions options = new TableOptions(';', '"', true, null, List.of(), false);
      assertThat(read(Tables.file(file, options))).isEqualTo(library(text, ';'));
    }
  }

  private static void cutInto(int bytes) {
    System.setProperty("org.abletwine.piece", "" + bytes);
  }

  @AfterEach
  void cutAsUsual() {
    System.clearProperty("org.abletwine.piece");
  }

  /**
   * A second look at some rows gives those rows, with their numbers, however few they are, and
   * however few of their cells are noted at first.
   */
  @ParameterizedTest
  @ValueSource(longs = {21, 22, 23, 24, 25, 26, 27, 28, 29, 30})
  void someRowsAreThoseRows(long seed) throws IOException {
    Random random = new Random(seed);
    String text = text(random, ',');
    cutInto(1 + random.nextInt(1 << random.nextInt(19)));
    List<List<String>> all = library(text, ',');
    BitSet wanted = new BitSet();
    int one = 1 + random.nextInt(1 << random.nextInt(10));
    for (int number = 1; number <= all.size(); number++) {
      wanted.set(number, random.nextInt(one) == 0);
    }
    Table table = table(text, ',');
    for (int first = 1; first <= table.schema().size(); first += first < 8 ? 1 : first / 4) {
      int number = 0;
      try (BatchReader reader = new BatchReader(table, first, wanted)) {
        for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
          for (int row = 0; row < batch.rows(); row++) {
            batch.complete(row);
          }
          List<List<String>> rows = rows(batch);
          for (int row = 0; row < rows.size(); row++) {
            number = wanted.nextSetBit(number + 1);
            assertThat(batch.rowNumber(row)).isEqualTo(number);
            assertThat(rows.get(row)).isEqualTo(all.get(number - 1));
          }
        }
      }
      assertThat(wanted.nextSetBit(number + 1)).as("no row left").isNegative();
    }
  }

  /** Of rows whose first cells alone were noted, those are there, and the others on request. */
  @ParameterizedTest
  @ValueSource(longs = {31, 32, 33, 34, 35, 36, 37, 38, 39, 40, 41, 42, 43, 44, 45, 46})
  void rowsNotedInPartAreThoseRows(long seed) throws IOException {
    Random random = new Random(seed);
    char delimiter = ",;\t|".charAt(random.nextInt(4));
    String text = text(random, delimiter);
    cutInto(1 + random.nextInt(1 << random.nextInt(19)));
    List<List<String>> all = library(text, delimiter);
    Table table = table(text, delimiter);
    int first = 1 + random.nextInt(table.schema().size());
    int number = 0;
    try (BatchReader reader = new BatchReader(table, first, null)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        for (int row = 0; row < batch.rows(); row++) {
          for (int column = 0; column < first; column++) {
            String expected = all.get(number + row).get(column);
            assertThat(cell(batch, row, column)).isEqualTo(expected);
          }
          batch.complete(row);
          batch.complete(row);
        }
        assertThat(rows(batch)).isEqualTo(all.subList(number, number + batch.rows()));
        number += batch.rows();
      }
    }
    assertThat(number).isEqualTo(all.size());
  }

  /** Rows with cells too few, or with empty ones too many, wherever quotes stand in them. */
  @ParameterizedTest
  @ValueSource(longs = {51, 52, 53, 54})
  void raggedRowsAreFilledUp(long seed) throws IOException {
    Random random = new Random(seed);
    int columns = 2 + random.nextInt(5);
    StringBuilder text = new StringBuilder();
    for (int row = 0; row < 3_000; row++) {
      int cells = row == 0 ? columns : 1 + random.nextInt(columns);
      text.append(cell(random, row, 0, ','));
      for (int column = 1; column < cells; column++) {
        text.append(',').append(cell(random, row, column, ','));
      }
      if (cells == columns && row > 0) {
        text.append((random.nextBoolean() ? "," : ",\"\"").repeat(random.nextInt(3)));
      }
      text.append('\n');
    }
    Path file = Files.writeString(folder.resolve("in.csv"), text);
    List<List<String>> expected = new ArrayList<>();
    for (List<String> fields : library(text.toString(), ',')) {
      List<String> row = new ArrayList<>(fields.subList(0, Math.min(fields.size(), columns)));
      row.addAll(Collections.nCopies(columns - row.size(), ""));
      expected.add(row);
    }
    TableOptions options = new TableOptions(',', '"', true, null, List.of(), true);
    assertThat(read(Tables.file(file, options))).isEqualTo(expected);
  }

  private static String cell(Batch batch, int row, int column) {
    CellVector one = new CellVector();
    batch.cell(row, column, one);
    String text = one.get(0);
    return text == null ? "" : text;
  }

  @Test
  void aHeaderThatEndsWithADelimiterTakesNoRowWithIt() throws IOException {
    for (String end : ENDS) {
      Table table = table("a,b," + end + "1,2,3" + end + "4,5,6" + end, ',');
      assertThat(table.schema().names()).containsExactly("a", "b", "column 3");
      assertThat(read(table)).isEqualTo(List.of(List.of("1", "2", "3"), List.of("4", "5", "6")));
    }
  }

  private Table table(String text, char delimiter) throws IOException {
    Path file = Files.writeString(folder.resolve("in.csv"), text);
    return Tables.file(file, new TableOptions(delimiter, '"', true, null, List.of(), false));
  }

  private static String text(Random random, char delimiter) {
    int columns = random.nextInt(4) == 0 ? 60 + random.nextInt(60) : 2 + random.nextInt(6);
    boolean mixed = random.nextBoolean();
    StringBuilder text = new StringBuilder();
    for (int row = 0; row < (columns < 60 ? 9_000 : 400); row++) {
      for (int column = 0; column < columns; column++) {
        text.append(column == 0 ? "" : delimiter).append(cell(random, row, column, delimiter));
      }
      // Every line end is taken, mixed ones too, and lines with nothing on them are passed over.
      text.append(ENDS[mixed ? random.nextInt(3) : 0]);
      text.append(random.nextInt(50) == 0 ? "\n\n" : "");
    }
    // The last row may have no line end, and nothing in its last cell.
    int empty = random.nextInt(Math.min(3, columns));
    if (random.nextInt(4) > 0) {
      text.append(("x" + delimiter).repeat(columns - 1 - empty));
      text.append("last").append(("" + delimiter).repeat(empty));
    }
    return text.toString();
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
        CsvReader.builder()
            .fieldSeparator(delimiter)
            .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
            .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
            .ofCsvRecord(text)) {
      reader.forEach(record -> rows.add(record.getFields()));
    }
    return rows.subList(1, rows.size());
  }

  private static List<List<String>> read(Table table) {
    List<List<String>> rows = new ArrayList<>();
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        assertThat(batch.rows()).isLessThanOrEqualTo(Batch.ROWS);
        rows.addAll(rows(batch));
      }
    }
    return rows;
  }

  private static List<List<String>> rows(Batch batch) {
    List<List<String>> rows = new ArrayList<>();
    for (int row = 0; row < batch.rows(); row++) {
      List<String> cells = new ArrayList<>();
      for (int column = 0; column < batch.baseColumns(); column++) {
        String value = batch.column(column).get(row);
        cells.add(value == null ? "" : value);
      }
      rows.add(cells);
    }
    return rows;
  }

  /** Wherever the end falls among the bytes that are looked at together. */
  @Test
  void aLastRowWithoutLineEndAndWithEmptyCellsIsARow() throws IOException {
    for (int length = 0; length < 20; length++) {
      String first = "x".repeat(length);
      for (String last : List.of(first + ",y,", first + ",,", first + ",,z", first + ",\"q\",")) {
        String text = "a,b,c\n1,2,3\n" + last;
        assertThat(read(table(text, ','))).as(last).isEqualTo(library(text, ','));
      }
    }
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

  /** The longest cells that may be, with their ends where the text held ends as it grows. */
  @Test
  void theLongestCellsAreWhole() throws IOException {
    int most = RowScanner.LONGEST;
    for (int first : List.of(most - 256, most - 255, most)) {
      String row = "x".repeat(first) + "," + "y".repeat(most) + "\n";
      Path file = Files.writeString(folder.resolve("in.csv"), "a,b\n" + row + "1,2\n");
      List<List<String>> rows = read(Tables.file(file));
      assertThat(rows.stream().map(cells -> cells.get(0).length() + cells.get(1).length()))
          .containsExactly(first + most, 2);
    }
    Path file =
        Files.writeString(folder.resolve("in.csv"), "a,b\n1," + "y".repeat(most + 1) + "\n");
    assertThatThrownBy(() -> read(Tables.file(file)))
        .hasMessageContaining("line 2: a cell of more than " + most + " bytes");
  }

  @Test
  void aSingleColumnKeepsItsEmptyLines() throws IOException {
    Path file = Files.writeString(folder.resolve("in.csv"), "a\n1\n\n3");
    assertThat(read(Tables.file(file))).isEqualTo(List.of(List.of("1"), List.of(""), List.of("3")));
  }
}
