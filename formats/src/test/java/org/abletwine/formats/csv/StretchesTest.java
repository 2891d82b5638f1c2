package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.RangedTable;
import org.abletwine.table.batch.Stretch;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A file read in stretches, each for itself and in any order, has the rows it has as a whole. */
class StretchesTest {
  @TempDir private Path folder;

  private static List<String> read(Table table) {
    List<String> rows = new ArrayList<>();
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        for (int row = 0; row < batch.rows(); row++) {
          StringBuilder text = new StringBuilder("row " + batch.rowNumber(row));
          for (int column = 0; column < table.schema().size(); column++) {
            text.append('|').append(batch.column(column).get(row));
          }
          rows.add(text.toString());
        }
      }
    } catch (DataException e) {
      return List.of(String.valueOf(e.getMessage())); // the rows before may have been told, or not
    }
    return rows;
  }

  private static List<String> inStretches(Table table, long bytes) {
    RangedTable ranged = RangedTable.of(table);
    List<Stretch.Looked> looked = new ArrayList<>();
    ranged.stretches(bytes).forEach(stretch -> looked.add(ranged.look(stretch)));
    List<String> rows = new ArrayList<>();
    List<Stretch.Range> ranges = Stretch.rows(looked);
    for (Stretch.Range range : bytes % 2 == 0 ? Stretch.fewer(ranges, 3) : ranges) {
      BatchTable some = ranged.rows(range);
      List<String> part = read(some);
      if (!part.isEmpty() && !part.get(0).startsWith("row ")) {
        return part;
      }
      rows.addAll(part);
    }
    return rows;
  }

  private static void check(Table table, long... sizes) {
    List<String> whole = read(table);
    for (long bytes : sizes) {
      assertThat(inStretches(table, bytes)).as("stretches of %d bytes", bytes).isEqualTo(whole);
    }
  }

  private Path file(String name, String text) throws IOException {
    return Files.writeString(folder.resolve(name), text);
  }

  private static String hostile(Random random, String end) {
    StringBuilder text = new StringBuilder();
    if (random.nextInt(4) == 0) {
      text.append('\uFEFF');
    }
    text.append(random.nextBoolean() ? "no,what" : "no,\"wh\"\"at" + end + "it is\"").append(end);
    int rows = random.nextInt(30);
    for (int row = 0; row < rows; row++) {
      String cell =
          switch (random.nextInt(9)) {
            case 0 -> "\"two\nlines\"";
            case 1 -> "\"a \"\"quoted\"\" word,\r\nand more\n\n\"";
            case 2 -> "a 6\" pipe";
            case 3 -> "\"\"";
            case 4 -> "";
            case 5 -> "\"\n\"";
            case 6 -> "Wéndle\"";
            case 7 -> "\"" + "long ".repeat(random.nextInt(30)) + "\n".repeat(20) + "\"";
            default -> "plain";
          };
      text.append(row).append(',').append(cell);
      text.append(row == rows - 1 && random.nextBoolean() ? "" : end);
      if (random.nextInt(8) == 0 && row < rows - 1) {
        text.append(end);
      }
    }
    return text.toString();
  }

  @Test
  void hostileTextsHaveTheSameRowsInStretchesOfAnySize() throws IOException {
    for (int seed = 0; seed < 300; seed++) {
      Random random = new Random(seed);
      String end = List.of("\n", "\r\n", "\r").get(random.nextInt(3));
      Path path = file("hostile.csv", hostile(random, end));
      check(Tables.file(path), 1, 2, 3, 5, 8, 13, 34, 89, 1000);
    }
  }

  @Test
  void whatIsWrongIsToldOfTheSameRowAndLine() throws IOException {
    for (String wrong : List.of("7,a,b", "7,\"open", "7,\"a\"b", "7")) {
      String text = "no,what\n" + "1,\"x\ny\"\n".repeat(9) + wrong + "\n" + "8,plain\n".repeat(9);
      check(Tables.file(file("wrong.csv", text)), 1, 10, 40, 80, 200);
    }
  }

  @Test
  void severalFilesAreNumberedOn() throws IOException {
    file("a1.csv", "no,what\n1,\"x\ny\"\n2,b\n");
    file("a2.csv", "what,no\nc,3\n\"d\n\",4");
    file("a3.csv", "no,what\n");
    file("a4.csv", "no,what\n5,e\n");
    TableOptions options = TableOptions.NONE;
    check(Tables.file(folder.resolve("a*.csv"), options), 1, 4, 9, 100);
  }

  @Test
  void aFolderOfPartsIsOneTable() throws IOException {
    String text = "no,what\n1,\"x\ny\"\n2,b\n3,\"c\"\n4,d\n";
    List<String> whole = read(Tables.file(file("whole.csv", text)));
    for (int cut = 1; cut < text.length(); cut++) {
      Path parts = Files.createDirectories(folder.resolve("p" + cut + ".csv"));
      Files.writeString(parts.resolve("part-1.csv"), text.substring(0, cut));
      Files.writeString(parts.resolve("part-2.csv"), "");
      Files.writeString(parts.resolve("part-3.csv"), text.substring(cut));
      Files.writeString(parts.resolve("other.csv"), "no part");
      Table table = Tables.file(parts);
      assertThat(read(table)).isEqualTo(whole);
      assertThat(table.sizeInBytes()).isEqualTo(text.length());
      check(table, 1, 6, 20);
    }
  }

  @Test
  void aFolderOfPartsThatIsReplacedWhileItIsReadIsAnError() throws IOException {
    Path parts = Files.createDirectories(folder.resolve("old.csv"));
    Path other = Files.createDirectories(folder.resolve("new.csv"));
    for (Path path : List.of(parts, other)) {
      Files.writeString(path.resolve("part-1.csv"), "no\n" + "1\n".repeat(400_000));
      Files.writeString(path.resolve("part-2.csv"), "2\n".repeat(400_000));
    }
    try (BatchReader reader = new BatchReader(Tables.file(parts))) {
      assertThat(reader.next()).isNotNull();
      Files.move(parts, folder.resolve("before.csv"));
      Files.move(other, parts);
      assertThatThrownBy(
              () -> {
                while (reader.next() != null) {
                  // to the second part
                }
              })
          .hasMessageContaining("it was replaced while it was read; run again");
    }
  }

  @Test
  void otherEncodingsAreReadAsAWhole() throws IOException {
    Path path = folder.resolve("latin.csv");
    Files.writeString(path, "no,what\n1,Wéndle\n2,Vale\n", Charset.forName("windows-1252"));
    TableOptions latin = new TableOptions(null, null, null, "windows-1252", List.of(), false);
    assertThat(RangedTable.of(Tables.file(path, latin)).stretches(3)).hasSize(1);
    check(Tables.file(path, latin), 3);
    assertThat(read(Tables.file(path, latin)).get(0)).isEqualTo("row 1|1|Wéndle");
  }

  @Test
  void stretchesAreAsLargeAsAskedFor() throws IOException {
    String text = "no,what\n" + "1234567,x\n".repeat(10_000);
    Table table = Tables.file(file("many.csv", text));
    List<Stretch> stretches = RangedTable.of(table).stretches(25_000);
    assertThat(stretches).hasSize(4);
    assertThat(stretches.get(1).from()).isBetween(25_000L, 25_010L);
    assertThat(text.getBytes(StandardCharsets.UTF_8)[(int) stretches.get(1).from() - 1])
        .isEqualTo((byte) '\n');
  }
}
