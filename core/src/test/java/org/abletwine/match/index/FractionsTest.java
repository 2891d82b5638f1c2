package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.MatchRule;
import org.abletwine.match.MatchRule.Ends;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.table.DataException;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Times below a second, and bands that nothing fits. */
class FractionsTest {
  private static final String DAY = "2026-07-01T10:00:";

  private static @Nullable String found(MatchRule rule, String ours, List<String> theirs) {
    List<@Nullable String[]> rows = new ArrayList<>();
    theirs.forEach(time -> rows.add(new String[] {time}));
    Lookup lookup =
        Lookup.in(new MemoryTable("theirs", List.of("at"), rows, 4))
            .key(new KeyPart("at", "at", null, null, rule))
            .bring("at as got");
    ListSink sink = new ListSink();
    Enrichment.of(MemoryTable.of("ours", "at", ours)).lookup(lookup).build().writeTo(sink);
    return sink.cell(0, "got");
  }

  @ParameterizedTest
  @CsvSource({
    "AT_OR_BELOW, 00.3, 00.5, ",
    "AT_OR_BELOW, 00.5, 00.5, 00.5",
    "AT_OR_BELOW, 00.7, '00.5 00.8', 00.5",
    "AT_OR_BELOW, 00.6999, '00.7 00.5', 00.5",
    "AT_OR_BELOW, 00.123456789, '00.123456788 00.123456790', 00.123456788",
    "AT_OR_ABOVE, 00.3, '00.2 00.31', 00.31",
    "AT_OR_ABOVE, 00.3, 00.2, ",
    "NEAREST, 00.3, '00.1 00.4', 00.4",
    "NEAREST, 00.7, '00 01', 01",
    "NEAREST, 00.2, '00 01', 00",
    "NEAREST, 00.5, '00 01', ",
    "NEAREST, 00.50000001, '00 01', 01",
    "NEAREST, 00.123456786, '00.123456785 00.123456789', 00.123456785"
  })
  void fractionsOfASecondAreToldApart(
      Kind kind, String ours, String theirs, @Nullable String expected) {
    List<String> all = List.of(theirs.split(" ")).stream().map(second -> DAY + second).toList();
    assertThat(found(MatchRule.of(kind), DAY + ours, all))
        .isEqualTo(expected == null ? null : DAY + expected);
  }

  @Test
  void withinCountsFractionsToo() {
    MatchRule rule =
        new MatchRule(Kind.NEAREST, new BigDecimal("0.00001"), Ends.LOWER, false, 0.9); // 0.864 s
    assertThat(found(rule, DAY + "00.864", List.of(DAY + "00"))).isEqualTo(DAY + "00");
    assertThat(found(rule, DAY + "00.8641", List.of(DAY + "00"))).isNull();
  }

  @Test
  void timesTooFineAndTooFarApartAreOrderedAllTheSame() {
    String early = "1600-01-01T00:00:00.000000001";
    String late = "2026-01-01T00:00:00.000000002";
    List<String> both = List.of(early, late);
    MatchRule below = MatchRule.of(Kind.AT_OR_BELOW);
    assertThat(found(below, "2026-01-01T00:00:00.000000001", both)).isEqualTo(early);
    assertThat(found(below, "2026-01-01T00:00:00.000000002", both)).isEqualTo(late);
    assertThatThrownBy(() -> found(MatchRule.of(Kind.NEAREST), late, both))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("decimal places of a second");
  }

  @Test
  void aMissIsToldInUnitsThatShowIt() {
    Times times = new Times(true, List.of(), 3, 0);
    byte[] one = Utf8.bytes(DAY + "00.250");
    byte[] other = Utf8.bytes(DAY + "01");
    long a = times.coordinate(one, 0, one.length);
    long b = times.coordinate(other, 0, other.length);
    assertThat(times.distance(a, b)).isEqualTo("0.75 seconds");
    assertThat(times.show(a)).isEqualTo(DAY + "00.250");
    assertThat(times.distance(b, b + 2_000L * 86_400)).isEqualTo("1 day");
  }

  /** Bands whose ends are equal, none of which belongs to it: nothing fits them, nor any other. */
  @ParameterizedTest
  @CsvSource({"1", "4", "40"})
  void bandsThatNothingFitsTakeNoOthersValues(int others) {
    List<@Nullable String[]> rows = new ArrayList<>();
    rows.add(new String[] {"0", "0", "nothing"});
    for (int band = 1; band <= others; band++) {
      rows.add(new String[] {"" + 10 * band, "" + (10 * band + 5), "band " + band});
      rows.add(new String[] {"" + (10 * band + 7), "" + (10 * band + 7), "nothing"});
    }
    for (Ends ends : Ends.values()) {
      MatchRule rule = new MatchRule(Kind.BETWEEN, null, ends, false, 0.9);
      Lookup lookup =
          Lookup.in(new MemoryTable("bands", List.of("lo", "hi", "name"), rows, 5))
              .key(new KeyPart("n", "lo", "hi", null, rule))
              .bring("name");
      List<@Nullable String[]> ours = new ArrayList<>();
      for (int n = -2; n < 10 * others + 12; n++) {
        ours.add(new String[] {"" + n});
      }
      ListSink sink = new ListSink();
      Enrichment.of(new MemoryTable("ours", List.of("n"), ours, 9))
          .lookup(lookup)
          .build()
          .writeTo(sink);
      for (int row = 0; row < ours.size(); row++) {
        int n = row - 2;
        int rest = Math.floorMod(n, 10);
        boolean lower = ends == Ends.LOWER || ends == Ends.BOTH;
        boolean upper = ends == Ends.UPPER || ends == Ends.BOTH;
        boolean inBand =
            n >= 10
                && n < 10 * others + 10
                && rest < 6
                && (rest > 0 || lower)
                && (rest < 5 || upper);
        boolean equalEnds =
            ends == Ends.BOTH && (n == 0 || rest == 7 && n > 10 && n <= 10 * others + 7);
        assertThat(sink.cell(row, "name"))
            .as(ends + " of " + n)
            .isEqualTo(inBand ? "band " + n / 10 : equalEnds ? "nothing" : null);
      }
    }
  }
}
