package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Keys that fit several rows: each rule, aggregates, adding, and what is tried otherwise. */
class SeveralTest {
  private final MemoryTable offers =
      MemoryTable.of(
          "offers",
          "crop,buyer,price,seen",
          "oats,Fen,200,2026-01-02",
          "oats,Moor,210.5,2026-03-01",
          "oats,Tarn,,2026-02-01",
          "wheat,Fen,300,2026-01-01",
          "rye,Fen,100,",
          "rye,Moor,100,2026-01-01");
  private final MemoryTable ours =
      MemoryTable.of("ours", "id,crop", "1,oats", "2,wheat", "3,rye", "4,hemp");

  private ListSink run(Lookup lookup) {
    ListSink sink = new ListSink();
    Enrichment.of(ours).lookup(lookup.markAs("outcome")).build().writeTo(sink);
    return sink;
  }

  @ParameterizedTest
  @CsvSource(
      nullValues = "null",
      value = {
        "flag, null, null, ambiguous",
        "first, Fen, Fen, matched",
        "last, Tarn, Moor, matched",
        "newest-by: seen, Moor, Moor, matched",
        "newest-by: price, Moor, Fen, matched"
      })
  void oneOfSeveral(String rule, @Nullable String oats, @Nullable String rye, String outcome) {
    ListSink sink = run(Lookup.in(offers).key("crop").bring("buyer").several(Several.parse(rule)));
    assertThat(sink.column("buyer")).containsExactly(oats, "Fen", rye, null);
    assertThat(sink.column("outcome")).containsExactly(outcome, "matched", outcome, "unmatched");
  }

  @Test
  void aRuleIsWrittenAsItIsRead() {
    for (String rule : List.of("flag", "first", "last", "longest", "each", "newest-by: seen")) {
      assertThat(Several.parse(rule)).hasToString(rule);
    }
    assertThatThrownBy(() -> Several.parse("newest"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("newest-by=COLUMN");
  }

  @Test
  void eachGivesARowForEachAndForetellsHowMany() {
    Lookup lookup = Lookup.in(offers).key("crop").bring("buyer");
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(ours)
            .lookup(lookup.several(Several.each()))
            .build()
            .writeTo(sink)
            .lookups()
            .get(0);
    assertThat(sink.column("id")).containsExactly("1", "1", "1", "2", "3", "3", "4");
    assertThat(sink.column("buyer"))
        .containsExactly("Fen", "Moor", "Tarn", "Fen", "Fen", "Moor", null);
    assertThat(figures.fits().added()).isEqualTo(3);
    assertThat(figures.rows()).as("rows in").isEqualTo(4);
    LookupFigures before =
        Enrichment.of(ours).lookup(lookup).build().writeTo(new ListSink()).lookups().get(0);
    assertThat(before.fits().rowsIfEach()).as("foretold without adding").isEqualTo(7);
  }

  @Test
  void whatWasTakenOfRowsThatDisagreeIsCounted() {
    MemoryTable rows = MemoryTable.of("rows", "k", "a", "a", "b", "c", "a", "d");
    MemoryTable theirs = MemoryTable.of("theirs", "k,v", "a,1", "a,2", "b,1", "b,1", "c,1", "b,1");
    LookupFigures figures =
        Enrichment.of(rows)
            .lookup(Lookup.in(theirs).key("k").bring("v").several(Several.first()))
            .build()
            .writeTo(new ListSink())
            .lookups()
            .get(0);
    assertThat(figures.fits().picked()).isEqualTo(3);
    assertThat(figures.fits().rowsIfEach()).isEqualTo(6 + 3 + 2);
    assertThat(figures.reference().severalKeys()).isEqualTo(2);
    assertThat(figures.reference().conflictingKeys()).isEqualTo(1);
  }

  @Test
  void keysOnSeveralRowsAreNamedAsTheirFirstRowWritesThem() {
    MemoryTable theirs =
        MemoryTable.of(
            "theirs", "k,part,v", "a,x,1", "B,y,1", "b,y,2", "a,x,1", "c,x,1", "b,y,1", "a,z,1");
    Lookup lookup =
        Lookup.in(theirs)
            .key("crop", "k")
            .key("id", "part")
            .normalise(Normalise.ignoreCase())
            .bring("v");
    assertThat(
            Enrichment.of(ours)
                .lookup(lookup)
                .build()
                .writeTo(new ListSink())
                .lookups()
                .get(0)
                .reference()
                .several())
        .containsExactly(
            new LookupFigures.SeveralRows("B | y", "2, 3, 6", true),
            new LookupFigures.SeveralRows("a | x", "1, 4", false));
  }

  @Test
  void rowsOfOneReferenceAndTotalsOfAnother() {
    MemoryTable more = MemoryTable.of("more", "crop,buyer", "hemp,Low", "hemp,Mere");
    ListSink sink =
        run(
            Lookup.in(offers)
                .key("crop")
                .bring("buyer")
                .several(Several.each())
                .otherwise(
                    Lookup.in(more)
                        .key("crop")
                        .bring("listagg(buyer, '+') as buyer")
                        .named("more")));
    assertThat(sink.column("buyer"))
        .containsExactly("Fen", "Moor", "Tarn", "Fen", "Fen", "Moor", "Low+Mere");
  }

  @Test
  void totalsOfRowsThatARuleFindsUnlessOtherColumnsDisagree() {
    Lookup all =
        Lookup.in(offers)
            .key(KeyPart.atOrAbove("id", "price"))
            .key("crop")
            .bring("count(*) as offers", "crop as kind");
    ListSink sink = run(all);
    assertThat(sink.column("offers")).containsExactly("1", "1", "2", null);
    assertThat(sink.column("kind")).containsExactly("oats", "wheat", "rye", null);
    sink = run(all.bring("buyer"));
    assertThat(sink.column("offers")).containsExactly("1", "1", null, null);
    assertThat(sink.column("outcome"))
        .containsExactly("matched", "matched", "ambiguous", "unmatched");
  }

  @Test
  void nothingToPutTogetherIsNullOrFilled() {
    ListSink sink = new ListSink();
    MemoryTable nulls =
        MemoryTable.of("nulls", "crop,price,seen", "oats,5,", "oats,5,", "rye,5,2026-01-01");
    Lookup none =
        Lookup.in(nulls)
            .key(KeyPart.atOrAbove("id", "price"))
            .key("crop")
            .bring("max(seen) as last", "crop as kind");
    LookupFigures figures = Enrichment.of(ours).lookup(none).build().writeTo(sink).lookups().get(0);
    assertThat(sink.column("last")).containsExactly(null, null, "2026-01-01", null);
    assertThat(figures.attributes().get(0).empty()).isEqualTo(1);
    assertThat(figures.attributes().get(1).empty()).isZero();
    sink = new ListSink();
    figures =
        Enrichment.of(ours)
            .lookup(none.whenEmpty(Fill.fill("last", "never")))
            .build()
            .writeTo(sink)
            .lookups()
            .get(0);
    assertThat(sink.column("last")).containsExactly("never", null, "2026-01-01", null);
    assertThat(sink.column("kind")).containsExactly("oats", null, "rye", null);
    assertThat(figures.attributes().get(0).empty()).isEqualTo(1);
  }

  @Test
  void rowsThatAgreeAreOne() {
    ListSink sink = run(Lookup.in(offers).key("crop").bring("price").several(Several.each()));
    assertThat(sink.column("price")).containsExactly("200", "210.5", null, "300", "100", null);
  }

  @Test
  void aggregatesPassOverNullsAndAreExact() {
    ListSink sink =
        run(
            Lookup.in(offers)
                .key("crop")
                .bring(
                    "sum(price) as sum",
                    "avg(price) as avg",
                    "min(price) as min",
                    "max(price) as max",
                    "count(price) as priced",
                    "count(*) as offers",
                    "listagg(buyer, ', ') as buyers"));
    assertThat(sink.column("sum")).containsExactly("410.5", "300", "200", null);
    assertThat(sink.column("avg")).containsExactly("205.25", "300", "100", null);
    assertThat(sink.column("min")).containsExactly("200", "300", "100", null);
    assertThat(sink.column("max")).containsExactly("210.5", "300", "100", null);
    assertThat(sink.column("priced")).containsExactly("2", "1", "2", null);
    assertThat(sink.column("offers")).containsExactly("3", "1", "2", null);
    assertThat(sink.column("buyers")).containsExactly("Fen, Moor, Tarn", "Fen", "Fen, Moor", null);
    assertThat(sink.column("outcome"))
        .containsExactly("matched", "matched", "matched", "unmatched");
  }

  @Test
  void anAggregateOfWhatIsNoNumberNamesTheRow() {
    MemoryTable wrong = MemoryTable.of("w", "crop,price", "oats,1", "oats,dear");
    assertThatThrownBy(() -> run(Lookup.in(wrong).key("crop").bring("sum(price) as s")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 2")
        .hasMessageContaining("\"dear\" is not a number");
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void aggregatesAgreeWithAddingUp(long seed) {
    Random random = new Random(seed);
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      String value =
          random.nextInt(8) == 0
              ? null
              : BigDecimal.valueOf(random.nextInt(100_000), random.nextInt(4)).toPlainString();
      rows.add(new @Nullable String[] {"k" + random.nextInt(30), value});
    }
    MemoryTable theirs = new MemoryTable("t", List.of("k", "v"), rows, 50);
    List<@Nullable String[]> keys = new ArrayList<>();
    for (int k = 0; k < 30; k++) {
      keys.add(new @Nullable String[] {"k" + k});
    }
    ListSink sink = new ListSink();
    Enrichment.of(new MemoryTable("o", List.of("k"), keys, 7))
        .lookup(Lookup.in(theirs).key("k").bring("sum(v) as s", "avg(v) as a", "max(v) as m"))
        .build()
        .writeTo(sink);
    for (int k = 0; k < 30; k++) {
      String key = "k" + k;
      List<BigDecimal> values =
          rows.stream()
              .filter(r -> key.equals(r[0]) && r[1] != null)
              .map(r -> new BigDecimal(r[1]))
              .toList();
      if (values.isEmpty()) {
        assertThat(sink.cell(k, "s")).isNull();
        continue;
      }
      BigDecimal sum = values.stream().reduce(BigDecimal.ZERO, BigDecimal::add);
      assertThat(new BigDecimal(sink.cell(k, "s"))).isEqualByComparingTo(sum);
      assertThat(new BigDecimal(sink.cell(k, "m")))
          .isEqualByComparingTo(values.stream().max(BigDecimal::compareTo).orElseThrow());
      assertThat(new BigDecimal(sink.cell(k, "a")))
          .isEqualByComparingTo(
              sum.divide(BigDecimal.valueOf(values.size()), 10, RoundingMode.HALF_UP));
    }
  }

  @Test
  void theLongestPatternIsTheMostSpecificAndEqualsStayAmbiguous() {
    MemoryTable patterns =
        MemoryTable.of("p", "at,name", "wet,moist", "wet grain,very", "grain we,other", "gr*,any");
    MemoryTable remarks = MemoryTable.of("r", "v", "wet grain", "grain wet", "wet", "dry");
    ListSink sink = new ListSink();
    Enrichment.of(remarks)
        .lookup(
            Lookup.in(patterns)
                .key(KeyPart.matching("v", MatchRule.Kind.CONTAINS, "at"))
                .bring("name")
                .several(Several.longest())
                .markAs("outcome"))
        .build()
        .writeTo(sink);
    assertThat(sink.column("name")).containsExactly("very", "other", "moist", null);
    assertThat(sink.column("outcome"))
        .containsExactly("matched", "matched", "matched", "unmatched");
  }

  @Test
  void whatIsTriedOtherwiseIsTriedInTurnAndMarked() {
    MemoryTable current = MemoryTable.of("current", "no,name", "1,Ash", "2,Birch");
    MemoryTable former = MemoryTable.of("former", "no,was", "3,Cedar", "1,Old Ash");
    MemoryTable byPhone = MemoryTable.of("phones", "phone,name", "55,Dogwood");
    MemoryTable rows = MemoryTable.of("o", "code,tel", "1,", "3,", "9,55", ",55", "9,");
    Lookup lookup =
        Lookup.in(current)
            .key("code", "no")
            .bring("name")
            .otherwise(Lookup.in(former).key("code", "no").bring("was as name"))
            .otherwise(Lookup.in(byPhone).key("tel", "phone").bring("name"))
            .markAs("outcome");
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(rows).lookup(lookup).build().writeTo(sink).lookups().get(0);
    assertThat(sink.column("name")).containsExactly("Ash", "Cedar", "Dogwood", "Dogwood", null);
    assertThat(sink.column("outcome"))
        .containsExactly(
            "matched", "matched: former", "matched: phones", "matched: phones", "unmatched");
    assertThat(figures.matchedBy())
        .extracting(share -> share.rows() + " " + share.name())
        .containsExactly("1 as written", "0 trim", "1 otherwise former", "2 otherwise phones");
    assertThatThrownBy(
            () ->
                Enrichment.of(rows)
                    .lookup(
                        Lookup.in(current)
                            .key("code", "no")
                            .bring("name")
                            .otherwise(Lookup.in(former).key("code", "no").bring("was")))
                    .build()
                    .writeTo(new ListSink()))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("brings \"was\", which the lookup itself does not");
  }
}
