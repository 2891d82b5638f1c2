package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.Test;

/** Newest rows, least and greatest values go by the order that a column's type states. */
class StatedOrderTest {
  private static final String DAY = "dd.MM.yyyy";

  private final MemoryTable tickets = MemoryTable.of("tickets.csv", "grower", "G1", "G2");

  private MemoryTable growers() {
    return MemoryTable.of(
        "growers.csv",
        "no,name,since",
        "G1,Older,31.01.2025",
        "G1,Newer,02.03.2026",
        "G1,Oldest,30.12.2024",
        "G2,Only,01.01.2020");
  }

  private static MemoryTable stated(MemoryTable table) {
    return table.typed("since", ColumnType.Kind.DATE, DAY);
  }

  private ListSink run(Lookup lookup) {
    ListSink sink = new ListSink();
    Enrichment.of(tickets).lookup(lookup.key("grower", "no")).build().writeTo(sink);
    return sink;
  }

  @Test
  void theNewestByAStatedPatternIsNotTheLastByText() {
    Lookup lookup = Lookup.in(stated(growers())).bring("name");
    assertThat(run(lookup.several(Several.newestBy("since"))).column("name"))
        .containsExactly("Newer", "Only");
    assertThat(run(lookup.duplicates(Duplicates.newestBy("since"))).column("name"))
        .containsExactly("Newer", "Only");
    DuplicateAudit audit = DuplicateAudit.of(stated(growers()), new int[] {0}, List.of());
    assertThat(audit.leftOutBy(Duplicates.newestBy("since")).stream()).containsExactly(1, 3);
  }

  @Test
  void leastAndGreatestGoByTheStatedPattern() {
    ListSink sink =
        run(
            Lookup.in(stated(growers()))
                .bring("min(since) as first", "max(since) as last", "count(*) as rows"));
    assertThat(sink.column("first")).containsExactly("30.12.2024", "01.01.2020");
    assertThat(sink.column("last")).containsExactly("02.03.2026", "01.01.2020");
    assertThat(sink.column("rows")).containsExactly("3", "1");
  }

  @Test
  void datesOfAnUnstatedPatternAreNotPutInAnOrderNobodyMeant() {
    Lookup lookup = Lookup.in(growers()).bring("name");
    for (Lookup wrong :
        List.of(
            lookup.several(Several.newestBy("since")),
            lookup.duplicates(Duplicates.newestBy("since")))) {
      assertThatThrownBy(() -> run(wrong))
          .isInstanceOf(DataException.class)
          .hasMessageContaining("growers.csv, row 1, column \"since\": \"31.01.2025\"")
          .hasMessageContaining("newest-by has no order to go by")
          .hasMessageContaining("declare the column's type");
    }
  }

  @Test
  void aValueThatIsNotOfTheStatedTypeIsNamed() {
    MemoryTable growers =
        MemoryTable.of("growers.csv", "no,since", "G1,31.01.2025", "G1,soon", "G2,01.01.2020")
            .typed("since", ColumnType.Kind.DATE, DAY);
    assertThatThrownBy(() -> run(Lookup.in(growers).bring("max(since) as last")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("growers.csv, row 2, column \"since\": \"soon\" is not a date");
    assertThatThrownBy(() -> run(Lookup.in(growers).bring("no").several(Several.newestBy("since"))))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 2, column \"since\": \"soon\" is not a date, and newest-by");
  }

  @Test
  void textThatIsStatedToBeTextIsOrderedByCodePoint() {
    MemoryTable growers =
        MemoryTable.of("growers.csv", "no,name,version", "G1,A,v9", "G1,B,v10", "G2,C,v1")
            .typed("version", ColumnType.Kind.TEXT);
    ListSink sink = run(Lookup.in(growers).bring("name").several(Several.newestBy("version")));
    assertThat(sink.column("name")).containsExactly("A", "C");
  }

  @Test
  void anAggregateHasTheTypeOfItsColumnForTheStepsAfterIt() {
    ListSink sink = new ListSink();
    Enrichment.of(tickets)
        .lookup(Lookup.in(stated(growers())).key("grower", "no").bring("max(since) as last"))
        .step(new Compute("next", "last + interval '1' day", Evaluation.STRICT))
        .build()
        .writeTo(sink);
    assertThat(sink.column("next")).containsExactly("2026-03-03", "2020-01-02");
  }
}
