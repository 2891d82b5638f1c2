package org.abletwine.formats.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import org.abletwine.formats.OwnRows;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the cells of a sheet are, in the many ways in which programs write them. */
class XlsxTest {
  private static final String HEAD =
      "<row r='1'><c r='A1' t='str'><v>no</v></c><c r='B1' t='str'><v>x</v></c></row>";

  @TempDir private Path folder;

  private Table table(TestBook book, TableOptions options) throws IOException {
    return Tables.file(book.at(folder.resolve("t.xlsx")), options);
  }

  private Table table(TestBook book) throws IOException {
    return table(book, TableOptions.NONE);
  }

  private static TableOptions part(@Nullable String sheet, int row, @Nullable String range) {
    return TableOptions.builder().sheet(new TableOptions.Sheet(sheet, row, range)).build();
  }

  /** The value of a cell of column x. */
  private @Nullable String cell(TestBook book) throws IOException {
    return OwnRows.of(table(book)).get(0).get(1);
  }

  private static TestBook one(String cell) {
    return TestBook.xlsx(HEAD + "<row r='2'><c r='A2'><v>1</v></c>" + cell + "</row>");
  }

  private static String styles(String formats, String... ids) {
    StringBuilder cells = new StringBuilder();
    for (String id : ids) {
      cells.append("<xf numFmtId='" + id + "'/>");
    }
    return "<styleSheet><numFmts>"
        + formats
        + "</numFmts><cellStyleXfs><xf numFmtId='14'/>"
        + "</cellStyleXfs><cellXfs>"
        + cells
        + "</cellXfs></styleSheet>";
  }

  @ParameterizedTest
  @CsvSource({
    "0.1,0.1",
    "0.10000000000000001,0.1",
    "0.30000000000000004,0.30000000000000004",
    "1.1000000000000001,1.1",
    "5,5",
    "5.0,5",
    "1.50,1.5",
    "-0,0",
    "1E3,1000",
    "1.5E-3,0.0015",
    "4.9406564584124654E-324,0.000000000000000000000000000000000000000000000000000000000000000000"
        + "0000000000000000000000000000000000000000000000000000000000000000000000000000000000000"
        + "0000000000000000000000000000000000000000000000000000000000000000000000000000000000000"
        + "0000000000000000000000000000000000000000000000000000000000000000000000000000000000000"
        + "00049406564584124654",
    "123456789012345678901234567890,123456789012345678901234567890",
    "1E999999999,1E999999999",
    "007,7",
    "12x,12x"
  })
  void numbersAreTheShortestThatReadBackTheSame(String written, String read) throws IOException {
    String found = cell(one("<c r='B2'><v>" + written + "</v></c>"));
    if (written.startsWith("4.94")) {
      assertThat(Double.parseDouble(String.valueOf(found))).isEqualTo(Double.MIN_VALUE);
    } else {
      assertThat(found).isEqualTo(read);
    }
  }

  @Test
  void everyDoubleReadsBackTheSame() {
    java.util.Random random = new java.util.Random(5);
    for (int i = 0; i < 200_000; i++) {
      double value =
          i % 2 == 0
              ? Double.longBitsToDouble(random.nextLong())
              : random.nextInt(1_000_000) / 1_000.0 + random.nextInt(3) / 7.0;
      if (!Double.isFinite(value)) {
        continue;
      }
      String exact = new java.math.BigDecimal(value, new java.math.MathContext(17)).toString();
      String shortest = CellNumbers.shortest(new java.math.BigDecimal(exact));
      assertThat(Double.parseDouble(shortest)).isEqualTo(value == 0 ? 0.0 : value);
      assertThat(new java.math.BigDecimal(shortest).stripTrailingZeros().precision())
          .isLessThanOrEqualTo(new java.math.BigDecimal(Double.toString(value)).precision());
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "14|46235|2026-08-01",
        "14|46235.5|2026-08-01T12:00:00",
        "22|46235|2026-08-01T00:00:00",
        "22|46235.604166666664|2026-08-01T14:30:00",
        "20|0.604166666666667|14:30:00",
        "46|1.50347222222222|36:05:00",
        "14|1|1900-01-01",
        "14|59|1900-02-28",
        "14|60|60",
        "14|61|1900-03-01",
        "14|2958465|9999-12-31",
        "14|2958466|2958466",
        "14|-1|-1",
        "14|x|x",
        "9|0.05|0.05",
        "164|46235|2026-08-01",
        "165|46235.25|2026-08-01T06:00:00",
        "166|46235|46235",
        "167|46235|46235",
        "168|0.5|12:00:00",
        "169|46235|2026-08-01",
        "170|1234.5|1234.5",
        "171|46235|2026-08-01",
        "172|1|true",
        "172|0|false",
        "172|2|2"
      })
  void daysAndTimesGoByTheFormatOfTheCell(String format, String number, String read)
      throws IOException {
    String formats =
        "<numFmt numFmtId='164' formatCode='dd.mm.yyyy'/>"
            + "<numFmt numFmtId='165' formatCode='[$-409]d/m/yy h:mm AM/PM;@'/>"
            + "<numFmt numFmtId='166' formatCode='0.00&quot; days&quot;'/>"
            + "<numFmt numFmtId='167' formatCode='[Red]0;[Blue]\\d0'/>"
            + "<numFmt numFmtId='168' formatCode='h&quot;h&quot;mm'/>"
            + "<numFmt numFmtId='169' formatCode='mmmm'/>"
            + "<numFmt numFmtId='170' formatCode='General'/>"
            + "<numFmt numFmtId='172' formatCode='&quot;TRUE&quot;;&quot;TRUE&quot;;&quot;FALSE&quot;'/>"
            + "<numFmt numFmtId='171' formatCode='yyyy\\-mm\\-dd'/>";
    TestBook book =
        one("<c r='B2' s='1'><v>" + number + "</v></c>")
            .part("xl/styles.xml", styles(formats, "0", format));
    assertThat(cell(book)).isEqualTo(read);
  }

  @Test
  void daysMayBeCountedFrom1904() throws IOException {
    TestBook book =
        one("<c r='B2' s='0'><v>44773</v></c>")
            .part("xl/styles.xml", styles("", "14"))
            .part(
                "xl/workbook.xml",
                TestBook.book("<workbookPr date1904='1'/>", "<sheet name='One' r:id='rId1'/>"));
    assertThat(cell(book)).isEqualTo("2026-08-01");
  }

  @Test
  void textsAreWhatIsShownAndNotHowItIsPronounced() throws IOException {
    String shared =
        "<sst><si><t>plain</t></si><si><r><rPr><b/></rPr><t>ri</t></r><r><t xml:space='preserve'>ch "
            + "</t></r><rPh sb='0' eb='1'><t>said</t></rPh></si><si><t>a_x000D_b_x005F_x0041_</t></si>"
            + "<si><t/></si></sst>";
    List<@Nullable String> expected = Arrays.asList("plain", "rich ", "a\rb_x0041_", "");
    for (int i = 0; i < expected.size(); i++) {
      TestBook book =
          one("<c r='B2' t='s'><v>" + i + "</v></c>").part("xl/sharedStrings.xml", shared);
      assertThat(cell(book)).isEqualTo(expected.get(i));
    }
    assertThat(
            cell(
                one(
                    "<c r='B2' t='inlineStr'><is><r><t>in</t></r><rPh><t>no</t></rPh><r><t>line</t>"
                        + "</r></is></c>")))
        .isEqualTo("inline");
    assertThatThrownBy(() -> cell(one("<c r='B2' t='s'><v>7</v></c>")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("cell B2 names a shared text that there is not");
  }

  @Test
  void formulasGiveTheirValuesAndErrorsAreNull() throws IOException {
    Table table =
        table(
            TestBook.xlsx(
                HEAD
                    + "<row r='2'><c r='A2'><f t='shared' si='9'/><v>2</v></c>"
                    + "<c r='B2' t='e'><f>1/0</f><v>#DIV/0!</v></c></row>"
                    + "<row r='3'><c r='A3' t='b'><f>1=1</f><v>1</v></c>"
                    + "<c r='B3' t='str'><f>\"#N/A\"</f><v>#N/A</v></c></row>"
                    + "<row r='4'><c r='A4' t='d'><v>2026-08-01T00:00:00</v></c>"
                    + "<c r='B4' t='e'><v>#N/A</v></c></row>"
                    + "<row r='5'><c r='A5'/><c r='B5' t='e'><v>#N/A</v></c></row>"));
    assertThat(OwnRows.of(table))
        .containsExactly(
            Arrays.asList("2", null),
            Arrays.asList("true", "#N/A"),
            Arrays.asList("2026-08-01T00:00:00", null),
            Arrays.asList(null, null));
    assertThat(table.remarks())
        .containsExactly("1 cell holds #DIV/0!, read as null", "2 cells hold #N/A, read as null");
  }

  @Test
  void placesNeedNotBeStatedAndPartsMayBeMissing() throws IOException {
    TestBook book =
        TestBook.xlsx(
                "<row><c t='str'><v>no</v></c><c t='str'><v>x</v></c></row>"
                    + "<row><c/><c s='99'><v>7</v></c></row>")
            .without("_rels/.rels");
    assertThat(OwnRows.of(table(book))).containsExactly(Arrays.asList(null, "7"));
  }

  @Test
  void blankRowsBetweenOthersAreRowsOfNulls() throws IOException {
    Table table =
        table(
            TestBook.xlsx(
                "<row r='3'><c r='B3' t='str'><v>no</v></c></row>"
                    + "<row r='4'><c r='B4'><v>1</v></c></row><row r='6' hidden='1'>"
                    + "<c r='A6'/><c r='B6'><v>3</v></c></row><row r='7'><c r='B7' t='str'><v/></c>"
                    + "</row><row r='900' ht='12'/>"));
    assertThat(OwnRows.of(table))
        .containsExactly(List.of("1"), Arrays.asList((String) null), List.of("3"));
    assertThat(table.remarks())
        .containsExactly(
            "1 row is hidden, and read as others",
            "1 blank row between others, such as row 5, read as nulls");
  }

  @Test
  void aRowThatStrayedIsToldWithTheRangeToState() throws IOException {
    TestBook book =
        TestBook.xlsx(
            HEAD
                + "<row r='2'><c r='A2'><v>1</v></c></row><row r='1048576'><c r='B1048576'><v>1</v>"
                + "</c></row>");
    assertThatThrownBy(() -> OwnRows.of(table(book)))
        .hasMessageContaining("rows 3 to 1048575 are blank, and row 1048576 is not")
        .hasMessageContaining("such as A1:B2");
    assertThat(OwnRows.of(table(book, part(null, 0, "A1:B2")))).hasSize(1);
  }

  @Test
  void whatStandsBesideTheTableIsToldOrLeftAlone() throws IOException {
    TestBook book = one("<c r='D2' t='str'><v>a note</v></c>");
    assertThatThrownBy(() -> OwnRows.of(table(book)))
        .hasMessageContaining("t.xlsx sheet One cell D2 holds \"a note\", beside the table")
        .hasMessageContaining("state range: A:B");
    assertThat(OwnRows.of(table(book, part(null, 0, "A:B"))))
        .containsExactly(Arrays.asList("1", null));
  }

  @Test
  void theHeadIsWhereItIsStated() throws IOException {
    TestBook book =
        TestBook.xlsx(
            "<row r='1'><c r='A1' t='str'><v>Intake</v></c></row>"
                + "<row r='2'><c r='A2' t='str'><v>no</v></c><c r='B2' t='str'><v>x</v></c></row>"
                + "<row r='3'><c r='A3'><v>1</v></c><c r='B3'><v>2</v></c></row>"
                + "<row r='4'><c r='A4' t='str'><v>all</v></c><c r='B4'><v>2</v></c></row>");
    assertThat(table(book, part(null, 2, null)).schema().names()).containsExactly("no", "x");
    Table range = table(book, part("1", 0, "b2:b3"));
    assertThat(range.schema().names()).containsExactly("x");
    assertThat(OwnRows.of(range)).containsExactly(List.of("2"));
    TableOptions none =
        new TableOptions(null, null, false, null, List.of("1"), false)
            .but()
            .sheet(new TableOptions.Sheet(null, 0, "A3:C4"))
            .build();
    assertThat(table(book, none).schema().names())
        .containsExactly("column 1", "column 2", "column 3");
    assertThat(OwnRows.of(table(book, none)))
        .containsExactly(Arrays.asList(null, "2", null), Arrays.asList("all", "2", null));
    for (String wrong : List.of("B4:A1", "4:5", "A0:B2", "A1:ZZZ9", "rows")) {
      assertThatThrownBy(() -> table(book, part(null, 0, wrong)).schema())
          .isInstanceOf(SettingException.class)
          .hasMessageContaining("expected an area such as B4:H200");
    }
    assertThatThrownBy(() -> table(book, part(null, 9, null)).schema())
        .hasMessageContaining("row 9 holds no names");
    assertThatThrownBy(() -> table(book, part(null, 1, "A2:B4")).schema())
        .hasMessageContaining("row 1 is not within the range");
    assertThatThrownBy(() -> table(book, part(null, 0, "F1:G4")).schema())
        .hasMessageContaining("nothing stands in the range F1:G4");
  }

  @Test
  void ofSeveralSheetsOneIsStated() throws IOException {
    TestBook book =
        one("<c r='B2'><v>2</v></c>")
            .part(
                "xl/workbook.xml",
                TestBook.book(
                    "",
                    "<sheet name='One' r:id='rId1'/><sheet name='Growers' state='hidden'"
                        + " r:id='rId4'/><sheet name='Chart' r:id='rId5'/>"))
            .part(
                "xl/_rels/workbook.xml.rels",
                "<Relationships>"
                    + TestBook.link("rId1", "worksheet", "worksheets/sheet1.xml")
                    + TestBook.link("rId4", "worksheet", "../xl/./worksheets/sheet2.xml")
                    + TestBook.link("rId5", "chartsheet", "chartsheets/sheet1.xml")
                    + "</Relationships>")
            .part(
                "xl/worksheets/sheet2.xml",
                "<worksheet><dimension ref='A1:D17'/><sheetData>"
                    + HEAD
                    + "</sheetData></worksheet>");
    assertThatThrownBy(() -> table(book).schema())
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("t.xlsx has several sheets; state one with sheet: NAME, of ")
        .hasMessageContaining("One (2 rows, 2 columns), Growers (17 rows, 4 columns, hidden)");
    assertThatThrownBy(() -> table(book, part("Growers ", 0, null)).schema())
        .hasMessageContaining("did you mean \"Growers\"?");
    Table hidden = table(book, part("growers", 0, null));
    assertThat(OwnRows.of(hidden)).isEmpty();
    assertThat(hidden.remarks()).containsExactly("the sheet is hidden; it was read");
    assertThat(hidden.name()).isEqualTo("t.xlsx sheet growers");
    assertThat(OwnRows.of(table(book, part("1", 0, null)))).hasSize(1);
  }

  @Test
  void aNumberAmongCodesHasLikelyLostItsZero() throws IOException {
    Table table =
        table(
            TestBook.xlsx(
                HEAD
                    + "<row r='2'><c r='A2' t='str'><v>00123</v></c></row>"
                    + "<row r='3'><c r='A3'><v>124</v></c></row>"
                    + "<row r='4'><c r='A4'><v>125</v></c><c r='B4'><v>1</v></c></row>"));
    OwnRows.of(table);
    assertThat(table.remarks())
        .containsExactly(
            "no: 2 cells are numbers among texts such as 00123: likely lost zeros, such as 124 in"
                + " A3; compare with drop-leading-zeros");
  }

  @Test
  void aMergedHeaderCellNamesOneColumn() throws IOException {
    TestBook book =
        TestBook.xlsx("")
            .part(
                "xl/worksheets/sheet1.xml",
                "<worksheet><sheetData><row r='1'><c r='A1' t='str'><v>kg</v></c><c r='B1'/><c"
                    + " r='C1' t='str'><v>no</v></c></row><row r='2'><c r='B2'><v>2</v></c></row>"
                    + "</sheetData><mergeCells><mergeCell ref='A1:B1'/><mergeCell ref='A2:B2'/>"
                    + "</mergeCells></worksheet>");
    Table table = table(book);
    assertThat(table.schema().names()).containsExactly("kg", "column 2", "no");
    OwnRows.of(table);
    assertThat(table.remarks())
        .containsExactly("the header cell A1:B1 is merged: it names column A alone");
  }

  @Test
  void aNameThatStandsTwiceIsToldWithItsColumns() throws IOException {
    TestBook book =
        TestBook.xlsx(
            "<row r='1'><c r='B1' t='str'><v>no</v></c><c r='C1' t='str'><v> no</v></c></row>");
    assertThatThrownBy(() -> table(book).schema())
        .hasMessageContaining(
            "t.xlsx sheet One row 1: the header names \"no\" twice, in columns B and C");
  }

  @Test
  void whatIsSaidOfAPrivateColumnShowsNoCell() throws IOException {
    TableOptions hidden = TableOptions.builder().keepPrivate(Set.of("no")).build();
    Table codes =
        table(
            TestBook.xlsx(
                HEAD
                    + "<row r='2'><c r='A2' t='str'><v>00123</v></c></row>"
                    + "<row r='3'><c r='A3'><v>124</v></c><c r='B3'><v>1</v></c></row>"),
            hidden);
    OwnRows.of(codes);
    assertThat(codes.remarks().toString())
        .contains("such as " + Veil.digest("00123"), "such as " + Veil.digest("124") + " in A3");
    Table beside = table(one("<c r='D2' t='str'><v>a note</v></c>"), hidden);
    assertThatThrownBy(() -> OwnRows.of(beside))
        .hasMessageContaining("cell D2 holds \"" + Veil.digest("a note") + "\", beside");
  }
}
