package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.table.batch.BatchTable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Lookups that need the same of a reference read it once; those that do not, do not. */
@DisabledIfSystemProperty(
    named = "org.abletwine.memory",
    matches = ".*",
    disabledReason = "a reference on disk is read twice to be divided")
class SharedReferenceTest {
  private final MemoryTable loads =
      MemoryTable.of("loads", "no,origin,arrival", "1,KEL,TAN", "2,TAN,", "3,XXX,KEL", "4,MAR,MAR");
  private final MemoryTable held =
      MemoryTable.of(
          "sites",
          "code,name,kind",
          "KEL,Kelter,silo",
          "TAN,Tansy,silo",
          "MAR,Marram,yard",
          "MAR,Marsh,yard");
  private final BatchTable sites = mock(BatchTable.class);

  @BeforeEach
  void countReadings() {
    when(sites.name()).thenReturn("sites");
    when(sites.schema()).thenReturn(held.schema());
    when(sites.pieces(anyInt(), any(), any()))
        .thenAnswer(
            call -> held.pieces(call.getArgument(0), call.getArgument(1), call.getArgument(2)));
    when(sites.type(anyString())).thenReturn(null);
  }

  private Lookup origin() {
    return Lookup.in(sites).named("origin").key("origin", "code").bring("name as origin_name");
  }

  private Lookup arrival() {
    return Lookup.in(sites).named("arrival").key("arrival", "code").bring("name as arrival_name");
  }

  @Test
  void twoLookupsOfOneKindReadTheReferenceOnce() {
    ListSink sink = new ListSink();
    var lookups =
        Enrichment.of(loads)
            .lookup(origin())
            .lookup(arrival().whenUnmatched(Fill.fill("arrival_name", "elsewhere")))
            .build()
            .writeTo(sink)
            .lookups();
    verify(sites, times(1)).pieces(anyInt(), any(), any());
    assertThat(sink.column("origin_name")).containsExactly("Kelter", "Tansy", null, null);
    assertThat(sink.column("arrival_name")).containsExactly("Tansy", null, "Kelter", null);
    assertThat(lookups.get(0).unmatched()).isEqualTo(1);
    assertThat(lookups.get(1).blankKey()).isEqualTo(1);
    assertThat(lookups).extracting(one -> one.ambiguous()).containsExactly(1L, 1L);
  }

  @Test
  void everyRunReadsTheReferenceAnew() {
    Enrichment enrichment = Enrichment.of(loads).lookup(origin()).build();
    enrichment.writeTo(new ListSink());
    enrichment.writeTo(new ListSink());
    verify(sites, times(2)).pieces(anyInt(), any(), any());
  }

  static Stream<UnaryOperator<Lookup>> differences() {
    return Stream.of(
        lookup -> lookup.bring("kind"),
        lookup -> lookup.where("kind = 'silo'"),
        lookup -> lookup.normalise(Normalise.trim(), Normalise.ignoreCase()),
        lookup -> lookup.several(Several.last()),
        lookup -> lookup.duplicates(Duplicates.first()));
  }

  @ParameterizedTest
  @MethodSource("differences")
  void whatIsNeededDifferentlyIsReadApart(UnaryOperator<Lookup> difference) {
    Enrichment.of(loads)
        .lookup(origin())
        .lookup(difference.apply(arrival()))
        .build()
        .writeTo(new ListSink());
    verify(sites, times(2)).pieces(anyInt(), any(), any());
  }

  @Test
  void patternsCountTheSetsEachLookupFinds() {
    Lookup one =
        Lookup.in(sites)
            .named("one")
            .key(KeyPart.matching("origin", MatchRule.Kind.CONTAINS, "code"))
            .bring("name as a");
    Lookup two =
        Lookup.in(sites)
            .named("two")
            .key(KeyPart.matching("arrival", MatchRule.Kind.CONTAINS, "code"))
            .bring("name as b");
    MemoryTable both = MemoryTable.of("loads", "origin,arrival", "KEL,MAR", "TAN,KEL");
    assertThat(
            Enrichment.of(both).lookup(one).lookup(two).build().writeTo(new ListSink()).lookups())
        .extracting(figures -> figures.reference().severalKeys())
        .containsExactly(0L, 1L);
  }

  @Test
  void aReferenceTriedOtherwiseByTheSameKeyIsSharedToo() {
    ListSink sink = new ListSink();
    Lookup further =
        Lookup.in(sites).named("further").key("arrival", "code").bring("name as origin_name");
    Enrichment.of(loads).lookup(origin().otherwise(further)).build().writeTo(sink);
    verify(sites, times(1)).pieces(anyInt(), any(), any());
    assertThat(sink.column("origin_name")).containsExactly("Kelter", "Tansy", "Kelter", null);
  }
}
