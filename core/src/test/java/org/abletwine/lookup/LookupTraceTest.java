package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.enrich.TracedRow;
import org.abletwine.key.Normalise;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What a trace says of a lookup and one row, word for word. */
class LookupTraceTest {
  private static final MemoryTable SALES =
      MemoryTable.of(
          "sales",
          "crop,grade,kg,per",
          "rye,1,10,t",
          "Oats,1,20,t",
          "oats,2,30,t",
          "peas,2,5,t",
          "beans,1,,t",
          ",1,3,t",
          "barly,1,4,t",
          "rye,9,4,t",
          "rye,1,4,kg");

  private static final MemoryTable PRICES =
      MemoryTable.of(
          "prices",
          "code,grade,price,unit",
          "rye,1,4.10,t",
          "oats,1,3.00,t",
          "oats,2,3.20,",
          "peas,2,,t",
          "peas,3,7,t",
          "barley,1,2,t",
          "peas,4,1,kg");

  private static final MemoryTable MORE = MemoryTable.of("more", "code,price,unit", "beans,1,t");

  private static Lookup prices() {
    return Lookup.in(PRICES).named("price").key("crop", "code").bring("price", "unit");
  }

  /** What is told, also where the reference does not fit in memory. */
  private static List<String> traced(Lookup lookup, long row) {
    List<String> lines = lines(Enrichment.of(SALES).lookup(lookup).build().trace(row));
    List<String> large =
        lines(Enrichment.of(SALES).lookup(lookup).memory(1, null).build().trace(row));
    boolean divided = lookup.key.get(0).equal();
    assertThat(large)
        .isEqualTo(
            lines.stream()
                .map(line -> divided && line.startsWith("near misses: ") ? NOT_NEAR : line)
                .toList());
    return lines;
  }

  private static final String NOT_NEAR =
      "near misses: not looked for: the reference does not fit in memory";

  private static List<String> lines(@Nullable TracedRow traced) {
    assertThat(traced).isNotNull();
    return traced.steps().get(0).lines().stream()
        .map(line -> line.label() + ": " + line.detail())
        .toList();
  }

  private static Lookup graded() {
    return Lookup.in(PRICES).key("crop", "code").key("grade").bring("price");
  }

  private static MemoryTable many(int rows) {
    String[] all = IntStream.rangeClosed(1, rows).mapToObj(v -> "rye," + v).toArray(String[]::new);
    return MemoryTable.of("many", "code,v", all);
  }

  private static final String OATS = "key crop = code: \"oats\"; trim: \"oats\"";
  private static final String[] BOTH = {
    "row 2 of prices: price \"3.00\", unit \"t\", code \"oats\"",
    "row 3 of prices: price \"3.20\", unit null, code \"oats\"",
    "they disagree in: price, unit"
  };

  private static List<String> both(String... after) {
    return Stream.of(Stream.of(OATS), Stream.of(BOTH), Stream.of(after))
        .flatMap(lines -> lines)
        .toList();
  }

  @Test
  void theOnlyRowThatFits() {
    assertThat(
            traced(
                Lookup.in(PRICES)
                    .key("crop", "code")
                    .normalise(Normalise.ignoreCase())
                    .bring("price"),
                1))
        .containsExactly(
            "key crop = code: \"rye\"; ignore-case: \"rye\"",
            "row 1 of prices: price \"4.10\", code \"rye\"",
            "outcome: matched row 1, the only row that fits",
            "price =: \"4.10\"");
    assertThat(traced(prices().duplicates(Duplicates.last()), 1))
        .contains("outcome: matched row 1, the only row that fits");
  }

  @Test
  void ofSeveralRowsThatDisagreeWhichWasTakenAndWhy() {
    assertThat(traced(prices(), 3))
        .isEqualTo(
            both(
                "outcome: ambiguous: the rows disagree, and several: flag",
                "price =: null",
                "unit =: null"));
    assertThat(traced(prices().several(Several.first()), 3))
        .isEqualTo(
            both("outcome: matched row 2, several: first", "price =: \"3.00\"", "unit =: \"t\""));
    assertThat(traced(prices().several(Several.last()), 3))
        .contains("outcome: matched row 3, several: last");
    assertThat(traced(prices().duplicates(Duplicates.last()), 3))
        .isEqualTo(
            both(
                "outcome: matched row 3, the rule for duplicates: last",
                "price =: \"3.20\"",
                "unit =: null"));
    assertThat(traced(prices().several(Several.each()), 3))
        .isEqualTo(
            both(
                "outcome: matched every row, as several: each says",
                "price =: \"3.00\"",
                "unit =: \"t\"",
                "rows: 2; the first is followed"));
  }

  @Test
  void rowsThatAgreeOnAllThatIsBroughtSayNothingOfDisagreeing() {
    assertThat(traced(Lookup.in(PRICES).key("grade").bring("unit").where("grade = 1"), 1))
        .containsExactly(
            "key grade: \"1\"; trim: \"1\"",
            "row 1 of prices: unit \"t\", grade \"1\"",
            "row 2 of prices: unit \"t\", grade \"1\"",
            "row 6 of prices: unit \"t\", grade \"1\"",
            "outcome: matched row 1, the rows agree on everything brought",
            "unit =: \"t\"");
    assertThat(traced(Lookup.in(PRICES).key("grade").bring("unit").several(Several.each()), 1))
        .contains("outcome: matched row 1, the rows agree on everything brought");
  }

  @Test
  void whatIsPutTogetherOfAllRows() {
    Lookup all = Lookup.in(PRICES).key("crop", "code");
    assertThat(traced(all.bring("sum(price) as sum", "count(*) as n"), 3))
        .containsExactly(
            OATS,
            "row 2 of prices: price \"3.00\", code \"oats\"",
            "row 3 of prices: price \"3.20\", code \"oats\"",
            "outcome: matched all 2 rows, put together",
            "sum =: \"6.20\"",
            "n =: \"2\"");
    assertThat(traced(all.bring("count(*) as n", "unit"), 3))
        .contains(
            "row 2 of prices: unit \"t\", code \"oats\"",
            "they disagree in: unit",
            "outcome: ambiguous: the rows disagree, and several: flag");
    assertThat(traced(all.bring("count(*) as n"), 1))
        .contains("outcome: matched the only row that fits");
  }

  @Test
  void ofManyRowsTheFirstEight() {
    assertThat(traced(Lookup.in(many(8)).key("crop", "code").bring("v"), 1))
        .hasSize(12)
        .contains("row 8 of many: v \"8\", code \"rye\"")
        .noneMatch(line -> line.contains("more"));
    assertThat(traced(Lookup.in(many(11)).key("crop", "code").bring("v"), 1))
        .hasSize(13)
        .containsSubsequence(
            "row 8 of many: v \"8\", code \"rye\"", ": and 3 more", "they disagree in: v");
  }

  @Test
  void whatIsFilledInPlaceOfNull() {
    Lookup filled =
        prices().whenUnmatched(Fill.fill("price", "0")).whenEmpty(Fill.fill("unit", "kg"));
    assertThat(traced(filled, 5))
        .endsWith("fill price: \"0\"", "price =: \"0\"", "unit =: null")
        .noneMatch(line -> line.startsWith("fill unit"));
    assertThat(traced(filled.several(Several.last()), 3))
        .endsWith(
            "fill unit: \"kg\" where null in the reference", "price =: \"3.20\"", "unit =: \"kg\"");
  }

  @Test
  void whyNothingFits() {
    assertThat(traced(prices(), 5))
        .startsWith(
            "key crop = code: \"beans\"; trim: \"beans\"",
            "outcome: unmatched",
            "near misses: none");
    assertThat(traced(prices(), 6))
        .startsWith("key crop = code: null; trim: null", "outcome: blank-key", "price =: null");
    assertThat(traced(prices().when("kg > 5"), 4))
        .startsWith("outcome: not-asked: when: kg > 5 is not true", "price =: null");
    assertThat(traced(prices().where("unit is null"), 1))
        .contains("outcome: unmatched; a row that the reference's condition left out would match");
    assertThat(traced(graded(), 7))
        .containsExactly(
            "key crop = code: \"barly\"; trim: \"barly\"",
            "key grade: \"1\"; trim: \"1\"",
            "outcome: unmatched",
            "parts: crop not, grade known",
            "near misses: \"barley | 1\" 0.88 clear, \"oats | 1\" 0.25 weak, \"rye | 1\" 0.25 weak",
            "price =: null");
    assertThat(traced(graded(), 8)).contains("parts: crop known, grade not");
    assertThat(traced(Lookup.in(PRICES).key("crop", "code").key("per", "unit").bring("price"), 9))
        .contains("parts: each part is known, but no row of prices has them together");
  }

  @Test
  void whatWasTriedOtherwise() {
    Lookup more = Lookup.in(MORE).key("crop", "code").bring("price", "unit").named("more");
    assertThat(traced(prices().otherwise(more), 5))
        .containsSubsequence(
            "not in prices: tried otherwise: more",
            "row 1 of more: price \"1\", unit \"t\", code \"beans\"",
            "outcome: matched row 1, the only row that fits");
    assertThat(traced(prices().otherwise(more), 1)).noneMatch(line -> line.contains("otherwise"));
  }

  @Test
  void rulesThatSayHowAValueMissed() {
    Lookup banded = Lookup.in(PRICES).key(KeyPart.atOrAbove("grade", "grade")).bring("price");
    assertThat(traced(banded, 8)).anyMatch(line -> line.startsWith("outcome: unmatched: "));
    assertThat(traced(banded, 8)).noneMatch(line -> line.startsWith("near misses"));
    assertThat(traced(Lookup.in(PRICES).key(KeyPart.contains("crop", "code")).bring("price"), 3))
        .contains(
            "they disagree in: price", "outcome: ambiguous: the rows disagree, and several: flag");
  }

  @Test
  void aPrivateKeyIsShownAsDigestsAlone() {
    Enrichment hiding = Enrichment.of(SALES).keepPrivate(Set.of("crop")).lookup(graded()).build();
    List<String> lines = lines(hiding.trace(7));
    assertThat(lines)
        .contains("near misses: not shown: the key is private")
        .noneMatch(line -> line.contains("barly"));
  }
}
