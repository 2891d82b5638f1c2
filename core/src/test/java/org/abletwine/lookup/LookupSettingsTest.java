package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.step.run.Columns;
import org.junit.jupiter.api.Test;

/** What a lookup tells of its own settings. */
class LookupSettingsTest {
  private static final MemoryTable GROWERS =
      MemoryTable.of("growers", "no,name,mobile", "G1,Ash,07", "G2,Birch,08");

  private static final MemoryTable FORMER = MemoryTable.of("former", "no,name", "G3,Cedar");

  private static Lookup lookup() {
    return Lookup.in(GROWERS)
        .named("who")
        .key("grower", "no")
        .normalise(Normalise.trim(), Normalise.ignoreCase())
        .bring("name");
  }

  @Test
  void settingsAreTold() {
    Lookup lookup =
        lookup()
            .where("mobile = '07'")
            .whenUnmatched(Treatment.drop())
            .otherwise(Lookup.in(FORMER).key("grower", "no").bring("name").named("old"));
    assertThat(lookup.name()).isEqualTo("who");
    assertThat(lookup.title()).isEqualTo("lookup who");
    assertThat(lookup).hasToString("Lookup[who by [grower = no]]");
    assertThat(lookup.keyParts()).containsExactly(KeyPart.parse("grower = no"));
    assertThat(lookup.steps(lookup.keyParts().get(0)))
        .extracting(step -> step.name())
        .containsExactly("trim", "ignore-case");
    assertThat(lookup.condition()).isEqualTo("mobile = '07'");
    assertThat(lookup().condition()).isNull();
    assertThat(lookup.treatments())
        .containsEntry(Outcome.UNMATCHED, Treatment.drop())
        .containsEntry(Outcome.AMBIGUOUS, Treatment.leave());
    assertThat(lookup.references()).isEqualTo(List.of(GROWERS, FORMER));
    assertThat(lookup.exchanging()).isNotNull();
    assertThat(Lookup.in(GROWERS).key(KeyPart.atOrBelow("kg", "no")).bring("name").exchanging())
        .isNull();
  }

  @Test
  void allThatIsBroughtIsAllButTheKey() {
    ListSink sink = new ListSink();
    MemoryTable sales = MemoryTable.of("sales", "grower,kg", "g2,5");
    Enrichment.of(sales)
        .lookup(Lookup.in(GROWERS).key("grower", "no").normalise(Normalise.ignoreCase()).bringAll())
        .build()
        .writeTo(sink);
    assertThat(sink.names()).containsExactly("grower", "kg", "name", "mobile");
    assertThat(sink.rows()).containsExactly(List.of("g2", "5", "Birch", "08"));
  }

  @Test
  void whatIsComparedWithAPrivateColumnIsPrivateAndCountsAreNot() {
    Columns columns =
        new Columns("sales", MemoryTable.of("sales", "grower,mobile,from_kg").schema())
            .keeping(Set.of("mobile", "from_kg"));
    Lookup lookup =
        Lookup.in(GROWERS)
            .key("mobile")
            .bring("name", "max(mobile) as call", "count(mobile) as calls")
            .otherwise(Lookup.in(FORMER).key("mobile", "no").bring("name").named("old"))
            .within(columns);
    assertThat(lookup.hides("mobile")).isTrue();
    assertThat(lookup.hides("name")).isFalse();
    assertThat(lookup.hides(lookup.key.get(0))).isTrue();
    assertThat(lookup.bring.stream().map(lookup::hides)).containsExactly(false, true, false);
    assertThat(lookup.otherwise.get(0).hides("no")).as("of those tried otherwise").isTrue();
    Lookup band = Lookup.in(GROWERS).key(KeyPart.between("from_kg", "no", "name")).within(columns);
    assertThat(band.hides("no")).isTrue();
    assertThat(band.hides("name")).isTrue();
    Lookup other = Lookup.in(GROWERS).key("grower", "no").within(columns);
    assertThat(other.hides("mobile")).as("a private name is so on both sides").isTrue();
    assertThat(other.hides("no")).isFalse();
    assertThat(other.hides((String) null)).isFalse();
  }
}
