package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Evaluation;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lookups for some of the rows, for any number of workers and beside every other setting. */
class AskedTest {
  private static final MemoryTable OURS =
      MemoryTable.of("t", "k,n", "a,1", "b,2", "z,3", ",4", "a,");
  private static final MemoryTable THEIRS = MemoryTable.of("r", "k,v", "a,x", "b,y", "b,w");

  private static Lookup lookup() {
    return Lookup.in(THEIRS).key("k").bring("v").markAs("m");
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 5})
  void rowsThatAreNotAskedForAreTouchedByNothing(int workers) {
    ListSink sink = new ListSink();
    Lookup asked =
        lookup()
            .when("n > 2")
            .several(Several.each())
            .otherwise(Lookup.in(THEIRS).named("again").key("k").bring("v"))
            .whenUnmatched(Fill.fill("v", "none"));
    LookupFigures figures =
        Enrichment.of(OURS).workers(workers).lookup(asked).build().writeTo(sink).lookups().get(0);
    assertThat(sink.column("m"))
        .containsExactly("not-asked", "not-asked", "unmatched", "blank-key", "not-asked");
    assertThat(sink.column("v")).containsExactly(null, null, "none", null, null);
    assertThat(figures.notAsked()).isEqualTo(3);
    assertThat(figures.asked()).isEqualTo(new LookupFigures.Asked("n > 2", 1));
    assertThat(figures.fits().rowsIfEach()).as("no rows of what is not asked").isEqualTo(5);
    assertThat(figures.matchedBy()).allMatch(share -> share.rows() == 0);
  }

  @Test
  void whatCannotBeComputedEndsTheRunUnlessErrorsAreNull() {
    MemoryTable odd = MemoryTable.of("t", "k,n", "a,1", "a,x");
    assertThatThrownBy(
            () -> Enrichment.of(odd).lookup(lookup().when("n > 0")).build().writeTo(new ListSink()))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 2, lookup r, when: column \"n\": \"x\" is not a number");
    ListSink sink = new ListSink();
    Enrichment.of(odd)
        .lookup(lookup().when("n > 0", new Evaluation(true, null)))
        .build()
        .writeTo(sink);
    assertThat(sink.column("m")).isEqualTo(List.of("matched", "not-asked"));
  }

  @Test
  void aListIsPartedBySomething() {
    assertThatThrownBy(
            () ->
                new MatchRule(
                    MatchRule.Kind.LISTED,
                    null,
                    MatchRule.Ends.LOWER,
                    false,
                    1,
                    MatchRule.By.LETTERS,
                    "",
                    null))
        .hasMessageContaining("separator of a list is empty");
  }

  /** A rule finds out only while looking which rows fit together: nobody is to be told of those. */
  @Test
  void placesThatNobodyAsksForAreNotCounted() {
    MemoryTable patterns = MemoryTable.of("p", "part,v", "a,x", "ab,y", "b,z");
    MemoryTable texts = MemoryTable.of("t", "k,n", "ab,1", "b,9", "abb,2");
    Lookup part =
        Lookup.in(patterns).key(KeyPart.matching("k", MatchRule.Kind.CONTAINS, "part")).bring("v");
    for (String condition : List.of("n > 5", "n > 0")) {
      LookupFigures figures =
          Enrichment.of(texts)
              .lookup(part.when(condition))
              .build()
              .writeTo(new ListSink())
              .lookups()
              .get(0);
      assertThat(figures.reference().severalKeys()).isEqualTo(condition.equals("n > 5") ? 0 : 1);
    }
  }

  /** What is expected stays and is counted, and nobody is told of it. */
  @Test
  void whatIsExpectedIsNoException() {
    List<String> told = new ArrayList<>();
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(OURS)
            .lookup(lookup().when(Outcome.UNMATCHED, Treatment.expected()))
            .exceptions(found -> told.add(found.kind() + " " + found.row()))
            .build()
            .writeTo(sink)
            .lookups()
            .get(0);
    assertThat(told).containsExactly("ambiguous 2", "blank-key 4");
    assertThat(sink.column("m")).contains("unmatched");
    assertThat(figures.unmatched()).isEqualTo(1);
    assertThat(figures.outcomes().expected()).containsExactly("unmatched");
    assertThatThrownBy(() -> lookup().when(Outcome.AMBIGUOUS, Treatment.expected()))
        .hasMessageContaining("never what is expected");
  }

  @Test
  void itStandsAtTheLookupItselfAndNeedsARun() {
    Lookup inner = lookup().otherwise(Lookup.in(THEIRS).key("k").bring("v").when("n > 2"));
    assertThatThrownBy(() -> Enrichment.of(OURS).lookup(inner).build().writeTo(new ListSink()))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("when: stands at the lookup itself");
    assertThatThrownBy(() -> lookup().when("n > 2").load())
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("when: is for runs");
    assertThatThrownBy(() -> lookup().when(Outcome.NOT_ASKED, Treatment.drop()))
        .hasMessageContaining("left as they are");
  }
}
