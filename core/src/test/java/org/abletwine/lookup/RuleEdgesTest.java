package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.match.MatchRule;
import org.abletwine.match.MatchRule.Ends;
import org.abletwine.match.MatchRule.Kind;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The values at the edges of every rule: equal to an end, below, above, null, ends twice. */
class RuleEdgesTest {
  private static final MemoryTable STEPS =
      MemoryTable.of("steps", "at,name", "10,ten", "20.0,twenty", "30,thirty");
  private static final MemoryTable DAYS =
      MemoryTable.of("days", "at,name", "2026-07-01,july", "2026-08-01,august");
  private static final MemoryTable WORDS =
      MemoryTable.of("words", "at,name", "b,bee", "d,dee", "é,accent");
  private static final MemoryTable BANDS =
      MemoryTable.of(
          "bands", "lo,hi,name", ",10,low", "10,20,middle", "25,30,upper", "30,,open above");

  private static String fetched(MemoryTable theirs, KeyPart part, @Nullable String value) {
    ListSink sink = new ListSink();
    MemoryTable ours =
        new MemoryTable("ours", List.of("v"), List.<@Nullable String[]>of(new String[] {value}), 1);
    Enrichment.of(ours)
        .lookup(Lookup.in(theirs).key(part).bring("name").markAs("outcome"))
        .build()
        .writeTo(sink);
    String name = sink.cell(0, "name");
    return name == null ? String.valueOf(sink.cell(0, "outcome")) : name;
  }

  private static KeyPart ruled(Kind kind, @Nullable String within) {
    MatchRule rule =
        new MatchRule(kind, within == null ? null : new BigDecimal(within), Ends.LOWER, false, 0.9);
    return new KeyPart("v", "at", null, null, rule);
  }

  @ParameterizedTest
  @CsvSource(
      nullValues = "null",
      value = {
        "10, ten, ten",
        "10.0, ten, ten",
        "010, ten, ten",
        "9.999999, unmatched, ten",
        "10.000001, ten, twenty",
        "20, twenty, twenty",
        "29.9, twenty, thirty",
        "30, thirty, thirty",
        "30.0000000001, thirty, unmatched",
        "1e1, ten, ten",
        "-5, unmatched, ten",
        "99999999999999999999, thirty, unmatched",
        "-99999999999999999999, unmatched, ten",
        "null, blank-key, blank-key",
        "heavy, blank-key, blank-key"
      })
  void orderedNumbers(@Nullable String value, String below, String above) {
    assertThat(fetched(STEPS, ruled(Kind.AT_OR_BELOW, null), value)).isEqualTo(below);
    assertThat(fetched(STEPS, ruled(Kind.AT_OR_ABOVE, null), value)).isEqualTo(above);
  }

  @ParameterizedTest
  @CsvSource({
    "2026-07-01, july, july",
    "2026-06-30, unmatched, july",
    "2026-07-31, july, august",
    "2026-08-01, august, august",
    "2026-08-02, august, unmatched",
    "2026-07-01T00:00:01, july, august",
    "2026-02-30, blank-key, blank-key",
    "01.07.2026, blank-key, blank-key"
  })
  void orderedDays(String value, String below, String above) {
    assertThat(fetched(DAYS, ruled(Kind.AT_OR_BELOW, null), value)).isEqualTo(below);
    assertThat(fetched(DAYS, ruled(Kind.AT_OR_ABOVE, null), value)).isEqualTo(above);
  }

  @ParameterizedTest
  @CsvSource({
    "a, unmatched, bee",
    "b, bee, bee",
    "ba, bee, dee",
    "c, bee, dee",
    "e, dee, accent",
    "é, accent, accent",
    "éé, accent, unmatched",
    "B, unmatched, bee"
  })
  void orderedText(String value, String below, String above) {
    assertThat(fetched(WORDS, ruled(Kind.AT_OR_BELOW, null), value)).isEqualTo(below);
    assertThat(fetched(WORDS, ruled(Kind.AT_OR_ABOVE, null), value)).isEqualTo(above);
  }

  @ParameterizedTest
  @CsvSource({
    "10, ten, ten",
    "14.9, ten, unmatched",
    "15, ambiguous, unmatched",
    "15.1, twenty, unmatched",
    "12, ten, ten",
    "12.01, ten, unmatched",
    "18, twenty, twenty",
    "8, ten, ten",
    "7.99, ten, unmatched",
    "32, thirty, thirty",
    "32.5, thirty, unmatched"
  })
  void nearest(String value, String anyDistance, String withinTwo) {
    assertThat(fetched(STEPS, ruled(Kind.NEAREST, null), value)).isEqualTo(anyDistance);
    assertThat(fetched(STEPS, ruled(Kind.NEAREST, "2"), value)).isEqualTo(withinTwo);
  }

  @ParameterizedTest
  @CsvSource(
      nullValues = "null",
      value = {
        // value, ends: lower, upper, both, neither
        "-1000, low, low, low, low",
        "9.99, low, low, low, low",
        "10, middle, low, ambiguous, unmatched",
        "15, middle, middle, middle, middle",
        "20, unmatched, middle, middle, unmatched",
        "22, unmatched, unmatched, unmatched, unmatched",
        "25, upper, unmatched, upper, unmatched",
        "30, open above, upper, ambiguous, unmatched",
        "30.01, open above, open above, open above, open above",
        "1000000, open above, open above, open above, open above",
        "null, blank-key, blank-key, blank-key, blank-key",
        "wet, blank-key, blank-key, blank-key, blank-key"
      })
  void bands(@Nullable String value, String lower, String upper, String both, String neither) {
    String[] expected = {lower, upper, both, neither};
    Ends[] ends = {Ends.LOWER, Ends.UPPER, Ends.BOTH, Ends.NEITHER};
    for (int i = 0; i < ends.length; i++) {
      MatchRule rule = new MatchRule(Kind.BETWEEN, null, ends[i], false, 0.9);
      assertThat(fetched(BANDS, new KeyPart("v", "lo", "hi", null, rule), value))
          .as(value + " with ends " + ends[i])
          .isEqualTo(expected[i]);
    }
  }

  @Test
  void anEndThatStandsTwiceIsAmbiguousUnlessItsRowsAgree() {
    MemoryTable twice =
        MemoryTable.of("twice", "at,name", "10,a", "10.0,b", "20,c", "20,c", "30,d");
    assertThat(fetched(twice, ruled(Kind.AT_OR_BELOW, null), "12")).isEqualTo("ambiguous");
    assertThat(fetched(twice, ruled(Kind.AT_OR_ABOVE, null), "10")).isEqualTo("ambiguous");
    assertThat(fetched(twice, ruled(Kind.AT_OR_BELOW, null), "25")).isEqualTo("c");
    assertThat(fetched(twice, ruled(Kind.NEAREST, null), "9")).isEqualTo("ambiguous");
    assertThat(fetched(twice, ruled(Kind.NEAREST, null), "21")).isEqualTo("c");
  }

  @ParameterizedTest
  @CsvSource({
    "STARTS_WITH, abc, ab",
    "STARTS_WITH, ab, ab",
    "STARTS_WITH, a, unmatched",
    "STARTS_WITH, xab, unmatched",
    "CONTAINS, xaby, ab",
    "CONTAINS, ab, ab",
    "CONTAINS, a b, unmatched",
    "CONTAINS, AB, unmatched",
    "WILDCARD, q1z, q?z",
    "WILDCARD, qz, unmatched",
    "WILDCARD, q12z, unmatched",
    "REGEX, r77, r[0-9]+",
    "REGEX, r, unmatched",
    "SIMILAR, Pale Lantern, Pale Lantern",
    "SIMILAR, Pale Lantem, Pale Lantern",
    "SIMILAR, Fieldfare, unmatched"
  })
  void partsAndPatterns(Kind kind, String value, String expected) {
    String pattern =
        switch (kind) {
          case WILDCARD -> "q?z";
          case REGEX -> "r[0-9]+";
          case SIMILAR -> "Pale Lantern";
          default -> "ab";
        };
    MemoryTable theirs = MemoryTable.of("p", "at,name", pattern + "," + pattern);
    assertThat(fetched(theirs, ruled(kind, null), value)).isEqualTo(expected);
  }

  /** Reports how far a value lies from the table, and never takes the nearest band instead. */
  @Test
  void missesAreToldApartWithTheirDistance() {
    MemoryTable ours = MemoryTable.of("ours", "v", "5", "7", "22", "35", "x", "");
    MemoryTable theirs = MemoryTable.of("b", "lo,hi,name", "10,20,a", "25,30,b");
    RunRecord run =
        Enrichment.of(ours)
            .lookup(Lookup.in(theirs).key(KeyPart.between("v", "lo", "hi")).bring("name"))
            .build()
            .writeTo(new ListSink());
    LookupFigures figures = run.lookups().get(0);
    assertThat(figures.misses())
        .extracting(miss -> miss.rows() + " " + miss.kind() + ": " + miss.example())
        .containsExactlyInAnyOrder(
            "2 below the lowest: row 1, 5: 5 below the lowest, 10",
            "1 in a gap: row 3, 22: in the gap from 20 to 25",
            "1 above the highest: row 4, 35: 5 above the highest, 30",
            "1 cannot be compared: row 5, x: not a number");
    assertThat(figures.unmatched()).isEqualTo(4);
    assertThat(figures.blankKey()).isEqualTo(2);
  }

  @Test
  void aRuleBesideAnEqualPartLooksInItsOwnGroupOnly() {
    MemoryTable prices =
        MemoryTable.of("prices", "crop,at,name", "oats,10,o10", "wheat,5,w5", "oats,,never");
    MemoryTable ours =
        MemoryTable.of("ours", "crop,v", "oats,7", "wheat,7", "rye,7", ",7", "oats,");
    ListSink sink = new ListSink();
    Enrichment.of(ours)
        .lookup(
            Lookup.in(prices)
                .key("crop")
                .key(ruled(Kind.AT_OR_BELOW, null))
                .bring("name")
                .markAs("outcome"))
        .build()
        .writeTo(sink);
    assertThat(sink.column("name")).containsExactly(null, "w5", null, null, null);
    assertThat(sink.column("outcome"))
        .containsExactly("unmatched", "matched", "unmatched", "blank-key", "blank-key");
  }
}
