package org.abletwine.formats.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.github.miachm.sods.SpreadSheet;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.abletwine.derive.Keep;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Destination;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files that other libraries write are read, and files that are written here are read by them. */
class OtherProgramsTest {
  @TempDir private Path folder;

  private static OwnRows values() {
    List<List<@Nullable String>> rows = new ArrayList<>();
    rows.add(Arrays.asList("00123", "12.50", "2026-08-01", "2026-08-01T14:30:00", "true"));
    rows.add(
        Arrays.asList("_x0041_ <&> \"q\"", "-3", "9999-12-31", "1900-03-01T00:00:01", "false"));
    rows.add(Arrays.asList(" spaced \n two\u0007", "1234567890123456", "1899-12-31", "x", null));
    OwnRows own = new OwnRows(List.of("code", "num", "day", "time", "truth"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("day", ColumnType.of(ColumnType.Kind.DATE));
    own.types().put("time", ColumnType.of(ColumnType.Kind.DATE_TIME));
    own.types().put("truth", ColumnType.of(ColumnType.Kind.BOOLEAN));
    return own;
  }

  private Path written(OwnRows rows, String name) {
    Path file = folder.resolve(name);
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(rows).build().writeTo(sink);
    }
    return file;
  }

  @Test
  void anotherReaderFindsValuesByTheirKind() throws IOException {
    Path file = written(values(), "v.xlsx");
    try (ReadableWorkbook book = new ReadableWorkbook(file.toFile())) {
      List<Row> rows = book.getFirstSheet().read();
      assertThat(book.getFirstSheet().getName()).isEqualTo("table");
      assertThat(rows.get(1).getCell(0).getType()).isEqualTo(CellType.STRING);
      assertThat(rows.get(1).getCell(0).asString()).isEqualTo("00123");
      assertThat(rows.get(1).getCell(1).asNumber()).isEqualByComparingTo("12.5");
      assertThat(rows.get(1).getCell(2).asDate()).isEqualTo(LocalDateTime.of(2026, 8, 1, 0, 0));
      assertThat(rows.get(1).getCell(3).asDate()).isEqualTo(LocalDateTime.of(2026, 8, 1, 14, 30));
      assertThat(rows.get(1).getCell(4).asBoolean()).isTrue();
      assertThat(rows.get(2).getCell(2).asDate()).isEqualTo(LocalDateTime.of(9999, 12, 31, 0, 0));
      assertThat(rows.get(2).getCell(3).asDate()).isEqualTo(LocalDateTime.of(1900, 3, 1, 0, 0, 1));
      // what a spreadsheet cannot hold exactly is a text
      assertThat(rows.get(3).getCell(1).getType()).isEqualTo(CellType.STRING);
      assertThat(rows.get(3).getCell(2).asString()).isEqualTo("1899-12-31");
      assertThat(rows.get(3).getCell(3).asString()).isEqualTo("x");
      Cell none = rows.get(3).getCell(4);
      assertThat(none.getType()).isEqualTo(CellType.EMPTY);
    }
  }

  @Test
  void anotherReaderFindsAnOpenDocument() throws IOException {
    OwnRows values = values();
    values.cells().get(2).set(0, " spaced \n two");
    Path file = written(values, "v.ods");
    Object[][] cells = new SpreadSheet(file.toFile()).getSheet(0).getDataRange().getValues();
    assertThat(cells[1][0]).isEqualTo("00123");
    assertThat(cells[1][1]).isEqualTo(12.5);
    assertThat(cells[1][2]).isEqualTo(LocalDate.of(2026, 8, 1));
    assertThat(cells[1][4]).isEqualTo(true);
    assertThat(cells[2][0]).isEqualTo("_x0041_ <&> \"q\"");
    assertThat(cells[3][1]).isEqualTo("1234567890123456");
  }

  @Test
  void whatAnotherWriterWroteIsRead() throws IOException {
    Path file = folder.resolve("other.xlsx");
    try (OutputStream out = Files.newOutputStream(file);
        Workbook book = new Workbook(out, "other", "1.0")) {
      Worksheet sheet = book.newWorksheet("One");
      sheet.value(0, 0, "code");
      sheet.value(0, 1, "num");
      sheet.value(0, 2, "day");
      sheet.value(1, 0, "00123");
      sheet.value(1, 1, 0.1 + 0.2);
      sheet.value(1, 2, LocalDate.of(2026, 8, 1));
      sheet.style(1, 2).format("dd.mm.yyyy").set();
      sheet.value(2, 0, "a\nb & c");
      sheet.value(2, 1, true);
      sheet.value(2, 2, LocalDateTime.of(2026, 8, 1, 14, 30, 5));
      sheet.style(2, 2).format("yyyy-mm-dd hh:mm:ss").set();
      book.newWorksheet("Two").value(0, 0, "x");
    }
    Table table =
        Tables.file(
            file, TableOptions.builder().sheet(new TableOptions.Sheet("One", 0, null)).build());
    assertThat(OwnRows.of(table))
        .containsExactly(
            List.of("00123", "0.30000000000000004", "2026-08-01"),
            List.of("a\nb & c", "true", "2026-08-01T14:30:05"));
  }

  @Test
  void severalSheetsOfOneFileAreWrittenTogether() throws IOException {
    for (String ending : List.of(".xlsx", ".ods")) {
      Path file = folder.resolve("several" + ending);
      TableSink first = place(file, "one & only").open(null);
      TableSink second = place(file, "it's two").open(first);
      try (first;
          second) {
        second.start(values(), values().schema());
        second.write(List.of("a", "b", "c", "d", "e"));
        first.start(values(), values().schema());
        for (int i = 0; i < 5_000; i++) {
          first.write(Arrays.asList("" + i, null, "", " ", "x"));
        }
        assertThat(file).doesNotExist();
        org.abletwine.table.output.OutputGroup group = new org.abletwine.table.output.OutputGroup();
        group.add(
            List.of(
                (org.abletwine.table.output.Output) first,
                (org.abletwine.table.output.Output) second));
        group.commit();
      }
      assertThat(OwnRows.of(sheet(file, "one & only")))
          .hasSize(5_000)
          .contains(Arrays.asList("4999", null, "", " ", "x"));
      assertThat(OwnRows.of(sheet(file, "it's two")))
          .containsExactly(List.of("a", "b", "c", "d", "e"));
      assertThat(folder.toFile().list()).doesNotContain(".several" + ending);
    }
  }

  private static Destination place(Path file, String sheet) {
    return Tables.destination(file, OutputOptions.NONE.withSheet(sheet));
  }

  private static Table sheet(Path file, String name) {
    return Tables.file(
        file, TableOptions.builder().sheet(new TableOptions.Sheet(name, 0, null)).build());
  }

  @Test
  void whatASheetCannotHoldIsTold() {
    OwnRows control = new OwnRows(List.of("x"), List.of(List.of("a"), List.of("b\u0007")));
    assertThatThrownBy(() -> written(control, "c.ods"))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("c.ods row 2, column x: the character U+0007");
    OwnRows longText = new OwnRows(List.of("x"), List.of(List.of("é".repeat(32_768))));
    assertThatThrownBy(() -> written(longText, "l.xlsx"))
        .hasMessageContaining("row 1, column x: a text of 32768 characters");
    List<List<@Nullable String>> many = new ArrayList<>();
    for (int i = 0; i < 1_048_576; i++) {
      many.add(List.of("1"));
    }
    assertThatThrownBy(() -> written(new OwnRows(List.of("x"), many), "m.xlsx"))
        .hasMessageContaining("more than 1048575 rows");
    assertThat(folder.toFile().list()).isEmpty();
    for (String name : List.of("", "a/b", "'a", "x".repeat(32))) {
      assertThatThrownBy(() -> place(folder.resolve("n.xlsx"), name))
          .isInstanceOf(SettingException.class)
          .hasMessageContaining("cannot be the name of a sheet");
    }
    TableSink one = place(folder.resolve("n.xlsx"), "a").open(null);
    assertThatThrownBy(() -> place(folder.resolve("n.xlsx"), "A").open(one))
        .hasMessageContaining("two outputs are called sheet \"A\"");
  }

  /** Rows go to one sheet and what a step leaves out to another, without a plan. */
  @Test
  void aStepWritesBesideTheSinkOfTheRows() {
    Path file = folder.resolve("beside.xlsx");
    OwnRows rows = new OwnRows(List.of("x"), List.of(List.of("a"), List.of("b")));
    Keep keep = new Keep("x = 'a'", place(file, "left"), rows, Evaluation.STRICT);
    try (TableSink sink = place(file, "kept").open(null)) {
      Enrichment.of(rows).step(keep).build().writeTo(sink);
    }
    assertThat(OwnRows.of(sheet(file, "kept"))).containsExactly(List.of("a"));
    assertThat(OwnRows.of(sheet(file, "left"))).containsExactly(List.of("b"));
  }
}
