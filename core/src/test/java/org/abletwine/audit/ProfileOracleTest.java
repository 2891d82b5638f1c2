package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import org.abletwine.MemoryTable;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Profiles of random columns against counting with sets of strings. */
class ProfileOracleTest {
  private static final String[] WORDS = {
    "\uD83C\uDF3E\uD83C\uDF3E\uD83C\uDF3Ewheat\uD83C\uDF3E\uD83C\uDF3E",
    "a",
    "A",
    " a",
    "a ",
    "b",
    "\u00A0b",
    "07",
    "7",
    "007",
    "Ab",
    "aB",
    "cc"
  };

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void aColumnIsCountedAsBySets(long seed) {
    Random random = new Random(seed);
    List<@Nullable String> cells = new ArrayList<>();
    for (int row = 0; row < 200; row++) {
      String word = WORDS[random.nextInt(1 + random.nextInt(WORDS.length))];
      cells.add(random.nextInt(9) == 0 ? null : word);
    }
    TableProfile.Column column = profile(cells);
    List<String> known = cells.stream().filter(c -> c != null).map(String::valueOf).toList();
    Set<String> distinct = new LinkedHashSet<>(known);
    assertThat(column.nulls()).isEqualTo(cells.size() - known.size());
    assertThat(column.distinct()).isEqualTo(distinct.size());
    assertThat(column.exact()).isTrue();
    assertThat(column.examples())
        .containsExactlyElementsOf(distinct.stream().limit(column.examples().size()).toList());
    assertThat(column.shortest())
        .isEqualTo(known.stream().mapToInt(ProfileOracleTest::points).min().orElse(0));
    assertThat(column.longest())
        .isEqualTo(known.stream().mapToInt(ProfileOracleTest::points).max().orElse(0));
    assertThat(column.straySpaces())
        .isEqualTo(known.stream().filter(w -> !w.equals(w.replaceAll("[ \u00A0]", ""))).count());
    Set<String> folded = new HashSet<>();
    Set<String> bare = new HashSet<>();
    distinct.forEach(w -> folded.add(w.toLowerCase(Locale.ROOT)));
    distinct.forEach(w -> bare.add(w.replaceFirst("^0+(?=.)", "")));
    assertThat(column.caseForms()).isEqualTo(distinct.size() - folded.size());
    assertThat(column.zeroForms()).isEqualTo(distinct.size() - bare.size());
    assertThat(column.unique()).isFalse();
  }

  private static int points(String text) {
    return text.codePointCount(0, text.length());
  }

  private static TableProfile.Column profile(List<@Nullable String> cells) {
    List<@Nullable String[]> rows = new ArrayList<>();
    cells.forEach(cell -> rows.add(new @Nullable String[] {cell}));
    return TableProfile.of(new MemoryTable("t", List.of("c"), rows, 7)).columns().get(0);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "1|2|-3; whole number",
        "1|2|x; text",
        "00012|00013; code",
        "10|0; whole number",
        "1|2.5; decimal",
        "0.5|-0.25; decimal",
        "1.2.3; text",
        "2026-01-01|2026-12-31; date",
        "2026-01-01|01.02.2026; text",
        "A1|B2; text"
      })
  void aTypeIsWhatAllValuesAre(String values, String type) {
    assertThat(profile(List.of(values.split("\\|"))).type()).isEqualTo(type);
  }

  @Test
  void aColumnOfNothingIsEmptyAndNoKey() {
    List<@Nullable String> none = new ArrayList<>();
    none.add(null);
    none.add(null);
    TableProfile.Column column = profile(none);
    assertThat(column.type()).isEqualTo("empty");
    assertThat(column.unique()).isFalse();
    assertThat(column.shortest()).isZero();
  }

  @ParameterizedTest
  @ValueSource(longs = {11, 12, 13, 14})
  void keysAndPairsAreThoseWithoutARepeat(long seed) {
    Random random = new Random(seed);
    int columns = 4;
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < 60; row++) {
      @Nullable String[] line = new String[columns];
      line[0] = "k" + row;
      for (int column = 1; column < columns; column++) {
        line[column] = "w" + random.nextInt(8 + 20 * column);
      }
      rows.add(line);
    }
    boolean keyed = random.nextBoolean();
    if (!keyed) {
      rows.get(5)[0] = "k1";
    }
    MemoryTable table = new MemoryTable("t", List.of("a", "b", "c", "d"), rows, 9);
    TableProfile profile = TableProfile.of(table);
    assertThat(profile.columns().get(0).unique()).isEqualTo(keyed);
    for (List<String> pair : profile.pairs()) {
      int one = table.schema().indexOf(pair.get(0));
      int other = table.schema().indexOf(pair.get(1));
      Set<String> seen = new HashSet<>();
      rows.forEach(row -> assertThat(seen.add(row[one] + "|" + row[other])).isTrue());
    }
    int possible = 0;
    for (int a = 0; a < columns; a++) {
      for (int b = a + 1; b < columns; b++) {
        Set<String> seen = new HashSet<>();
        for (@Nullable String[] row : rows) {
          seen.add(row[a] + "|" + row[b]);
        }
        boolean single = profile.columns().get(a).unique() || profile.columns().get(b).unique();
        possible += seen.size() == rows.size() && !single ? 1 : 0;
      }
    }
    assertThat(profile.pairs()).hasSize(possible);
  }
}
