package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Bad input is refused with its place and the next step. */
class CsvErrorsTest {
  @TempDir private Path folder;

  private Path file(String name, byte[] bytes) throws IOException {
    return Files.write(folder.resolve(name), bytes);
  }

  private Path file(String text) throws IOException {
    return file("in.csv", text.getBytes(StandardCharsets.UTF_8));
  }

  private static void readAll(Table table) {
    readAll(table, table.schema().size());
  }

  private static void readAll(Table table, int first) {
    try (BatchReader reader = new BatchReader(table, first, null)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        batch.rows();
      }
    }
  }

  private static void refused(Path file, String... parts) {
    assertThatThrownBy(() -> readAll(Tables.file(file)))
        .isInstanceOf(DataException.class)
        .message()
        .contains(parts);
  }

  @Test
  void missingFilesNameTheNearest() throws IOException {
    file("growers.csv", "a\n".getBytes(StandardCharsets.UTF_8));
    refused(folder.resolve("grower.csv"), "there is no file", "did you mean", "growers.csv");
    refused(folder.resolve("none/grower.csv"), "nor is there a folder");
    refused(folder, "is a folder");
  }

  @Test
  void emptyFilesAndDoubleNames() throws IOException {
    refused(file(""), "is empty");
    refused(file("a,b,a\n1,2,3\n"), "line 1", "\"a\" twice", "columns 1 and 3");
  }

  @Test
  void raggedRowsNameTheirLine() throws IOException {
    refused(file("a,b,c\n1,\"2\n2\",3\n4,5\n"), "line 4", "2 cells where the header has 3", "pad");
    refused(file("a,b\n1,2,3\n"), "line 2", "more cells than the 2");
  }

  @Test
  void anUnclosedQuoteIsNamedWhereItOpened() throws IOException {
    refused(file("a,b\n1,2\n\"x\ny\",\"never closed\n3,4\n"), "line 4, column \"b\"", "not closed");
    refused(file("a,b\n1,\"x\"y\n"), "line 2", "text follows a closing quote");
  }

  @Test
  void invalidBytesAreNamedByLineAndOffset() throws IOException {
    byte[] bytes = "k,v\n1,Br\u00F6nn\n".getBytes(StandardCharsets.ISO_8859_1);
    refused(file("in.csv", bytes), "line 2, byte 9", "F6", "not valid UTF-8", "windows-1252");
  }

  @Test
  void wrongSettingsAreRefused() throws IOException {
    Path in = file("a\n");
    assertThatThrownBy(
            () ->
                readAll(
                    Tables.file(
                        in, new TableOptions(null, null, null, "windows-1525", List.of(), false))))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"windows-1252\"?");
    assertThatThrownBy(() -> Tables.file(Path.of("book.xls")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("no reader");
  }

  /** Lines are counted right over quotes that were doubled, line breaks in cells, empty lines. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
  void errorsNameTheirLineWhateverStandsBefore(long seed) throws IOException {
    Random random = new Random(seed);
    for (int trial = 0; trial < 40; trial++) {
      int columns = 2 + random.nextInt(4);
      int before = random.nextInt(40);
      StringBuilder text = new StringBuilder(String.join(",", List.of("a,b,c,d,e".split(","))));
      text.setLength(2 * columns - 1);
      text.append('\n');
      for (int row = 0; row < before; row++) {
        for (int column = 0; column < columns; column++) {
          text.append(column > 0 ? "," : "").append(cell(random));
        }
        text.append(random.nextInt(9) == 0 ? "\r\n\n" : "\n");
      }
      long rowOn = 1 + text.chars().filter(c -> c == '\n').count();
      int wrong = random.nextInt(columns);
      for (int column = 0; column < wrong; column++) {
        text.append(column > 0 ? "," : "").append(cell(random));
      }
      int kind = random.nextInt(3);
      long line = 1 + text.chars().filter(c -> c == '\n').count();
      text.append(wrong > 0 ? "," : "");
      text.append(kind == 0 ? "\"x\"y" : kind == 1 ? "\"never" : "z,".repeat(columns) + "z");
      text.append("\n1,2\n");
      Path file = file(text.toString());
      String[] told =
          switch (kind) {
            case 0 -> new String[] {"line " + line + ", column", "text follows a closing quote"};
            case 1 -> new String[] {"line " + line + ", column", "is not closed"};
            default -> new String[] {"line " + rowOn + ": more cells than the " + columns};
          };
      for (int first = 1; first <= columns; first++) {
        Table table = Tables.file(file);
        int noted = first;
        assertThatThrownBy(() -> readAll(table, noted))
            .as(text.toString())
            .isInstanceOf(DataException.class)
            .message()
            .contains(told);
      }
    }
  }

  private static String cell(Random random) {
    return switch (random.nextInt(6)) {
      case 0 -> "\"a\"\"\n\"";
      case 1 -> "\"\"\"\n\n\"\"\n\"";
      case 2 -> "\"line\r\nbreak\"";
      case 3 -> "5\" pipe";
      default -> "plain";
    };
  }
}
