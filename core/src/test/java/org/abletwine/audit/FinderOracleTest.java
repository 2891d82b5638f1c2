package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.TreeMap;
import org.abletwine.MemoryTable;
import org.abletwine.audit.RecordFinder.Found;
import org.abletwine.key.Normalise;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Finding records by some columns, against looking at each row. */
class FinderOracleTest {
  private static final List<String> NAMES = List.of("a", "b", "c");

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void findsWhatLookingAtEachRowFinds(long seed) {
    Random random = new Random(seed);
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < 120; row++) {
      @Nullable String[] line = new String[3];
      for (int column = 0; column < 3; column++) {
        String word = (random.nextInt(5) == 0 ? " " : "") + "v" + random.nextInt(6);
        line[column] = random.nextInt(10) == 0 ? null : word;
      }
      rows.add(line);
    }
    RecordFinder finder =
        new RecordFinder(new MemoryTable("t", NAMES, rows, 11), List.of(Normalise.trim()));
    for (int i = 0; i < 40; i++) {
      Map<String, String> given = new LinkedHashMap<>();
      List<String> open = new ArrayList<>();
      for (String name : NAMES) {
        switch (random.nextInt(3)) {
          case 0 -> given.put(name, "v" + random.nextInt(7));
          case 1 -> open.add(name);
          default -> {}
        }
      }
      compare(rows, given, open, finder.find(given, open, 1_000));
    }
  }

  private static boolean fits(@Nullable String[] row, String column, String value) {
    String cell = row[NAMES.indexOf(column)];
    return cell != null && cell.strip().equals(value);
  }

  private static void compare(
      List<@Nullable String[]> rows, Map<String, String> given, List<String> open, Found found) {
    List<Long> numbers = new ArrayList<>();
    List<Map<@Nullable String, Long>> choices = new ArrayList<>();
    open.forEach(name -> choices.add(new LinkedHashMap<>()));
    for (int row = 0; row < rows.size(); row++) {
      @Nullable String[] line = rows.get(row);
      if (given.entrySet().stream().allMatch(e -> fits(line, e.getKey(), e.getValue()))) {
        numbers.add(row + 1L);
        for (int i = 0; i < open.size(); i++) {
          choices.get(i).merge(line[NAMES.indexOf(open.get(i))], 1L, Long::sum);
        }
      }
    }
    assertThat(found.rows()).isEqualTo(numbers.size());
    assertThat(found.records().keySet()).containsExactlyElementsOf(numbers);
    for (int i = 0; i < open.size(); i++) {
      Map<@Nullable String, Long> counted = new LinkedHashMap<>();
      long before = Long.MAX_VALUE;
      for (RecordFinder.Choice choice : found.choices().get(open.get(i))) {
        counted.put(choice.value(), choice.rows());
        assertThat(choice.rows()).as("most frequent first").isLessThanOrEqualTo(before);
        before = choice.rows();
      }
      assertThat(counted).isEqualTo(choices.get(i));
    }
    Map<String, Boolean> missing = new TreeMap<>();
    given.forEach(
        (name, value) -> {
          if (rows.stream().noneMatch(row -> fits(row, name, value))) {
            missing.put(name, true);
          }
        });
    assertThat(found.nearMisses().keySet()).isEqualTo(missing.keySet());
    assertThat(found.apart()).isEqualTo(numbers.isEmpty() && missing.isEmpty());
    found.records().forEach((number, cells) -> alike(rows.get((int) (number - 1)), cells));
  }

  private static void alike(@Nullable String[] row, List<@Nullable String> cells) {
    for (int column = 0; column < row.length; column++) {
      assertThat(Objects.equals(row[column], cells.get(column))).isTrue();
    }
  }
}
