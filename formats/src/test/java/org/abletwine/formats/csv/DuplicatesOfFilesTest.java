package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeSet;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.audit.DuplicateAudit.DuplicateKey;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Duplicates;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Duplicates in files, of which only the key columns are looked into at first: rows of any form,
 * with equal keys side by side or far apart, against grouping the rows by hand.
 */
class DuplicatesOfFilesTest {
  @TempDir private Path folder;

  private static String cell(Random random, String value) {
    return switch (random.nextInt(7)) {
      case 0 -> "\"" + value + "\"";
      case 1 -> "\"" + value + ", \"\"so\"\"\"";
      case 2 -> "\"" + value + "\nmore\"";
      case 3 -> value + "ö";
      case 4 -> "";
      default -> value;
    };
  }

  private static String plain(String cell) {
    return cell.startsWith("\"")
        ? cell.substring(1, cell.length() - 1).replace("\"\"", "\"")
        : cell;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
  void groupsAreThoseOfGroupingByHand(long seed) throws IOException {
    Random random = new Random(seed);
    int columns = 2 + random.nextInt(4);
    int key = random.nextInt(columns);
    int rows = 6_000;
    boolean near = random.nextBoolean();
    StringBuilder text = new StringBuilder();
    for (int column = 0; column < columns; column++) {
      text.append(column == 0 ? "" : ",").append("c").append(column);
    }
    text.append('\n');
    Map<String, List<Integer>> expected = new LinkedHashMap<>();
    List<String[]> cells = new ArrayList<>();
    for (int row = 1; row <= rows; row++) {
      int number = near ? row - random.nextInt(3) : random.nextInt(rows);
      String[] line = new String[columns];
      for (int column = 0; column < columns; column++) {
        String stray = random.nextInt(6) == 0 ? " " : "";
        String value = column == key ? stray + "k" + number : "v" + random.nextInt(2);
        String written = cell(random, value);
        text.append(column == 0 ? "" : ",").append(written);
        line[column] = plain(written);
      }
      text.append(random.nextInt(5) == 0 ? "\r\n" : "\n");
      cells.add(line);
      if (!line[key].isBlank()) {
        expected.computeIfAbsent(line[key].strip(), k -> new ArrayList<>()).add(row);
      }
    }
    Table table = Tables.file(Files.writeString(folder.resolve("in.csv"), text));

    DuplicateAudit audit = DuplicateAudit.of(table, new int[] {key}, List.of(Normalise.trim()));
    DuplicateAudit.Report report = audit.report(rows);

    expected.values().removeIf(group -> group.size() < 2);
    assertThat(report.rows()).isEqualTo(rows);
    Map<String, DuplicateKey> found = new LinkedHashMap<>();
    report.examples().forEach(one -> found.put(one.key().strip(), one));
    assertThat(found).hasSize(expected.size());
    TreeSet<Integer> leftOut = new TreeSet<>();
    expected.forEach(
        (value, group) -> {
          DuplicateKey one = found.get(value);
          assertThat(one).as(value).isNotNull();
          assertThat(one.rows()).isEqualTo(group);
          int conflicting = 0;
          for (int column = 0; column < columns; column++) {
            int at = column;
            conflicting +=
                group.stream().map(r -> cells.get(r - 1)[at]).distinct().count() > 1 ? 1 : 0;
          }
          assertThat(one.conflicts()).as(value).hasSize(conflicting);
          leftOut.addAll(group.subList(0, group.size() - 1));
        });
    long differently =
        expected.values().stream()
            .filter(group -> group.stream().map(r -> cells.get(r - 1)[key]).distinct().count() > 1)
            .count();
    assertThat(report.collisions()).as("written differently").isEqualTo(differently);
    assertThat(audit.leftOutBy(Duplicates.last()).stream()).containsExactlyElementsOf(leftOut);
  }

  /** More columns before the key than a byte counts. */
  @Test
  void theKeyMayStandFarBehind() throws IOException {
    StringBuilder text = new StringBuilder();
    for (int row = 0; row < 4; row++) {
      for (int column = 0; column < 300; column++) {
        String value = row == 0 ? "c" + column : column == 200 ? "k" : column + "." + row;
        text.append(column == 0 ? "" : ",").append(value);
      }
      text.append('\n');
    }
    Table table = Tables.file(Files.writeString(folder.resolve("in.csv"), text));
    DuplicateAudit.Report report = DuplicateAudit.of(table, new int[] {200}, List.of()).report(5);
    assertThat(report.examples()).hasSize(1);
    assertThat(report.examples().get(0).key()).isEqualTo("k");
    assertThat(report.examples().get(0).conflicts()).hasSize(299);
    assertThat(report.examples().get(0).conflicts().get(250).values())
        .containsExactly("251.1", "251.2", "251.3");
  }

  @Test
  void aRowThatIsTooShortIsToldWhereverTheKeyIs() throws IOException {
    for (int key = 0; key < 3; key++) {
      Path file =
          Files.writeString(folder.resolve("in.csv"), "a,b,c\n" + "1,2,3\n".repeat(3000) + "1,2\n");
      int[] columns = {key};
      org.assertj.core.api.Assertions.assertThatThrownBy(
              () -> DuplicateAudit.of(Tables.file(file), columns, List.of()))
          .isInstanceOf(DataException.class)
          .hasMessageContaining("line 3002: 2 cells where the header has 3");
    }
  }

  @Test
  void nullWordsOfCellsNotLookedIntoAreNullToo() throws IOException {
    Path file = Files.writeString(folder.resolve("in.csv"), "k,v\nA,-\nA,x\nB,1\n");
    Table table =
        Tables.file(
            file, new org.abletwine.table.TableOptions(',', '"', true, null, List.of("-"), false));
    DuplicateAudit.Report report = DuplicateAudit.of(table, new int[] {0}, List.of()).report(5);
    assertThat(report.examples().get(0).conflicts())
        .extracting(conflict -> conflict.values().toString())
        .containsExactly("[null, x]");
  }
}
