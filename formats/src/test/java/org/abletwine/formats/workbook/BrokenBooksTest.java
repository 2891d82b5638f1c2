package org.abletwine.formats.workbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.table.AbleTwineException;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Files that are damaged, hostile, or not what their name says: an error, never a wrong table. */
class BrokenBooksTest {
  /** Mutated files of each kind; more on request. */
  private static final int MUTATED = Integer.getInteger("mutated.files", 1_000);

  private static final String HEAD = "<row r='1'><c r='A1' t='str'><v>x</v></c></row>";

  @TempDir private Path folder;

  private static void assertTold(Path file, String... parts) {
    assertThatThrownBy(() -> OwnRows.of(Tables.file(file)))
        .isInstanceOf(AbleTwineException.class)
        .satisfies(
            e -> {
              for (String part : parts) {
                assertThat(e.getMessage()).contains(part);
              }
            });
  }

  @Test
  void whatIsNoWorkbookIsTold() throws IOException {
    assertTold(Files.writeString(folder.resolve("a.xlsx"), "a,b\n1,2\n"), "is no workbook", ".csv");
    assertTold(Files.writeString(folder.resolve("b.xlsx"), ""), "is empty");
    byte[] old = new byte[600];
    System.arraycopy(
        new byte[] {
          (byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0, (byte) 0xA1, (byte) 0xB1, 0x1A, (byte) 0xE1
        },
        0,
        old,
        0,
        8);
    assertTold(
        Files.write(folder.resolve("c.xlsx"), old),
        "a workbook of the old binary kind (.xls), or one with a password");
    assertTold(new TestBook().part("a.csv", "a\n1\n").at(folder.resolve("d.xlsx")), "no workbook");
    assertTold(folder.resolve("none.xlsx"), "there is no file");
    TestBook binary =
        new TestBook()
            .part("[Content_Types].xml", "<Types/>")
            .part(
                "_rels/.rels",
                "<Relationships>"
                    + TestBook.link("r", "officeDocument", "xl/workbook.bin")
                    + "</Relationships>")
            .part("xl/workbook.bin", "x");
    assertTold(binary.at(folder.resolve("g.xlsx")), "binary kind (.xlsb); save it as .xlsx");
    Path renamed = TestBook.xlsx(HEAD).at(folder.resolve("e.csv"));
    assertTold(renamed, "is a workbook, not delimited text; give it the ending .xlsx");
  }

  @Test
  void aWorkbookOfEitherKindIsReadWhateverItsEnding() throws IOException {
    Path file =
        TestBook.ods(
                "<table:table table:name='One'><table:table-row><table:table-cell"
                    + " office:value-type='string'><text:p>x</text:p></table:table-cell>"
                    + "</table:table-row></table:table>")
            .at(folder.resolve("f.xlsx"));
    var table = Tables.file(file);
    assertThat(table.schema().names()).containsExactly("x");
    assertThat(OwnRows.of(table)).isEmpty();
    assertThat(table.remarks()).containsExactly("it is an .ods file, whatever its ending says");
  }

  @Test
  void partsThatGrowBeyondMeasureAreNotRead() throws IOException {
    ByteArrayOutputStream bomb = new ByteArrayOutputStream();
    bomb.write("<worksheet><sheetData>".getBytes(StandardCharsets.UTF_8));
    byte[] spaces = new byte[1 << 20];
    Arrays.fill(spaces, (byte) ' ');
    for (int i = 0; i < 100; i++) {
      bomb.write(spaces);
    }
    bomb.write((HEAD + "</sheetData></worksheet>").getBytes(StandardCharsets.UTF_8));
    Path file =
        TestBook.xlsx("")
            .part("xl/worksheets/sheet1.xml", bomb.toByteArray())
            .at(folder.resolve("bomb.xlsx"));
    assertTold(file, "unpacks to more than 400 times its size");
  }

  @Test
  void entitiesAreNotFollowed() throws IOException {
    Path secret = Files.writeString(folder.resolve("secret.txt"), "secret");
    String rows = TestBook.sheet(HEAD + "<row r='2'><c r='A2' t='str'><v>&e;</v></c></row>");
    for (String declared :
        List.of(
            "<!DOCTYPE x [<!ENTITY e SYSTEM '" + secret.toUri() + "'>]>",
            "<!DOCTYPE x [<!ENTITY e 'ha'>]>",
            "")) {
      Path file =
          TestBook.xlsx("")
              .part("xl/worksheets/sheet1.xml", declared + rows)
              .at(folder.resolve("xxe.xlsx"));
      assertTold(file, "is a damaged workbook");
    }
  }

  @Test
  void linksLeadNowhereOutside() throws IOException {
    Files.writeString(folder.resolve("sheet9.xml"), TestBook.sheet(HEAD));
    for (String target : List.of("../../../sheet9.xml", folder.resolve("sheet9.xml").toString())) {
      Path file =
          TestBook.xlsx(HEAD)
              .part(
                  "xl/_rels/workbook.xml.rels",
                  "<Relationships>"
                      + TestBook.link("rId1", "worksheet", target)
                      + "</Relationships>")
              .at(folder.resolve("out.xlsx"));
      assertTold(file, "is missing");
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "<row r='2'><c r='A2'><v>1</v></c></row><row r='2'/>",
        "<row r='2'><c r='B2'/><c r='A2'/></row>",
        "<row r='9999999'/>",
        "<row r='2'><c r='ZZZZZ2'><v>1</v></c></row>",
        "<row r='2'><c r='A2' s='x'><v>1</v></c></row>",
        "<row r='2'><c r='A2' t='s'><v>99999999999</v></c></row>",
        "<row r='2'><c r='A2' t='s'><v>-1</v></c></row>"
      })
  void rowsThatCannotBeAreDamage(String rows) throws IOException {
    assertTold(TestBook.xlsx(HEAD + rows).at(folder.resolve("r.xlsx")), "is a damaged workbook");
  }

  @ParameterizedTest
  @ValueSource(strings = {".xlsx", ".ods"})
  void aFileThatIsCutOffIsAnError(String ending) throws IOException {
    byte[] whole = Files.readAllBytes(written(ending));
    Random random = new Random(3);
    for (int i = 0; i < 300; i++) {
      byte[] cut = Arrays.copyOf(whole, random.nextInt(whole.length));
      assertTold(Files.write(folder.resolve("cut" + ending), cut), "cut" + ending);
    }
  }

  private static OwnRows rows() {
    List<List<@Nullable String>> rows = new java.util.ArrayList<>();
    for (int i = 0; i < 40; i++) {
      rows.add(
          Arrays.asList(
              "0" + i,
              i % 3 == 0 ? null : "text <" + i + ">",
              i + ".5",
              "2026-08-0" + (1 + i % 9)));
    }
    OwnRows own = new OwnRows(List.of("code", "text", "num", "day"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("day", ColumnType.of(ColumnType.Kind.DATE));
    return own;
  }

  private Path written(String ending) {
    Path file = folder.resolve("whole" + ending);
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(rows()).build().writeTo(sink);
    }
    return file;
  }

  /** Bytes changed, put in and left out at random: an error, or the same table. */
  @ParameterizedTest
  @ValueSource(strings = {".xlsx", ".ods"})
  void mutatedFilesAreErrorsOrTheTable(String ending) throws IOException {
    byte[] whole = Files.readAllBytes(written(ending));
    Random random = new Random(11);
    int errors = 0;
    for (int i = 0; i < MUTATED; i++) {
      byte[] bytes = mutated(whole, random);
      Path file = Files.write(folder.resolve("m" + ending), bytes);
      Throwable failure =
          Assertions.assertTimeoutPreemptively(
              Duration.ofSeconds(20), () -> catchThrowable(() -> sameOrTold(file)));
      if (failure instanceof AbleTwineException) {
        errors++;
      } else {
        assertThat(failure).as("file " + i).isNull();
      }
    }
    assertThat(errors).isGreaterThan(MUTATED / 2);
  }

  private static void sameOrTold(Path file) {
    assertThat(OwnRows.of(Tables.file(file))).isEqualTo(rows().cells());
  }

  private static byte[] mutated(byte[] whole, Random random) {
    byte[] bytes = whole.clone();
    for (int changes = 1 + random.nextInt(4); changes > 0; changes--) {
      int at = random.nextInt(bytes.length);
      switch (random.nextInt(4)) {
        case 0 -> bytes[at] = (byte) random.nextInt(256);
        case 1 -> bytes[at] ^= (byte) (1 << random.nextInt(8));
        case 2 -> {
          byte[] shorter = new byte[bytes.length - 1];
          System.arraycopy(bytes, 0, shorter, 0, at);
          System.arraycopy(bytes, at + 1, shorter, at, bytes.length - at - 1);
          bytes = shorter;
        }
        default -> {
          int length = Math.min(bytes.length - at, random.nextInt(40));
          System.arraycopy(bytes, random.nextInt(bytes.length - length), bytes, at, length);
        }
      }
    }
    return bytes;
  }

  /**
   * Markup changed within a part that is packed whole: an error or some table, no crash, no hang.
   */
  @Test
  void mutatedMarkupIsAnErrorOrATable() throws IOException {
    Random random = new Random(12);
    String rows =
        HEAD
            + "<row r='2' hidden='1'><c r='A2' t='s' s='1'><v>0</v></c></row><row r='3'><c r='A3'"
            + " s='1'><f t='shared' si='0' ref='A3'>1+1</f><v>46235.5</v></c></row><row r='4'><c"
            + " r='A4' t='inlineStr'><is><t>a_x000D_</t></is></c></row>";
    byte[] sheet = TestBook.sheet(rows).getBytes(StandardCharsets.UTF_8);
    for (int i = 0; i < MUTATED; i++) {
      Path file =
          TestBook.xlsx("")
              .part("xl/worksheets/sheet1.xml", mutated(sheet, random))
              .part("xl/sharedStrings.xml", "<sst><si><t>shared</t></si></sst>")
              .at(folder.resolve("markup.xlsx"));
      Throwable failure =
          Assertions.assertTimeoutPreemptively(
              Duration.ofSeconds(20), () -> catchThrowable(() -> OwnRows.of(Tables.file(file))));
      if (failure != null) {
        assertThat(failure).isInstanceOf(AbleTwineException.class);
      }
    }
  }

  @Test
  void aFileThatIsWrittenToMeanwhileIsTold() throws IOException {
    Path file =
        TestBook.xlsx(HEAD + "<row r='2'><c r='A2'><v>1</v></c></row>")
            .at(folder.resolve("live.xlsx"));
    var table = Tables.file(file);
    table.schema();
    Files.write(file, new byte[] {1}, java.nio.file.StandardOpenOption.APPEND);
    assertThatThrownBy(() -> OwnRows.of(table))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("was written to while it was read");
  }
}
