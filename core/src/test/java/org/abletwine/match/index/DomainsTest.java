package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import org.abletwine.match.MatchRule;
import org.abletwine.match.MatchRule.Ends;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the values of an ordered rule are taken for. */
class DomainsTest {
  private static RuleRows rows(String values) {
    RuleRows rows = new RuleRows(1);
    String[] all = values.split(" ");
    for (int row = 0; row < all.length; row++) {
      String value = all[row].equals("null") ? null : all[row];
      rows.add(new CellVector[] {OneRow.of(value).column(0)}, 0, 0, row, row);
    }
    return rows;
  }

  private static Domain of(String values, Kind kind, @Nullable ColumnType type) {
    return Domains.of(rows(values), MatchRule.of(kind), type, "rates.csv, \"from\"", r -> r + 2);
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      value = {
        "1 2 | a number",
        "1 null 2.5 | a number",
        "1e3 2 | a number",
        "null null | text",
        "a b | text",
        "a 1 | text",
        "a 1 2 | ! \"a\" is not a number",
        "2 x | text",
        "2026-07-01 | a date",
        "2026-07-01 2026-07-01T10:00 | a date and time",
        "2026-07-01 x | text",
        "2026-07-01 2026-07-02 x | ! \"x\" is not a date",
        "2026-07-01 2026-07-02T10:00 x | ! \"x\" is not a date and time",
        "1 2026-07-01 | text",
        "12345678901234567 | a number",
        "123456789012345678901234567890 1 | a number",
        "1234567890123456 0.25 | a number"
      })
  void whatMostValuesAreDecides(String values, String expected) {
    if (expected.startsWith("!")) {
      assertThatThrownBy(() -> of(values, Kind.AT_OR_BELOW, null))
          .isInstanceOf(DataException.class)
          .hasMessageContaining("rates.csv, \"from\", row ")
          .hasMessageContaining(expected.substring(2));
    } else {
      assertThat(of(values, Kind.AT_OR_BELOW, null).noun()).isEqualTo(expected);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " | ",
      value = {
        "TEXT | 1 2 | text",
        "NUMBER | 1 2 | a number",
        "NUMBER | null | a number",
        "NUMBER | 1 x | ! row 3: \"x\" is not a number",
        "INTEGER | 1 2.0 1e3 null | a number",
        "INTEGER | 1 2.5 | ! row 3: \"2.5\" is not a whole number",
        "INTEGER | x | ! row 2: \"x\" is not a whole number",
        "DATE | 2026-07-01 null | a date",
        "DATE | 2026-07-01 2026-02-30 | ! row 3: \"2026-02-30\" is not a date",
        "DATE_TIME | 2026-07-01 | a date and time"
      })
  void aDeclaredTypeWins(ColumnType.Kind kind, String values, String expected) {
    if (expected.startsWith("!")) {
      assertThatThrownBy(() -> of(values, Kind.AT_OR_ABOVE, ColumnType.of(kind)))
          .isInstanceOf(DataException.class)
          .hasMessageContaining(expected.substring(2));
    } else {
      assertThat(of(values, Kind.AT_OR_ABOVE, ColumnType.of(kind)).noun()).isEqualTo(expected);
    }
  }

  /** As fine as the finest; beyond what a long holds in the order of the values themselves. */
  @Test
  void numbersAreTakenAsRanksOnlyWhereALongIsTooShort() {
    assertThat(of("12345678901234567 1", Kind.AT_OR_BELOW, null)).isInstanceOf(Numbers.class);
    assertThat(of("1234567890123456.5", Kind.AT_OR_BELOW, null)).isInstanceOf(Ranks.class);
    assertThat(of("123456789012345.5", Kind.AT_OR_BELOW, null)).isInstanceOf(Numbers.class);
    assertThat(of("123456789012345678", Kind.AT_OR_BELOW, null)).isInstanceOf(Ranks.class);
    assertThat(of("0e25 5.00000000000000000000", Kind.NEAREST, null)).isInstanceOf(Numbers.class);
    Domain wide = of("1e30 5.5 1.00e30", Kind.AT_OR_BELOW, null);
    assertThat(wide).isInstanceOf(Ranks.class);
    assertThat(wide.coordinate(Utf8.bytes("1E+30"), 0, 5)).isEqualTo(2);
    assertThat(wide.coordinate(Utf8.bytes("5.50"), 0, 4)).isZero();
    assertThat(wide.coordinate(Utf8.bytes("6"), 0, 1)).isEqualTo(1);
    assertThat(wide.coordinate(Utf8.bytes("x"), 0, 1)).isEqualTo(Domain.UNFIT);
    assertThatThrownBy(() -> of("1e30 5.5", Kind.NEAREST, null))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("nearest takes numbers of up to 17 digits");
    assertThatThrownBy(() -> of("a b", Kind.NEAREST, null))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("nearest needs numbers or dates");
  }

  /** Half way between two numbers has one place more, and so have the numbers of within. */
  @Test
  void nearestTellsHalfWayApart() {
    Domain halves = of("1 2", Kind.NEAREST, null);
    assertThat(halves.coordinate(Utf8.bytes("1.5"), 0, 3)).isEqualTo(30);
    MatchRule within = new MatchRule(Kind.NEAREST, new BigDecimal("0.25"), Ends.LOWER, false, 0.9);
    Domain quarters = Domains.of(rows("1 2"), within, null, "rates.csv", r -> r);
    assertThat(quarters.coordinate(Utf8.bytes("1"), 0, 1)).isEqualTo(2_000);
    MatchRule tens = new MatchRule(Kind.NEAREST, new BigDecimal("1e1"), Ends.LOWER, false, 0.9);
    assertThat(Domains.of(rows("1"), tens, null, "", r -> r).coordinate(new byte[] {'1'}, 0, 1))
        .isEqualTo(20);
  }

  @Test
  void textsAreInOrderOfTheirCodePoints() {
    Domain texts = of("b \uD83C\uDF3E \uFFFD b", Kind.AT_OR_BELOW, null);
    List<String> ours = List.of("a", "b", "c", "\uFFFD", "\uD83C\uDF3E", "\uD83C\uDF3Ea");
    List<Long> at =
        ours.stream().map(o -> texts.coordinate(Utf8.bytes(o), 0, Utf8.bytes(o).length)).toList();
    assertThat(at).containsExactly(-1L, 0L, 1L, 2L, 4L, 5L);
    assertThat(texts.show(4)).isEqualTo("\uD83C\uDF3E");
    assertThat(texts.show(-1)).isEqualTo("b");
    assertThat(texts.show(5)).isEqualTo("\uD83C\uDF3E");
    assertThat(texts.distance(0, 4)).isEmpty();
  }
}
