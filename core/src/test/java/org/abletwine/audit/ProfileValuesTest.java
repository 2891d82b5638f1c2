package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.MemoryTable;
import org.abletwine.audit.TableProfile.Column.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a profile says of a column's values: least, greatest, frequent, like null, near a key. */
class ProfileValuesTest {
  private static TableProfile profile(String header, String... rows) {
    return TableProfile.of(MemoryTable.of("t", header, rows));
  }

  @ParameterizedTest
  @CsvSource({
    "9;10;-2.5;10.0, -2.5, 10",
    "9;10;x, 10, x",
    "2026-07-09;2025-12-31, 2025-12-31, 2026-07-09",
    "b;B;a, B, b"
  })
  void leastAndGreatestAreByNumberOrByCodePoint(String values, String least, String greatest) {
    TableProfile.Column column = profile("c", values.split(";")).columns().get(0);
    assertThat(column.least()).isEqualTo(least);
    assertThat(column.greatest()).isEqualTo(greatest);
  }

  @Test
  void theMostFrequentStandFirstAndOnceIsNotFrequent() {
    TableProfile.Column column = profile("c", "b", "a", "b", "c", "a", "b", "d").columns().get(0);
    assertThat(column.frequent()).containsExactly(new Value("b", 3), new Value("a", 2));
  }

  @ParameterizedTest
  @ValueSource(ints = {FrequentValues.MOST, FrequentValues.MOST + 1})
  void ofVeryManyDifferentValuesNoneIsFrequent(int different) {
    String[] rows =
        IntStream.range(0, different + 2).mapToObj(i -> "v" + i % different).toArray(String[]::new);
    List<Value> frequent = profile("c", rows).columns().get(0).frequent();
    assertThat(frequent).hasSize(different > FrequentValues.MOST ? 0 : 2);
  }

  @Test
  void wordsThatLookLikeNullAreCountedAndDoNotSpoilAType() {
    TableProfile.Column column =
        profile("c", "1", "n/a", "N/A ", "2", "-", "Unknown", "unknowns", "3").columns().get(0);
    assertThat(column.nullWords())
        .containsExactly(new Value("n/a", 2), new Value("-", 1), new Value("Unknown", 1));
    TableProfile.Column date = profile("c", "2026-07-01", "n/a", "n/a").columns().get(0);
    assertThat(date.spoiled()).isEqualTo(new TableProfile.Column.Spoiled("date", 2, "n/a", 2));
    assertThat(profile("c", "n/a", "-").columns().get(0).spoiled()).isNull();
  }

  @Test
  void whatIsNearestToAKeyIsToldWhereNothingIsOne() {
    assertThat(profile("a,b", "1,x", "2,x", "2,y", "2,y", ",y").nearest())
        .isEqualTo(new TableProfile.Nearest(List.of("a"), 3));
    assertThat(profile("a,b,c", "1,x,1", "1,y,1", "2,x,1", "2,y,1", "2,y,1").nearest())
        .isEqualTo(new TableProfile.Nearest(List.of("a", "b"), 1));
    assertThat(profile("a,b", "1,x", "2,x").nearest()).isNull();
    assertThat(profile("a,b", "1,x", "1,y", "2,x").nearest()).as("a pair is a key").isNull();
  }
}
