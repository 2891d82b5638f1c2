package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import org.abletwine.MemoryTable;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** A profile is the same by however many workers, whichever of them saw which rows. */
class SharedProfileTest {
  private static final String[] EQUAL = {"1", "1.0", "1.00", "+1", "01", "3.50", "3.5", "2", " 2"};
  private static final String[] WORDS = {
    "n/a", "N/A", "oats", "Oats", " oats", "Unknown", "unknown", "-", "w\u00FCrze", ""
  };
  private static final String[] DAYS = {"20.07.2026", "1.8.2026", "03.04.2026", "31.12.2026"};

  private static MemoryTable table(
      int rows, int batchRows, List<IntFunction<@Nullable String>> by) {
    List<@Nullable String[]> all = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      @Nullable String[] cells = new @Nullable String[by.size()];
      for (int column = 0; column < cells.length; column++) {
        cells[column] = by.get(column).apply(row);
      }
      all.add(cells);
    }
    List<String> names = new ArrayList<>();
    by.forEach(column -> names.add("c" + names.size()));
    return new MemoryTable("tickets.csv", names, all, batchRows);
  }

  /** Columns of every sort, in which what stands first and what is equal matters. */
  private static List<IntFunction<@Nullable String>> columns(Random random, int rows) {
    int odd = random.nextInt(rows);
    Set<Integer> late = Set.of(odd, (odd + rows / 3) % rows, (odd + rows / 2) % rows);
    return List.of(
        row -> EQUAL[random.nextInt(EQUAL.length)],
        row -> random.nextInt(7) == 0 ? null : WORDS[random.nextInt(WORDS.length)],
        row -> DAYS[random.nextInt(DAYS.length)],
        row -> late.contains(row) ? "late" + row : "2026-07-" + (10 + random.nextInt(20)),
        row -> row == odd ? "x1" : Integer.toString(random.nextInt(50)),
        row -> "T" + row,
        row -> "T" + (row == odd ? 0 : row),
        row -> Integer.toString(random.nextInt(4 * rows)),
        row -> "1." + random.nextInt(1000) + (random.nextInt(3) == 0 ? ",5" : ""),
        row -> null);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void smallTablesInAnyPieces(long seed) {
    Random random = new Random(seed);
    int rows = 40 + random.nextInt(400);
    List<IntFunction<@Nullable String>> columns = columns(random, rows);
    MemoryTable whole = table(rows, rows, columns);
    TableProfile expected = TableProfile.of(whole, 1);
    for (int batchRows : new int[] {1, 3, 17}) {
      List<IntFunction<@Nullable String>> same = new ArrayList<>();
      for (int column = 0; column < columns.size(); column++) {
        int number = column;
        same.add(row -> whole.cell(row, number));
      }
      MemoryTable cut = table(rows, batchRows, same);
      for (int workers = 1; workers <= 5; workers++) {
        assertThat(TableProfile.of(cut, workers)).as("%d workers", workers).isEqualTo(expected);
      }
    }
  }

  @ParameterizedTest
  @CsvSource({"20000", "20001"})
  void manyValuesAreCountedToTheSameLimits(int different) {
    int rows = different + 3000;
    MemoryTable table =
        table(
            rows,
            1000,
            List.of(
                row -> "K" + row % different,
                row -> "" + row,
                row -> row % 2 == 0 ? " n/a" : "K" + row));
    TableProfile expected = TableProfile.of(table, 1);
    TableProfile.Column words = expected.columns().get(2);
    assertThat(words.straySpaces()).isEqualTo((rows + 1) / 2);
    assertThat(words.nullWords())
        .containsExactly(new TableProfile.Column.Value("n/a", (rows + 1) / 2));
    assertThat(expected.columns().get(0).frequent().isEmpty()).isEqualTo(different > 20_000);
    assertThat(expected.columns().get(1).unique()).isTrue();
    assertThat(TableProfile.of(table, 3)).isEqualTo(expected);
  }

  @Test
  void ofVeryManyValuesAllEstimateTheSame() {
    MemoryTable table = table(263_000, 4000, List.of(row -> "K" + row % 262_145));
    TableProfile expected = TableProfile.of(table, 1);
    assertThat(expected.columns().get(0).exact()).isFalse();
    assertThat(TableProfile.of(table, 2)).isEqualTo(expected);
  }

  @Test
  void aValueThatTwoWorkersSawOnceEachIsNotUnique() {
    for (int round = 0; round < 5; round++) {
      MemoryTable table = table(2000, 1, List.of(row -> "T" + row % 1000));
      TableProfile.Column column = TableProfile.of(table, 4).columns().get(0);
      assertThat(column.unique()).isFalse();
      assertThat(column.distinct()).isEqualTo(1000);
      assertThat(column.examples()).containsExactly("T0", "T1", "T2");
      assertThat(column.frequent()).extracting(TableProfile.Column.Value::rows).containsOnly(2L);
    }
  }

  @ParameterizedTest
  @CsvSource({"0, 32", "32, 32", "33, 64", "20000, 32768", "200000, 262144"})
  void aCounterIsExactUpToItsLimitRoundedUp(int limit, int most) {
    HashCounter counter = new HashCounter(limit);
    for (int i = 1; i <= most; i++) {
      assertThat(counter.add(HashCounter.mixed(i))).isTrue();
    }
    assertThat(counter.exact()).isTrue();
    assertThat(counter.count()).isEqualTo(most);
    counter.add(HashCounter.mixed(0));
    assertThat(counter.exact()).isFalse();
  }

  @ParameterizedTest
  @ValueSource(ints = {10, 100, 1000, 5000})
  void countersBroughtTogetherCountAsOneWould(int most) {
    Random random = new Random(most);
    for (int round = 0; round < 200; round++) {
      int limit = random.nextInt(most);
      HashCounter one = new HashCounter(limit);
      HashCounter left = new HashCounter(limit);
      HashCounter right = new HashCounter(limit);
      Set<Long> inLeft = new TreeSet<>();
      Set<Long> inRight = new TreeSet<>();
      for (int i = random.nextInt(most); i >= 0; i--) {
        long hash = HashCounter.mixed(random.nextInt(2 * most));
        boolean toLeft = random.nextBoolean();
        one.add(hash);
        (toLeft ? left : right).add(hash);
        (toLeft ? inLeft : inRight).add(hash);
      }
      boolean exact = left.exact() && right.exact();
      boolean apart = left.merge(right);
      assertThat(left.exact()).isEqualTo(one.exact());
      assertThat(left.count()).isEqualTo(one.count());
      inLeft.retainAll(inRight);
      if (exact && left.exact()) {
        assertThat(apart).isEqualTo(inLeft.isEmpty());
      }
    }
  }
}
