package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.match.MatchRule;
import org.abletwine.match.MatchRule.Ends;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Each rule's index alone: the rows that fit a value, in its partition and in no other. */
class RuleIndexTest {

  private static MatchRule oursIsPattern(Kind kind) {
    return new MatchRule(kind, null, Ends.LOWER, true, 0.9);
  }

  /** Row {@code i} has partition {@code i % 2}, place {@code 10 * i} and number {@code 3 * i}. */
  private static RuleRows rows(@Nullable String... values) {
    RuleRows rows = new RuleRows(1);
    for (int i = 0; i < values.length; i++) {
      rows.add(cells(values[i]), 0, i % 2, 10 * i, 3 * i);
    }
    return rows;
  }

  private static RuleRows bands(int partition, String... bands) {
    RuleRows rows = new RuleRows(2);
    for (int i = 0; i < bands.length; i++) {
      String[] ends = bands[i].split("-", 2);
      Batch batch = OneRow.of(ends[0], ends[1]);
      CellVector[] both = {batch.column(0), batch.column(1)};
      rows.add(both, 0, partition, 10 * i, 3 * i);
    }
    return rows;
  }

  private static CellVector[] cells(@Nullable String value) {
    return new CellVector[] {OneRow.of(value).column(0)};
  }

  static CellVector column(@Nullable String... values) {
    CellVector cells = new CellVector();
    cells.clear();
    for (String value : values) {
      cells.append(value);
    }
    return cells;
  }

  private static RuleIndex build(RuleRows rows, MatchRule rule) {
    return RuleIndexes.build(rows, rule, false, null, "the column", row -> row + 1, List.of());
  }

  /** The rows found, counted from 0, in words where there is none. */
  private static String found(RuleIndex index, int partition, @Nullable String value) {
    int[] result = new int[1];
    index.probe(new int[] {partition}, column(value), 1, result);
    return told(result[0], index.sets()::rows);
  }

  private static String told(int target, java.util.function.IntFunction<int[]> sets) {
    return switch (target) {
      case RuleIndex.ABSENT -> "none";
      case RuleIndex.BELOW -> "below";
      case RuleIndex.ABOVE -> "above";
      case RuleIndex.GAP -> "gap";
      case RuleIndex.FAR -> "far";
      case RuleIndex.UNFIT -> "unfit";
      default ->
          target >= 0
              ? "" + target / 10
              : IntStream.of(sets.apply(~target)).mapToObj(n -> "" + n / 3).toList().toString();
    };
  }

  @ParameterizedTest
  @CsvSource({
    "STARTS_WITH, 0, oats wet, '[0, 2]'",
    "STARTS_WITH, 0, oat, 0",
    "STARTS_WITH, 0, boats, none",
    "STARTS_WITH, 1, oats wet, none",
    "STARTS_WITH, 1, barley, 1",
    "CONTAINS, 0, boats, '[0, 2]'",
    "CONTAINS, 0, oat-oat, 0",
    "CONTAINS, 1, barleybarley, 1",
    "CONTAINS, 1, barle, none",
    "WILDCARD, 0, oat, 0",
    "WILDCARD, 0, oats, 2",
    "REGEX, 0, xoats, '[0, 2]'",
    "REGEX, 1, barley, 1"
  })
  void theirsIsThePattern(Kind kind, int partition, String ours, String expected) {
    RuleIndex index = build(rows("oat", "barley", "oats", "wheat"), MatchRule.of(kind));
    assertThat(found(index, partition, ours)).isEqualTo(expected);
    assertThat(found(index, partition, ours)).as("asked again").isEqualTo(expected);
    assertThat(found(index, -1, ours)).isEqualTo("none");
    assertThat(found(index, partition, null)).isEqualTo("none");
    assertThat(found(index, partition, "")).isEqualTo("none");
    assertThat(index.describeMiss(0, "x")).isEmpty();
    assertThat(index.specificity(3)).isEqualTo(6);
    assertThat(index.specificity(4)).as("no such row").isZero();
    assertThat(index).hasToString("PatternIndex[4 patterns]");
  }

  /** What was found for one row must not be left over for the next. */
  @Test
  void rowsOfOneBatchAreFoundEachByItself() {
    RuleIndex index =
        build(rows("*a*", "*", "*b*", "?", "**a"), MatchRule.of(Kind.WILDCARD)); // no literals too
    int[] partitions = {0, 0, 1, -1, 0, 1, 0, 0};
    CellVector ours = column("b", "ab", "x", "ab", null, "xy", "a", "b");
    int[] result = new int[8];
    index.probe(partitions, ours, 8, result);
    assertThat(IntStream.of(result).mapToObj(t -> told(t, index.sets()::rows)))
        .containsExactly("2", "[0, 2]", "[1, 3]", "none", "none", "1", "[0, 4]", "2");
    assertThat(index.sets().count()).isEqualTo(3);
  }

  @Test
  void manyPatternsFitOneText() {
    String[] patterns = new String[100];
    for (int i = 0; i < patterns.length; i++) {
      patterns[i] = "*" + (i / 2 % 2 == 0 ? "a" : "b") + "*".repeat(i % 3);
    }
    RuleIndex index = build(rows(patterns), MatchRule.of(Kind.WILDCARD));
    List<Integer> expected =
        IntStream.range(0, 100).filter(i -> i % 4 == 1 || i % 4 == 3 && i % 3 > 0).boxed().toList();
    assertThat(found(index, 1, "ba")).isEqualTo(expected.toString());
  }

  @Test
  void aPatternThatDoesNotCompileIsNamedWithItsRow() {
    assertThatThrownBy(() -> build(rows("a", "b(", "c"), MatchRule.of(Kind.REGEX)))
        .isInstanceOf(DataException.class)
        .hasMessage(
            "the column, row 4: `b(` is not a regular expression of up to 10000 characters; correct"
                + " it, or match: contains");
    String long200 = "(".repeat(200);
    assertThatThrownBy(() -> build(rows(long200), MatchRule.of(Kind.REGEX)))
        .hasMessageContaining("`" + long200 + "` is");
    assertThatThrownBy(() -> build(rows(long200 + "("), MatchRule.of(Kind.REGEX)))
        .hasMessageContaining("`" + long200 + "...` is");
    String most = "a".repeat(Patterns.MOST_REGEX);
    assertThat(found(build(rows(most), MatchRule.of(Kind.REGEX)), 0, most)).isEqualTo("0");
    assertThatThrownBy(() -> build(rows(most + "a"), MatchRule.of(Kind.REGEX)))
        .hasMessageContaining("of up to 10000 characters");
  }

  @Test
  void patternsBeyondAllMeasureAreRefused() {
    String[] texts = new String[300];
    for (int i = 0; i < texts.length; i++) {
      StringBuilder text = new StringBuilder();
      for (int c = 0; c < 2_000; c++) {
        text.append((char) (0x4e00 + (i * 7 + c) % 3_000));
      }
      texts[i] = text.toString();
    }
    assertThatThrownBy(() -> build(rows(texts), MatchRule.of(Kind.CONTAINS)))
        .isInstanceOf(DataException.class)
        .hasMessage("the column: the patterns are too many and too long for one lookup");
  }

  @ParameterizedTest
  @CsvSource({
    "STARTS_WITH, 0, oa, '[0, 2, 4]'",
    "STARTS_WITH, 0, ats, none",
    "CONTAINS, 0, ats, 2",
    "CONTAINS, 1, a, '[1, 3]'",
    "WILDCARD, 0, oat?, 2",
    "WILDCARD, 1, o*, none",
    "REGEX, 0, ^.a.$, '[0, 4]'",
    "REGEX, 0, (, unfit",
    "REGEX, 5, a, none"
  })
  void oursIsThePattern(Kind kind, int partition, String ours, String expected) throws Exception {
    RuleIndex index = build(rows("oat", "barley", "oats", "wheat", "oat"), oursIsPattern(kind));
    assertThat(found(index, partition, ours)).isEqualTo(expected);
    assertThat(found(index, partition, ours)).as("remembered").isEqualTo(expected);
    assertThat(found(index, -1, ours)).isEqualTo("none");
    assertThat(found(index, partition, null)).isEqualTo("none");
    assertThat(found(index, partition, "")).isEqualTo("none");
    assertThat(index.describeMiss(0, "x")).isEmpty();
    assertThat(index.specificity(3)).isZero();
    assertThat(index.toString()).startsWith("TextSearch[").endsWith(" pattern ours]");

    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    new ObjectOutputStream(bytes).writeObject(index);
    RuleIndex copy =
        (RuleIndex)
            new ObjectInputStream(new ByteArrayInputStream(bytes.toByteArray())).readObject();
    assertThat(found(copy, partition, ours)).as("sent elsewhere").isEqualTo(expected);
  }

  @ParameterizedTest
  @CsvSource({
    "0.9, 0, Tamarisk, 0",
    "0.9, 0, tamarisc, none",
    "0.7, 0, tamarisc, 0",
    "0.9, 1, Tamarisk, none",
    "0.9, 1, Elmwood, '[1, 3]'",
    "0.7, 0, xyz, none"
  })
  void theMostSimilarIsFoundInItsPartition(
      double atLeast, int partition, String ours, String expected) {
    MatchRule rule = new MatchRule(Kind.SIMILAR, null, Ends.LOWER, false, atLeast);
    RuleIndex index = build(rows("Tamarisk", "Elmwood", "Oldfield", "Elmwood"), rule);
    assertThat(found(index, partition, ours)).isEqualTo(expected);
    assertThat(index).hasToString("TextSearch[similar at least " + atLeast + "]");
  }

  @ParameterizedTest
  @CsvSource({
    "0.8, 0, St. OSIER depot, 0",
    "0.8, 0, Osier Depot Saint, 0",
    "0.99, 0, Osier Depot Saint, none",
    "0.8, 0, Tamsin Silo 04, 2",
    "0.8, 0, Tamsin Silo 5, none",
    "0.8, 1, ÉLMWOOD, '[1, 3]'",
    "0.8, 1, Saint Osier Depot, none",
    "0.8, 0, Kestrel, none"
  })
  void theMostSimilarByWordsIsFoundInItsPartition(
      double atLeast, int partition, String ours, String expected) throws Exception {
    MatchRule rule =
        new MatchRule(
            Kind.SIMILAR, null, Ends.LOWER, false, atLeast, MatchRule.By.WORDS, ",", null);
    RuleIndex index = build(rows("Saint Osier Depot", "Elmwood", "Tamsin Silo 4", "Elmwood"), rule);
    assertThat(found(index, partition, ours)).isEqualTo(expected);
    assertThat(index).hasToString("TextSearch[similar by words at least " + atLeast + "]");
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    new ObjectOutputStream(bytes).writeObject(index);
    RuleIndex copy =
        (RuleIndex)
            new ObjectInputStream(new ByteArrayInputStream(bytes.toByteArray())).readObject();
    assertThat(found(copy, partition, ours)).as("sent elsewhere").isEqualTo(expected);
  }

  /** More distinct values than are remembered, and each answer still its own. */
  @Tag("oracle")
  @Test
  void forgettingChangesNoAnswer() {
    RuleIndex index = build(rows("200003", "x", "7"), oursIsPattern(Kind.STARTS_WITH));
    int[] result = new int[1];
    for (int i = 0; i < 200_010; i++) {
      index.probe(new int[] {0}, column("" + i), 1, result);
      boolean fits = i == 2 || i == 20 || i == 200 || i == 2000 || i == 20000 || i == 200003;
      int expected = fits ? 0 : i == 7 ? 20 : RuleIndex.ABSENT;
      if (result[0] != expected) {
        assertThat(result[0]).as("" + i).isEqualTo(expected);
      }
    }
  }

  @ParameterizedTest
  @CsvSource({
    "5, none, '5 below the lowest, 10'",
    "10, 0, ''",
    "25, gap, 'in the gap from 20 to 30'",
    "40, above, '0 above the highest, 40'",
    "41.5, above, '1.5 above the highest, 40'",
    "x, unfit, 'not a number'"
  })
  void aMissOfBandsIsTold(String ours, String expected, String words) {
    RuleIndex index = build(bands(0, "10-20", "30-40"), MatchRule.of(Kind.BETWEEN));
    String target = found(index, 0, ours);
    assertThat(target).isEqualTo(expected.equals("none") ? "below" : expected);
    assertThat(index.describeMiss(0, ours)).isEqualTo(words);
    assertThat(index.describeMiss(7, ours)).isEqualTo(ours.equals("x") ? words : "");
    assertThat(found(index, 7, ours)).isEqualTo(ours.equals("x") ? "unfit" : "none");
    assertThat(found(index, 0, null)).isEqualTo("none");
    assertThat(index.specificity(0)).isZero();
    assertThat(index).hasToString("SegmentIndex[5 segments, 1 partitions]");
  }

  @Test
  void tooFarFromTheNearestIsTold() {
    MatchRule rule = new MatchRule(Kind.NEAREST, new BigDecimal("2.5"), Ends.LOWER, false, 0.9);
    RuleIndex index = build(rows("10", "0", "20"), rule);
    assertThat(found(index, 0, "12.5")).isEqualTo("0");
    assertThat(found(index, 0, "12.6")).isEqualTo("far");
    assertThat(index.describeMiss(0, "12.6")).isEqualTo("more than 2.5 from the nearest");
    assertThat(index.describeMiss(0, "11")).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "AT_OR_BELOW, 12.5, 0, 2.5, ''",
    "AT_OR_BELOW, 12.6, far, 0, '2.6 above 10, farther than within: 2.5'",
    "AT_OR_BELOW, -1, below, 0, '11 below the lowest, 10'",
    "AT_OR_BELOW, 99, far, 0, '79 above 20, farther than within: 2.5'",
    "AT_OR_ABOVE, 7.5, 0, 2.5, ''",
    "AT_OR_ABOVE, 7.25, far, 0, '2.75 below 10, farther than within: 2.5'",
    "AT_OR_ABOVE, -5, far, 0, '15 below 10, farther than within: 2.5'",
    "AT_OR_ABOVE, 21, above, 0, '1 above the highest, 20'",
    "AT_OR_ABOVE, 20, 2, 0, ''"
  })
  void tooFarBelowOrAboveIsAMissOfItsOwn(
      Kind kind, String ours, String expected, String away, String words) {
    MatchRule rule = new MatchRule(kind, new BigDecimal("2.5"), Ends.LOWER, false, 0.9);
    SegmentIndex index = (SegmentIndex) build(rows("10", "0", "20"), rule);
    assertThat(index.measures()).isTrue();
    assertThat(found(index, 0, ours)).isEqualTo(expected);
    assertThat(index.describeMiss(0, ours)).isEqualTo(words);
    long[] apart = new long[1];
    index.probe(new int[] {0}, column(ours), 1, new int[1], apart);
    assertThat(index.distance(apart[0])).isEqualTo(away);
  }

  @Test
  void howFarAwayIsMeasuredOnOneSideOfNumbersAndDaysOnly() {
    MatchRule below = MatchRule.of(Kind.AT_OR_BELOW);
    assertThat(((SegmentIndex) build(rows("2026-07-01"), below)).measures()).isTrue();
    assertThat(((SegmentIndex) build(rows("oats"), below)).measures()).isFalse();
    MatchRule nearest = MatchRule.of(Kind.NEAREST);
    assertThat(((SegmentIndex) build(rows("1"), nearest)).measures()).isFalse();
    MatchRule within = new MatchRule(Kind.AT_OR_BELOW, BigDecimal.ONE, Ends.LOWER, false, 0.9);
    assertThatThrownBy(() -> build(rows("oats", "rye"), within))
        .hasMessageContaining("within: needs numbers or dates, and the column holds text");
    assertThatThrownBy(() -> build(rows("1e30", "5.5"), within))
        .hasMessageContaining("within: takes numbers of up to 17 digits");
  }

  /** A band that each rule before lets through, then a rule of another kind among its rows. */
  @Test
  void rulesLookOneAmongTheRowsOfTheOther() {
    RuleRows first = bands(0, "0-10", "5-15", "20-30");
    RuleRows second = bands(0, "0-100", "50-60", "0-100");
    RuleRows patterns = new RuleRows(1);
    for (String pattern : List.of("a", "b", "ab")) {
      patterns.add(cells(pattern), 0, 0, 10 * patterns.rows(), 3 * patterns.rows());
    }
    MatchRule band = MatchRule.of(Kind.BETWEEN);
    RuleChain chain =
        RuleChain.build(
            List.of(
                new RuleChain.Part(first, band, false, null, List.of(), "n", "first"),
                new RuleChain.Part(second, band, false, null, List.of(), "m", "second"),
                new RuleChain.Part(
                    patterns, MatchRule.of(Kind.CONTAINS), false, null, List.of(), "t", "third")),
            row -> row + 1);
    String[][] asked = {
      {"7", "55", "xaby", "[0, 1]", ""},
      {"7", "5", "xaby", "0", ""},
      {"2", "55", "b", "none", ""},
      {"12", "40", "b", "below", "m 10 below the lowest, 50"},
      {"40", "5", "a", "above", "n 10 above the highest, 30"},
      {"40", "x", "a", "unfit", "m not a number"},
      {"x", "5", "a", "unfit", "n not a number"},
      {"25", "99", "ab", "2", ""}
    };
    for (String[] ask : asked) {
      CellVector[] values = {column(ask[0]), column(ask[1]), column(ask[2])};
      int[] result = new int[1];
      chain.probe(new int[] {0}, values, 1, result, new long[1]);
      String found = told(result[0], chain.sets()::rows);
      assertThat(found).as(String.join(" ", ask)).isEqualTo(ask[3]);
      String[] ours = {ask[0], ask[1], ask[2]};
      assertThat(chain.describeMiss(0, ours, found.equals("unfit"))).isEqualTo(ask[4]);
    }
    assertThat(chain.unfit(new String[] {null, "x", "a"})).isEqualTo(1);
    assertThat(chain.unfit(new String[] {"", "1", "a"})).isEqualTo(2);
    assertThat(chain.specificity(6)).isEqualTo(2);
    assertThat(chain).hasToString("RuleChain[n, m, t]");
  }

  @Test
  void rowsThatNoIndexTakesAreFound() {
    BitSet texts = RuleIndexes.unusable(rows("1", "x", "2"), MatchRule.of(Kind.AT_OR_BELOW), null);
    assertThat(texts.stream()).containsExactly(3);
    RuleRows reversed = bands(0, "1-2", "5-4", "3-3", "-x", "x-");
    assertThat(
            RuleIndexes.unusable(
                reversed, MatchRule.of(Kind.BETWEEN), ColumnType.of(ColumnType.Kind.NUMBER))
                .stream())
        .containsExactly(3, 9, 12);
    RuleRows words = rows("b", "a");
    assertThat(RuleIndexes.unusable(words, MatchRule.of(Kind.NEAREST), null).cardinality())
        .isEqualTo(2);
    assertThat(RuleIndexes.unusable(words, MatchRule.of(Kind.AT_OR_ABOVE), null).isEmpty())
        .isTrue();
    RuleRows patterns = rows("a", "(", "b");
    assertThat(RuleIndexes.unusable(patterns, MatchRule.of(Kind.REGEX), null).stream())
        .containsExactly(3);
    assertThat(RuleIndexes.unusable(patterns, oursIsPattern(Kind.REGEX), null).isEmpty()).isTrue();
    assertThat(RuleIndexes.unusable(patterns, MatchRule.of(Kind.CONTAINS), null).isEmpty())
        .isTrue();
  }

  @ParameterizedTest
  @EnumSource(mode = EnumSource.Mode.EXCLUDE, names = "OWN")
  void aRuleIsToldAsAPlanWritesIt(Kind kind) {
    List<Kind> ordered = List.of(Kind.AT_OR_BELOW, Kind.AT_OR_ABOVE, Kind.NEAREST, Kind.BETWEEN);
    List<Kind> patterns = List.of(Kind.STARTS_WITH, Kind.CONTAINS, Kind.WILDCARD, Kind.REGEX);
    assertThat(kind.ordered()).isEqualTo(ordered.contains(kind));
    assertThat(kind.pattern()).isEqualTo(patterns.contains(kind));
    assertThat(Kind.words()).contains(kind.word()).doesNotContain(kind.name());
    MatchRule full = new MatchRule(kind, new BigDecimal("1E+1"), Ends.BOTH, true, 0.5);
    assertThat(full)
        .hasToString(
            kind.word()
                + " within 10"
                + (kind == Kind.BETWEEN ? " ends both" : "")
                + " pattern ours"
                + (kind == Kind.SIMILAR ? " at least 0.5" : ""));
    assertThat(MatchRule.of(kind).toString())
        .isEqualTo(kind.word() + (kind == Kind.SIMILAR ? " at least 0.9" : ""));
  }

  @Test
  void aRuleOfOnesOwnIsStatedForItsKindAndNoOther() {
    assertThatThrownBy(() -> MatchRule.of(Kind.OWN)).hasMessageContaining("for that kind");
    assertThat(Kind.words()).doesNotContain("own");
    assertThatThrownBy(() -> MatchRule.named("test:nobody-has-it"))
        .hasMessageContaining("no library here has a rule called \"test:nobody-has-it\"")
        .hasMessageContaining("add the one that has it");
  }

  @Test
  void coordinatesOfRanksLieBetweenNeighbours() {
    List<Ranks.CodePoints> words = new ArrayList<>();
    List.of("pear", "apple", "pear", "\uD83C\uDF3E", "\uFF21")
        .forEach(word -> words.add(new Ranks.CodePoints(word)));
    Ranks<Ranks.CodePoints> ranks = new Ranks<>(words, Ranks.CodePoints::new, "text");
    String[] ours = {
      "a", "apple", "b", "pear", "z", "\uFF21", "\uFFFD", "\uD83C\uDF3E", "\uD83C\uDF3F"
    };
    long[] coordinates = new long[ours.length];
    for (int i = 0; i < ours.length; i++) {
      coordinates[i] = ranks.coordinate(Utf8.bytes(ours[i]), 0, Utf8.bytes(ours[i]).length);
    }
    assertThat(coordinates).containsExactly(-1, 0, 1, 2, 3, 4, 5, 6, 7);
    assertThat(ranks.show(-5)).isEqualTo("apple");
    assertThat(ranks.show(2)).isEqualTo("pear");
    assertThat(ranks.show(99)).isEqualTo("\uD83C\uDF3E");
    assertThat(ranks.distance(0, 2)).isEmpty();
    assertThat(ranks.noun()).isEqualTo("text");
    Ranks<Ranks.CodePoints> none = new Ranks<>(List.of(), Ranks.CodePoints::new, "text");
    assertThat(none.show(0)).isEmpty();
  }
}
