package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.correct.Correction;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.enrich.TracedRow;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where two ways through a lookup meet, case by case; random plans draw the rest. */
class PathsMeetTest {
  private final List<Exceptions.Found> found = new ArrayList<>();

  private ListSink run(MemoryTable ours, Lookup lookup) {
    ListSink sink = new ListSink();
    record = Enrichment.of(ours).lookup(lookup).build().writeTo(sink, context());
    return sink;
  }

  private RunContext context() {
    return new RunContext(Progress.NONE, found::add);
  }

  private @Nullable RunRecord record;

  private LookupFigures figures() {
    return java.util.Objects.requireNonNull(record).lookups().get(0);
  }

  /** A computed column is its batch's own, however far the next batch has got meanwhile. */
  @Test
  @Tag("oracle")
  void aComputedColumnGoesThroughALookupUnharmed() {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < 300_000; row++) {
      rows.add(new String[] {"k" + row % 7, "" + row});
    }
    MemoryTable ours = new MemoryTable("ours", List.of("k", "n"), rows, 2_048);
    List<@Nullable String[]> factors = new ArrayList<>();
    for (int k = 0; k < 7; k++) {
      factors.add(new String[] {"k" + k, "" + (k + 1)});
    }
    Lookup lookup =
        Lookup.in(new MemoryTable("factors", List.of("k", "factor"), factors, 3))
            .key("k")
            .bring("factor");
    ListSink sink = new ListSink();
    Enrichment.of(ours)
        .step(new Compute("amount", "n * 2", Evaluation.STRICT))
        .lookup(lookup)
        .step(new Compute("total", "amount * factor", Evaluation.STRICT))
        .build()
        .writeTo(sink);
    List<@Nullable String> totals = sink.column("total");
    for (int row = 0; row < rows.size(); row++) {
      if (!String.valueOf(2L * row * (row % 7 + 1)).equals(totals.get(row))) {
        assertThat(totals.get(row)).as("row " + row).isEqualTo("" + 2L * row * (row % 7 + 1));
      }
    }
  }

  /** What becomes of an ambiguous row is for the reference that had it to say. */
  @ParameterizedTest
  @CsvSource({
    "each, flag, ambiguous, null",
    "each, first, matched, 1",
    "each, last, matched, 2",
    "flag, each, matched, 1 2",
    "first, each, matched, 1 2",
    "last, each, matched, 1 2",
    "each, each, matched, 1 2",
    "flag, flag, ambiguous, null"
  })
  void eachReferenceHasItsOwnRuleForSeveralRows(
      String main, String other, String outcome, String values) {
    MemoryTable ours = MemoryTable.of("ours", "k", "a", "b", "z");
    Lookup lookup =
        Lookup.in(MemoryTable.of("main", "k,v", "b,8", "b,9"))
            .key("k")
            .bring("v")
            .several(Several.parse(main))
            .otherwise(
                Lookup.in(MemoryTable.of("other", "k,v", "a,1", "a,2"))
                    .key("k")
                    .bring("v")
                    .several(Several.parse(other)))
            .markAs("outcome");
    ListSink sink = run(ours, lookup);
    List<String> ofA = new ArrayList<>();
    List<String> ofB = new ArrayList<>();
    for (int row = 0; row < sink.rows().size(); row++) {
      if ("a".equals(sink.cell(row, "k"))) {
        ofA.add("" + sink.cell(row, "v"));
        assertThat(sink.cell(row, "outcome")).isEqualTo(outcome + ": other");
      } else if ("b".equals(sink.cell(row, "k"))) {
        ofB.add("" + sink.cell(row, "v"));
      }
    }
    assertThat(String.join(" ", ofA)).isEqualTo(values);
    String ofMain =
        main.equals("each")
            ? "8 9"
            : main.equals("first") ? "8" : main.equals("last") ? "9" : "null";
    assertThat(String.join(" ", ofB)).isEqualTo(ofMain);
    assertThat(sink.cell(sink.rows().size() - 1, "outcome")).isEqualTo("unmatched");
  }

  @Test
  void theFullestRowDoesNotDependOnWhatIsBrought() {
    MemoryTable table = MemoryTable.of("t", "k,a,b,c,d", "x,1,,,4", "x,,2,3,4");
    for (String bring : List.of("a", "b", "c", "d")) {
      Lookup lookup =
          Lookup.in(table)
              .key("k")
              .bring(bring + " as got", "a as a2", "d as d2")
              .duplicates(Duplicates.fullest());
      ListSink sink = run(MemoryTable.of("ours", "k", "x"), lookup);
      assertThat(sink.cell(0, "got")).isEqualTo(table.cell(1, "kabcd".indexOf(bring)));
    }
  }

  /** Rows the condition leaves out stop nothing, are named nowhere, and are still counted. */
  @Test
  void theConditionComesBeforeEverythingElse() {
    MemoryTable bands =
        MemoryTable.of(
            "bands", "p,lo,hi,v,keep", "a,0,5,1,y", "b,0,9,2,y", "a,9,6,x,n", "b,20,30,n/a,n");
    Lookup lookup =
        Lookup.in(bands)
            .where("keep = 'y'")
            .key("p")
            .key(KeyPart.between("n", "lo", "hi"))
            .bring("sum(v) as v")
            .markAs("outcome");
    MemoryTable ours = MemoryTable.of("ours", "p,n", "a,3", "a,7", "b,25", "b,8");
    ListSink sink = run(ours, lookup);
    assertThat(sink.column("outcome"))
        .containsExactly("matched", "unmatched", "unmatched", "matched");
    assertThat(sink.column("v")).containsExactly("1", null, null, "2");
    assertThat(figures().outcomes().wouldMatch()).as("row 3, by the band left out").isEqualTo(1);
    assertThat(found)
        .extracting(Exceptions.Found::row, Exceptions.Found::detail)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(2L, "2 above the highest, 5"),
            org.assertj.core.groups.Tuple.tuple(3L, "16 above the highest, 9"));
    TracedRow traced = Enrichment.of(ours).lookup(lookup).build().trace(3);
    assertThat("" + traced).contains("16 above the highest, 9; a row that");
    assertThatThrownBy(() -> run(ours, lookup.whenUnmatched(Treatment.fail()).named("failing")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 2 is unmatched")
        .hasMessageContaining("2 above the highest, 5");
  }

  @Test
  void whatOtherwiseMatchedIsNeitherAMissNorWouldItMatch() {
    Lookup lookup =
        Lookup.in(MemoryTable.of("main", "n,v,keep", "5,1,y", "1,9,n"))
            .where("keep = 'y'")
            .key(KeyPart.matching("n", MatchRule.Kind.AT_OR_BELOW, "n"))
            .bring("v")
            .otherwise(Lookup.in(MemoryTable.of("other", "n,v", "2,7", "x,8")).key("n").bring("v"));
    run(MemoryTable.of("ours", "n", "2", "3", "x", "y"), lookup);
    assertThat(figures().matched()).isEqualTo(2);
    assertThat(figures().outcomes().wouldMatch()).as("3, not 2").isEqualTo(1);
    assertThat(figures().misses())
        .extracting(LookupFigures.Miss::kind, LookupFigures.Miss::rows)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple("below the lowest", 1L),
            org.assertj.core.groups.Tuple.tuple("cannot be compared", 1L));
    assertThat(figures().blankParts().get(0).rows()).as("y, not x").isEqualTo(1);
  }

  @Test
  void stepsThatPrintAlikeAreNotTheSameStep() {
    MemoryTable table = MemoryTable.of("t", "k,v", "b with c,1", "c,2");
    MemoryTable ours = MemoryTable.of("ours", "k", "a");
    ListSink sink = new ListSink();
    Enrichment.of(ours)
        .lookup(
            Lookup.in(table)
                .named("one")
                .key("k")
                .normalise(Normalise.replace("a", "b with c"))
                .bring("v as one"))
        .lookup(
            Lookup.in(table)
                .named("two")
                .key("k")
                .normalise(Normalise.replace("a with b", "c"))
                .bring("v as two"))
        .lookup(
            Lookup.in(table)
                .named("three")
                .key("k")
                .normalise(Normalise.replace("a", "c"))
                .bring("v as three"))
        .build()
        .writeTo(sink);
    assertThat(sink.rows().get(0)).containsExactly("a", "1", null, "2");
  }

  @Test
  void aCorrectionAfterRowsWereRepeatedIsAppliedOnceToEach() {
    ListSink sink = new ListSink();
    Enrichment.of(MemoryTable.of("ours", "k,t", "x,a", "y,a"))
        .lookup(
            Lookup.in(MemoryTable.of("t", "k,v", "x,1", "x,2", "x,3"))
                .key("k")
                .bring("v")
                .several(Several.each()))
        .step(
            new Correction(
                "t",
                MemoryTable.of("fixes", "written,meant", "a,aa"),
                "written",
                "meant",
                true,
                null,
                List.of()))
        .build()
        .writeTo(sink);
    assertThat(sink.column("t")).containsExactly("aa", "aa", "aa", "aa");
  }

  /** Where no row reaches the ordered part, nothing says that our dates are none. */
  @Test
  void anEmptyReferenceLeavesOurValuesUnmatched() {
    for (MatchRule.Kind kind :
        List.of(MatchRule.Kind.AT_OR_BELOW, MatchRule.Kind.AT_OR_ABOVE, MatchRule.Kind.NEAREST)) {
      MemoryTable none = new MemoryTable("none", List.of("d", "v"), List.of(), 3);
      Lookup lookup =
          Lookup.in(none).key(KeyPart.matching("d", kind, "d")).bring("v").markAs("outcome");
      ListSink sink = run(MemoryTable.of("ours", "d", "2026-07-01", "abc"), lookup);
      assertThat(sink.column("outcome")).as("" + kind).containsExactly("unmatched", "unmatched");
    }
    MemoryTable declared =
        new MemoryTable("none", List.of("d", "v"), List.of(), 3).typed("d", ColumnType.Kind.DATE);
    Lookup lookup =
        Lookup.in(declared)
            .key(KeyPart.matching("d", MatchRule.Kind.AT_OR_BELOW, "d"))
            .bring("v")
            .markAs("outcome");
    assertThat(run(MemoryTable.of("ours", "d", "2026-07-01", "abc"), lookup).column("outcome"))
        .containsExactly("unmatched", "blank-key");
  }

  @Test
  void aDeclaredWholeNumberRefusesOthers() {
    MemoryTable table = MemoryTable.of("t", "n,v", "1.5,1").typed("n", ColumnType.Kind.INTEGER);
    Lookup lookup =
        Lookup.in(table).key(KeyPart.matching("n", MatchRule.Kind.AT_OR_BELOW, "n")).bring("v");
    assertThatThrownBy(() -> run(MemoryTable.of("ours", "n", "2"), lookup))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("\"1.5\" is not a whole number");
    Lookup sum =
        Lookup.in(MemoryTable.of("t", "k,n", "a,1.5").typed("n", ColumnType.Kind.INTEGER))
            .key("k")
            .bring("sum(n) as n");
    assertThatThrownBy(() -> run(MemoryTable.of("ours", "k", "a"), sum))
        .hasMessageContaining("is not a whole number");
  }

  /** A number of a billion digits is none that can be added. */
  @Test
  void aHugeExponentDoesNotFillTheMemory() {
    Lookup sum =
        Lookup.in(MemoryTable.of("t", "k,n", "a,1E+900000000")).key("k").bring("sum(n) as n");
    assertThatThrownBy(() -> run(MemoryTable.of("ours", "k", "a"), sum))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("is not a number, which sum(n) as n needs");
    String digits = "9".repeat(1_000_000);
    Lookup below =
        Lookup.in(MemoryTable.of("t", "n,v", "1,1", digits + ",2", "3,3"))
            .key(KeyPart.matching("n", MatchRule.Kind.AT_OR_BELOW, "n"))
            .bring("v");
    assertThatThrownBy(() -> run(MemoryTable.of("ours", "n", "2"), below))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("is not a number");
  }

  @Test
  @Tag("oracle")
  void rowsThatWouldMultiplyBeyondMeasureEndTheRun() {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < 20_000; row++) {
      rows.add(new String[] {"a", "" + row});
    }
    List<@Nullable String[]> ours = new ArrayList<>();
    for (int row = 0; row < 2_000; row++) {
      ours.add(new String[] {"a"});
    }
    Lookup lookup =
        Lookup.in(new MemoryTable("t", List.of("k", "v"), rows, 2_048))
            .key("k")
            .bring("v")
            .several(Several.each());
    assertThatThrownBy(() -> run(new MemoryTable("ours", List.of("k"), ours, 2_048), lookup))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("become more than 10000000 rows (row 501 fits 20000)");
    Lookup joined =
        Lookup.in(new MemoryTable("t", List.of("k", "v"), repeated(), 64))
            .key("k")
            .bring("listagg(v, ' ') as v");
    assertThatThrownBy(() -> run(MemoryTable.of("ours", "k", "a"), joined))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("more than 1000000 characters");
  }

  private static List<@Nullable String[]> repeated() {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < 300; row++) {
      rows.add(new String[] {"a", "x".repeat(4_000)});
    }
    return rows;
  }

  @ParameterizedTest
  @CsvSource({
    "'\"net between gates\" = x', net between gates, x, EQUAL",
    "'\"a like b\" at-or-below \"from between\"', a like b, from between, AT_OR_BELOW",
    "'n between \"lo and\" and \"and hi\"', n, lo and, BETWEEN"
  })
  void namesInQuotesMayHoldTheWordsOfRules(
      String text, String ours, String theirs, MatchRule.Kind kind) {
    KeyPart part = KeyPart.parse(text);
    assertThat(part.ours()).isEqualTo(ours);
    assertThat(part.theirs()).isEqualTo(theirs);
    assertThat(part.match().kind()).isEqualTo(kind);
  }

  @Test
  void aGroupThatThePatternHasNotIsAMistakeOfThePlan() {
    assertThatThrownBy(() -> Normalise.replace("(a)b", "$9"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("groups up to $1");
    assertThatThrownBy(() -> Normalise.replace("ab", "$1")).hasMessageContaining("no groups");
    assertThatThrownBy(() -> Normalise.replace("(".repeat(4_000) + ")".repeat(4_000), "x"))
        .isInstanceOf(SettingException.class);
    assertThatThrownBy(() -> Normalise.replace("(a)".repeat(20_000), "x"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("more than 10000");
    assertThat(Normalise.replace("(a)b", "$1").name()).isEqualTo("replace: (a)b with $1");
  }

  @Test
  void aWrongMeasureIsAMistakeLikeAnyOther() {
    List<Enrichment.Mistake> mistakes =
        Enrichment.of(MemoryTable.of("ours", "k,kg", "a,1"))
            .measure("gk")
            .step(new Compute("x", "kk + 1", Evaluation.STRICT))
            .build()
            .check();
    assertThat(mistakes)
        .extracting(Enrichment.Mistake::message)
        .anyMatch(m -> m.contains("measure: ours has no column \"gk\""))
        .anyMatch(m -> m.contains("no column is called \"kk\""))
        .hasSize(2);
  }
}
