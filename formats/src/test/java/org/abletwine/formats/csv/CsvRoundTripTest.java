package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.enrich.Enrichment;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What comes in untouched goes out untouched, whatever the form of the file. */
class CsvRoundTripTest {
  @TempDir private Path folder;

  private Path file(String name, String text, Charset charset) throws IOException {
    return Files.write(folder.resolve(name), text.getBytes(charset));
  }

  private Path file(String name, String text) throws IOException {
    return file(name, text, StandardCharsets.UTF_8);
  }

  private static void run(Table table, Path out, Lookup... lookups) {
    Enrichment.Builder builder = Enrichment.of(table);
    for (Lookup lookup : lookups) {
      builder.lookup(lookup);
    }
    try (TableSink sink = Tables.sink(out)) {
      builder.build().writeTo(sink);
    }
  }

  private static List<List<@Nullable String>> cells(Table table) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        for (int row = 0; row < batch.rows(); row++) {
          List<@Nullable String> cells = new ArrayList<>();
          for (int column = 0; column < table.schema().size(); column++) {
            cells.add(batch.column(column).get(row));
          }
          rows.add(cells);
        }
      }
    }
    return rows;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void randomTextSurvivesByteForByte(long seed) throws IOException {
    Random random = new Random(seed);
    char delimiter = ",;\t|".charAt(random.nextInt(4));
    String end = random.nextBoolean() ? "\n" : "\r\n";
    StringBuilder text = new StringBuilder("a" + delimiter + "b" + delimiter + "c" + end);
    List<List<@Nullable String>> expected = new ArrayList<>();
    for (int row = 0; row < 6_000; row++) {
      List<@Nullable String> cells = new ArrayList<>();
      for (int column = 0; column < 3; column++) {
        String cell = word(random, delimiter);
        boolean plain = cell.chars().noneMatch(c -> c == delimiter || c == '"' || c == '\n');
        boolean quote = !plain || random.nextInt(9) == 0;
        cells.add(cell.isEmpty() && !quote ? null : cell);
        text.append(column == 0 ? "" : delimiter);
        text.append(quote ? '"' + cell.replace("\"", "\"\"") + '"' : cell);
      }
      expected.add(cells);
      text.append(end);
    }
    Path in = file("in.csv", text.toString());
    assertThat(cells(Tables.file(in))).isEqualTo(expected);
    run(Tables.file(in), folder.resolve("out.csv"));
    assertThat(folder.resolve("out.csv")).hasSameBinaryContentAs(in);
  }

  /** A month without rows is read as any other. */
  @ParameterizedTest
  @ValueSource(chars = {',', ';', '\t', '|'})
  void theDelimiterOfAFileOfOneLineIsFound(char delimiter) throws IOException {
    for (String end : new String[] {"", "\n", "\r\n"}) {
      Table names = Tables.file(file("names.csv", "no" + delimiter + "kg per load" + end));
      assertThat(names.schema().names()).containsExactly("no", "kg per load");
      assertThat(cells(names)).isEmpty();
      assertThat(names.traits()).containsEntry("delimiter", "" + delimiter);
    }
  }

  private static String word(Random random, char delimiter) {
    return switch (random.nextInt(16)) {
      case 0 -> "";
      case 1 -> "say \"hi\"";
      case 2 -> "\"";
      case 3 -> "two" + delimiter + "three";
      case 4 -> "line\nbreak";
      case 5 -> " é ж \uD83C\uDF3E ";
      case 6 -> "x".repeat(random.nextInt(3_000));
      case 7 -> "a\"\"";
      default -> "w" + random.nextInt(1_000);
    };
  }

  @ParameterizedTest
  @CsvSource({"UTF-8,''", "UTF-8,BOM", "UTF-16LE,BOM", "UTF-16BE,BOM", "windows-1252,''"})
  void encodingsAreReadByMarkOrByName(String name, String mark) throws IOException {
    Charset charset = Charset.forName(name);
    Path in = file("in.csv", (mark.isEmpty() ? "" : "\uFEFF") + "k,v\n1,Brönn €\n", charset);
    TableOptions options =
        new TableOptions(null, null, null, name.startsWith("win") ? name : null, List.of(), false);
    Table table = Tables.file(in, options);
    assertThat(table.schema().names()).containsExactly("k", "v");
    assertThat(cells(table)).isEqualTo(List.of(List.of("1", "Brönn €")));
    run(table, folder.resolve("out.csv"));
    assertThat(folder.resolve("out.csv"))
        .hasContent((mark.isEmpty() ? "" : "\uFEFF") + "k,v\n1,Brönn €\n");
  }

  @Test
  void nullAndEmptyTextAreToldApart() throws IOException {
    Path in = file("in.csv", "k,v,w\n1,,\"\"\n2,NULL,\"NULL\"\n");
    TableOptions options = new TableOptions(null, null, null, null, List.of("NULL"), false);
    List<List<@Nullable String>> cells = cells(Tables.file(in, options));
    assertThat(cells.get(0)).containsExactly("1", null, "");
    assertThat(cells.get(1)).containsExactly("2", null, "NULL");
    run(Tables.file(in, options), folder.resolve("out.csv"));
    assertThat(folder.resolve("out.csv")).as("as it came").hasSameBinaryContentAs(in);
  }

  @Test
  void fetchedValuesAreQuotedWhenTheyMustBe() throws IOException {
    Path ours = file("ours.csv", "k;x\n1;\"a;b\"\n2;c\n3;d\n4;e\n");
    Path theirs = file("theirs.csv", "k,v\n1,p;q\n2,\"say \"\"hi\"\"\"\n3,\"\"\n4,Brönn\n");
    run(
        Tables.file(ours),
        folder.resolve("out.csv"),
        Lookup.in(Tables.file(theirs)).key("k").bring("v"));
    assertThat(folder.resolve("out.csv"))
        .hasContent("k;x;v\n1;\"a;b\";\"p;q\"\n2;c;\"say \"\"hi\"\"\"\n3;d;\"\"\n4;e;Brönn\n");
  }

  @Test
  void aHeaderIsFoundOrStated() throws IOException {
    Path in = file("in.csv", "1,200\n2,300\n");
    assertThat(Tables.file(in).schema().names()).containsExactly("column 1", "column 2");
    TableOptions stated = new TableOptions(null, null, true, null, List.of(), false);
    assertThat(Tables.file(in, stated).schema().names()).containsExactly("1", "200");
  }

  @Test
  void singleQuotesAreFound() throws IOException {
    Path in = file("in.csv", "k,v\n1,'a,b'\n2,'c'\n3,'d'\n");
    assertThat(cells(Tables.file(in)).get(0)).containsExactly("1", "a,b");
  }

  @Test
  void raggedRowsAreFilledUpWhenAsked() throws IOException {
    Path in = file("in.csv", "a,b,c\n1,2\n3,4,5\n6,7,8,\n");
    TableOptions pad = new TableOptions(null, null, null, null, List.of(), true);
    assertThat(cells(Tables.file(in, pad)).get(0)).containsExactly("1", "2", null);
    run(Tables.file(in, pad), folder.resolve("out.csv"));
    assertThat(folder.resolve("out.csv")).hasContent("a,b,c\n1,2,\n3,4,5\n6,7,8\n");
  }

  @Test
  void aLastLineWithoutItsEndAndBlankLinesAreNoTrouble() throws IOException {
    Path in = file("in.csv", "a,b\n1,2\n\n3,4");
    assertThat(cells(Tables.file(in))).isEqualTo(List.of(List.of("1", "2"), List.of("3", "4")));
  }
}
