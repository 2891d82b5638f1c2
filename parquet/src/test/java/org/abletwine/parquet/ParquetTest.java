package org.abletwine.parquet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What goes into a Parquet file and comes out of it, and how its columns are kept. */
class ParquetTest {
  @TempDir private Path folder;

  private Path written(OwnRows rows, String name) {
    Path file = folder.resolve(name);
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(rows).build().writeTo(sink);
    }
    return file;
  }

  private static OwnRows column(ColumnType.Kind kind, @Nullable String... cells) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (String cell : cells) {
      rows.add(Arrays.asList(cell));
    }
    OwnRows own = new OwnRows(List.of("c"), rows);
    own.types().put("c", ColumnType.of(kind));
    return own;
  }

  private List<@Nullable String> back(OwnRows rows) {
    List<@Nullable String> cells = new ArrayList<>();
    OwnRows.of(Tables.file(written(rows, "b.parquet"))).forEach(row -> cells.add(row.get(0)));
    return cells;
  }

  private String form(OwnRows rows) {
    Path file = folder.resolve("f.parquet");
    try (TableSink sink = Tables.sink(file)) {
      Enrichment.of(rows).build().writeTo(sink);
      return ((BatchSink) sink).form();
    }
  }

  @Test
  void numbersAreKeptDigitForDigitWithTheirPlacesMadeEven() {
    OwnRows mixed = column(ColumnType.Kind.NUMBER, "1.5", "-2.25", "3", null, "0", "-0.01");
    assertThat(back(mixed)).containsExactly("1.50", "-2.25", "3.00", null, "0.00", "-0.01");
    assertThat(form(mixed)).contains("1 column of numbers", "decimal places made even: c to 2");
    assertThat(OtherLibrary.schema(folder.resolve("f.parquet")))
        .contains("optional int64 c (DECIMAL(18,2))");
    OwnRows long20 =
        column(ColumnType.Kind.NUMBER, "12345678901234567890.12", "-12345678901234567890.12");
    assertThat(back(long20)).containsExactly("12345678901234567890.12", "-12345678901234567890.12");
    assertThat(form(long20)).doesNotContain("even");
    assertThat(OtherLibrary.schema(folder.resolve("f.parquet"))).contains("DECIMAL(38,2)");
    OwnRows whole =
        column(ColumnType.Kind.INTEGER, "0", "-7", "999999999999999999", "-999999999999999999");
    assertThat(back(whole)).isEqualTo(whole.cells().stream().map(r -> r.get(0)).toList());
    OwnRows longer = column(ColumnType.Kind.INTEGER, "9223372036854775808", "1");
    assertThat(back(longer)).containsExactly("9223372036854775808", "1");
  }

  @Test
  void aCellThatIsNoneOfItsKindMakesItsColumnText() {
    for (String odd : List.of("007", "+5", "1e3", " 5", "5.", ".5", "-0", "n/a", "", "1,5")) {
      OwnRows rows = column(ColumnType.Kind.NUMBER, "1.50", odd, "2");
      assertThat(back(rows)).as(odd).containsExactly("1.50", odd, "2");
      assertThat(form(rows)).contains("c as text for \"" + odd + "\" in row 2");
    }
    OwnRows digits = column(ColumnType.Kind.NUMBER, "1".repeat(30) + ".1", "0." + "1".repeat(20));
    assertThat(back(digits)).containsExactly("1".repeat(30) + ".1", "0." + "1".repeat(20));
    OwnRows day = column(ColumnType.Kind.DATE, "2026-08-01", "soon");
    assertThat(back(day)).containsExactly("2026-08-01", "soon");
    OwnRows truth = column(ColumnType.Kind.BOOLEAN, "true", "yes");
    assertThat(back(truth)).containsExactly("true", "yes");
  }

  @Test
  void daysAndTimesAreKeptAsSuch() {
    OwnRows days =
        column(ColumnType.Kind.DATE, "1899-12-31", "9999-12-31", "0001-01-01", "2024-02-29", null);
    assertThat(back(days))
        .containsExactly("1899-12-31", "9999-12-31", "0001-01-01", "2024-02-29", null);
    assertThat(Tables.file(folder.resolve("b.parquet")).type("c"))
        .isEqualTo(ColumnType.of(ColumnType.Kind.DATE));
    OwnRows times =
        column(
            ColumnType.Kind.DATE_TIME,
            "1899-12-31T23:59:59",
            "9999-12-31T00:00:00",
            "2026-08-01T10:00:00.25");
    assertThat(back(times)).isEqualTo(times.cells().stream().map(r -> r.get(0)).toList());
    OwnRows fine = column(ColumnType.Kind.DATE_TIME, "2026-08-01T10:00:00.123456789");
    assertThat(back(fine)).containsExactly("2026-08-01T10:00:00.123456789");
    assertThat(OtherLibrary.schema(folder.resolve("b.parquet"))).contains("TIMESTAMP(NANOS,false)");
    OwnRows both =
        column(ColumnType.Kind.DATE_TIME, "2026-08-01T10:00:00.123456789", "9999-12-31T00:00:00");
    assertThat(back(both)).isEqualTo(both.cells().stream().map(r -> r.get(0)).toList());
    assertThat(form(both)).contains("c as text");
  }

  @Test
  void manyRowsAreManyGroups() throws IOException {
    List<List<@Nullable String>> rows = new ArrayList<>();
    Random random = new Random(5);
    for (int i = 0; i < 60_000; i++) {
      rows.add(
          Arrays.asList(
              "T" + i,
              i % 7 == 0 ? null : i + "." + i % 10,
              random
                  .ints(700, 'a', 'z')
                  .mapToObj(Character::toString)
                  .collect(Collectors.joining()),
              "2026-08-0" + (1 + i % 9)));
    }
    OwnRows own = new OwnRows(List.of("id", "num", "long", "day"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("day", ColumnType.of(ColumnType.Kind.DATE));
    Path file = written(own, "many.parquet");
    assertThat(OwnRows.of(Tables.file(file))).isEqualTo(rows);
    assertThat(OtherLibrary.rows(file)).isEqualTo(rows);
    try (ParquetFile open = new ParquetFile(file)) {
      assertThat(open.groups()).hasSizeGreaterThan(1);
    }
  }

  @Test
  void aTableWithoutRowsKeepsItsColumns() {
    OwnRows none = new OwnRows(List.of("a", "b"), List.of());
    none.types().put("b", ColumnType.of(ColumnType.Kind.DATE));
    Path file = written(none, "none.parquet");
    Table back = Tables.file(file);
    assertThat(back.schema().names()).containsExactly("a", "b");
    assertThat(OwnRows.of(back)).isEmpty();
    assertThat(OtherLibrary.schema(file)).contains("optional int32 b (DATE)");
  }

  /** A page that is damaged shows which columns were read. */
  @Test
  void aReferenceIsReadByTheColumnsThatAreLookedAt() throws IOException {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (int i = 0; i < 20; i++) {
      rows.add(List.of("k" + i, "name " + i, "@@@@" + i, i % 2 == 0 ? "in" : "out"));
    }
    Path file =
        written(new OwnRows(List.of("key", "name", "unused", "state"), rows), "ref.parquet");
    byte[] bytes = Files.readAllBytes(file);
    int at = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("@@@@");
    bytes[at] = '!';
    Files.write(file, bytes);
    assertTold(file, "column unused, row 1: a page at byte");
    OwnRows tickets = new OwnRows(List.of("key"), List.of(List.of("k4"), List.of("k5")));
    Lookup lookup = Lookup.in(Tables.file(file)).key("key").where("state = 'in'").bring("name");
    Path enriched = folder.resolve("e.csv");
    try (TableSink sink = Tables.sink(enriched)) {
      Enrichment.of(tickets).lookup(lookup).build().writeTo(sink);
    }
    assertThat(OwnRows.of(Tables.file(enriched)))
        .containsExactly(Arrays.asList("k4", "name 4"), Arrays.asList("k5", null));
    assertThat(
            DuplicateAudit.of(Tables.file(file), new int[] {0}, List.of())
                .duplicateRows()
                .cardinality())
        .isZero();
    Lookup unused = Lookup.in(Tables.file(file)).key("key").bring("unused");
    Enrichment build = Enrichment.of(tickets).lookup(unused).build();
    assertThatThrownBy(
            () -> {
              try (TableSink sink = Tables.sink(enriched)) {
                build.writeTo(sink);
              }
            })
        .isInstanceOf(DataException.class)
        .hasMessageContaining("column unused");
  }

  @Test
  void wordsThatStandForNullAreNull() {
    Path file = written(column(ColumnType.Kind.TEXT, "n/a", "x"), "n.parquet");
    Table table =
        Tables.file(file, new TableOptions(null, null, null, null, List.of("n/a"), false));
    assertThat(OwnRows.of(table)).containsExactly(Arrays.asList((String) null), List.of("x"));
  }

  @Test
  void settingsOfTextAndASecondTableAreRefused() {
    Path file = folder.resolve("x.parquet");
    assertThatThrownBy(
            () ->
                Tables.destination(file, new OutputOptions(';', null, null, null, null, null, null))
                    .open(null)
                    .close())
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("state the file alone");
    assertThat(file).doesNotExist();
  }

  @Test
  void aRunThatFailsLeavesNothing() {
    Path file = folder.resolve("half.parquet");
    OwnRows rows = column(ColumnType.Kind.TEXT, "a", "b");
    try (TableSink sink = Tables.sink(file)) {
      sink.start(rows, rows.schema());
      sink.write(List.of("a"));
    }
    assertThat(folder.toFile().list()).isEmpty();
  }

  @Test
  void whatIsNoParquetFileIsTold() throws IOException {
    assertTold(Files.writeString(folder.resolve("a.parquet"), "a,b\n1,2\n"), "is no Parquet file");
    assertTold(Files.writeString(folder.resolve("b.parquet"), "PAR1"), "is cut off after 4 bytes");
    assertTold(Files.writeString(folder.resolve("c.parquet"), ""), "is no Parquet file");
    assertTold(Files.writeString(folder.resolve("d.parquet"), "PARE    PARE"), "is encrypted");
    assertTold(folder.resolve("none.parquet"), "there is no file");
    Path whole = written(column(ColumnType.Kind.TEXT, "a", "b"), "w.parquet");
    byte[] bytes = Files.readAllBytes(whole);
    for (int length = 4; length < bytes.length; length++) {
      assertTold(
          Files.write(folder.resolve("cut.parquet"), Arrays.copyOf(bytes, length)), "cut.parquet");
    }
  }

  static void assertTold(Path file, String part) {
    assertThatThrownBy(() -> OwnRows.of(Tables.file(file)))
        .isInstanceOf(DataException.class)
        .hasMessageContaining(part);
  }
}
