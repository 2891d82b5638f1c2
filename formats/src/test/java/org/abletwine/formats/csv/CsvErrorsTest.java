package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

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
    try (BatchReader reader = new BatchReader(table)) {
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
}
