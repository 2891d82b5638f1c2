package org.abletwine.formats.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.abletwine.formats.OwnRows;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the cells of an OpenDocument sheet are. */
class OdsTest {
  private static final String HEAD =
      "<table:table-row><table:table-cell office:value-type='string'><text:p>x</text:p>"
          + "</table:table-cell></table:table-row>";

  @TempDir private Path folder;

  private Table table(TestBook book, @Nullable String sheet) throws IOException {
    TableOptions options =
        TableOptions.builder().sheet(new TableOptions.Sheet(sheet, 0, null)).build();
    return Tables.file(book.at(folder.resolve("t.ods")), options);
  }

  private static TestBook one(String rows) {
    return TestBook.ods("<table:table table:name='One'>" + HEAD + rows + "</table:table>");
  }

  private static String row(String cell) {
    return "<table:table-row>" + cell + "</table:table-row>";
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '\u0001',
      value = {
        "office:value-type='float' office:value='0.10000000000000001'|<text:p>0,1</text:p>|0.1",
        "office:value-type='currency' office:value='12.5'|<text:p>12,50 €</text:p>|12.5",
        "office:value-type='percentage' office:value='0.05'|<text:p>5%</text:p>|0.05",
        "office:value-type='date' office:date-value='2026-08-01'|<text:p>1.8.</text:p>|2026-08-01",
        "office:value-type='date' office:date-value='2026-08-01T14:30:00'||2026-08-01T14:30:00",
        "office:value-type='date' office:date-value='0099-08-01'||0099-08-01",
        "office:value-type='time' office:time-value='PT36H05M00S'||36:05:00",
        "office:value-type='time' office:time-value='PT00H05M01.5S'||00:05:01.500",
        "office:value-type='boolean' office:boolean-value='true'|<text:p>WAHR</text:p>|true",
        "office:value-type='string'|<text:p>a</text:p><text:p>b</text:p>|a\\nb",
        "office:value-type='string'|<text:p>a<text:s text:c='3'/>b<text:tab/>c<text:line-break/>d"
            + "</text:p>|a   b\\tc\\nd",
        "office:value-type='string'|<text:p>so <text:span>ri<text:a>c</text:a>h</text:span>"
            + "</text:p>|so rich",
        "office:value-type='string'|<office:annotation><text:p>note</text:p></office:annotation>"
            + "<text:p>a</text:p>|a",
        "office:value-type='string'|<draw:frame><text:p>in</text:p></draw:frame><text:p>a</text:p>|a",
        "office:value-type='string' office:string-value='00123'|<text:p>123</text:p>|00123",
        "office:value-type='string' calcext:value-type='string'|<text:p>q</text:p>|q"
      })
  void valuesGoByTheirType(String attributes, @Nullable String inner, String read)
      throws IOException {
    TestBook book =
        one(
            row(
                "<table:table-cell "
                    + attributes
                    + ">"
                    + (inner == null ? "" : inner)
                    + "</table:table-cell>"));
    assertThat(OwnRows.of(table(book, null)))
        .containsExactly(List.of(read.replace("\\n", "\n").replace("\\t", "\t")));
  }

  @Test
  void errorsAreNullAndCounted() throws IOException {
    Table table =
        table(
            one(
                row(
                        "<table:table-cell office:value-type='string' office:string-value=''"
                            + " calcext:value-type='error'><text:p>#DIV/0!</text:p>"
                            + "</table:table-cell>")
                    + row("<table:table-cell office:value-type='float' office:value='1'/>")),
            null);
    assertThat(OwnRows.of(table)).containsExactly(Arrays.asList((String) null), List.of("1"));
    assertThat(table.remarks()).contains("1 cell holds #DIV/0!, read as null");
  }

  @Test
  void repeatedCellsAndRowsStandAsOftenAsTheyDo() throws IOException {
    String head =
        row(
            "<table:table-cell office:value-type='string'><text:p>a</text:p></table:table-cell>"
                + "<table:table-cell office:value-type='string'><text:p>b</text:p>"
                + "</table:table-cell><table:table-cell table:number-columns-repeated='16382'/>");
    TestBook book =
        TestBook.ods(
            "<table:table table:name='One'><table:table-header-rows>"
                + head
                + "</table:table-header-rows><table:table-row table:number-rows-repeated='3'"
                + " table:visibility='filter'><table:table-cell table:number-columns-repeated='2'"
                + " office:value-type='float' office:value='7'/></table:table-row>"
                + "<table:table-row table:number-rows-repeated='2'><table:table-cell/>"
                + "</table:table-row><table:table-row-group>"
                + row("<table:table-cell office:value-type='float' office:value='8'/>")
                + "</table:table-row-group><table:table-row"
                + " table:number-rows-repeated='1048570'><table:table-cell"
                + " table:number-columns-repeated='16384'/></table:table-row></table:table>");
    Table table = table(book, null);
    List<@Nullable String> none = Arrays.asList(null, null);
    assertThat(OwnRows.of(table))
        .containsExactly(
            List.of("7", "7"),
            List.of("7", "7"),
            List.of("7", "7"),
            none,
            none,
            Arrays.asList("8", null));
    assertThat(table.remarks())
        .containsExactly(
            "3 rows are hidden, and read as others",
            "2 blank rows between others, such as row 5, read as nulls");
  }

  @Test
  void sheetsAreToldApart() throws IOException {
    TestBook book =
        TestBook.ods(
            "<table:tracked-changes><table:table><table:table-row/></table:table>"
                + "</table:tracked-changes><table:table table:name='One'>"
                + HEAD
                + "<table:table-row><table:table-cell table:number-columns-spanned='2'"
                + " office:value-type='float' office:value='1'/></table:table-row></table:table>"
                + "<table:table table:name='Two'>"
                + HEAD
                + "</table:table>");
    assertThatThrownBy(() -> table(book, null).schema())
        .hasMessageContaining("of One (2 rows, 1 column), Two (1 row, 1 column)");
    assertThat(OwnRows.of(table(book, "One"))).containsExactly(List.of("1"));
    assertThat(OwnRows.of(table(book, "2"))).isEmpty();
  }

  @Test
  void aPasswordIsTold() throws IOException {
    TestBook book =
        one("").part("META-INF/manifest.xml", "<m><file-entry><encryption-data/></file-entry></m>");
    assertThatThrownBy(() -> table(book, null).schema())
        .hasMessageContaining("is protected with a password; save it without one");
  }
}
