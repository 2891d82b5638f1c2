package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.key.Normalise;
import org.abletwine.step.Progress;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;

/** Conditions, rules for duplicates, and what each normalise step won. */
class ReferenceRulesTest {
  private final MemoryTable tickets =
      MemoryTable.of(
          "tickets.csv", "grower,part", "G1,a", " g1,a", "G2,a", "G3,", ",", "0G2,a", "G9,a");
  private final MemoryTable growers =
      MemoryTable.of(
          "growers.csv",
          "no,name,status,since,note",
          "G1,Old,open,2024-01-01,",
          "G1,New,open,2026-01-01,",
          "G2,Merrow,open,2022-01-01,x",
          "G2,Merrow,open,2022-01-01,x",
          "G3,Gone,closed,2021-05-05,",
          "g1,Lower,open,2023-01-01,");

  private LookupFigures run(Lookup lookup, ListSink sink, List<String> exceptions) {
    return Enrichment.of(tickets)
        .lookup(lookup)
        .build()
        .writeTo(
            sink,
            new RunContext(
                Progress.NONE,
                found ->
                    exceptions.add(
                        String.join(
                            " ",
                            found.kind(),
                            found.table(),
                            "" + found.row(),
                            found.key(),
                            found.detail()))))
        .lookups()
        .get(0);
  }

  private Lookup lookup() {
    return Lookup.in(growers).key("grower", "no").bring("name");
  }

  @Test
  void aConditionLeavesRowsOutAndTheirWouldBeMatchesAreCounted() {
    ListSink sink = new ListSink();
    List<String> exceptions = new ArrayList<>();
    LookupFigures figures =
        run(
            lookup().where("status = 'open' and no <> 'g1'").several(Several.first()),
            sink,
            exceptions);
    assertThat(sink.column("name")).containsExactly("Old", null, "Merrow", null, null, null, null);
    assertThat(figures.reference().filteredOut()).isEqualTo(2);
    assertThat(figures.outcomes().wouldMatch()).as("g1 and G3").isEqualTo(2);
    assertThat(exceptions).contains("unmatched tickets.csv 4 G3 ", "blank-key tickets.csv 5  ");
  }

  @Test
  void theNewestRowStaysAndTheOthersAreExceptionsWithTheirRow() {
    ListSink sink = new ListSink();
    List<String> exceptions = new ArrayList<>();
    LookupFigures figures =
        run(
            lookup()
                .normalise(Normalise.trim(), Normalise.ignoreCase())
                .duplicates(Duplicates.newestBy("since")),
            sink,
            exceptions);
    assertThat(sink.column("name")).startsWith("New", "New", "Merrow", "Gone");
    assertThat(figures.reference().duplicatesDropped()).isEqualTo(3);
    assertThat(figures.reference().collisions()).isEqualTo(1);
    assertThat(figures.reference().collisionExamples())
        .containsExactly("\"G1\" = \"g1\" (rows 1, 2, 6)");
    assertThat(exceptions)
        .contains("duplicate left out growers.csv 1 G1 row 2 stays (newest-by: since)")
        .contains("duplicate left out growers.csv 6 g1 row 2 stays (newest-by: since)");
  }

  @Test
  void otherRulesForDuplicates() {
    ListSink last = new ListSink();
    run(lookup().duplicates(Duplicates.last()), last, new ArrayList<>());
    assertThat(last.cell(0, "name")).isEqualTo("New");
    assertThatThrownBy(
            () -> run(lookup().duplicates(Duplicates.fail()), new ListSink(), new ArrayList<>()))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("2 keys stand on several rows")
        .hasMessageContaining("\"G1\" on rows 1, 2");
    assertThatThrownBy(
            () ->
                run(lookup().duplicates(Duplicates.identical()), new ListSink(), new ArrayList<>()))
        .hasMessageContaining("1 key stands on several rows that differ");
    ListSink identical = new ListSink();
    run(
        lookup().where("no = 'G2'").duplicates(Duplicates.identical()),
        identical,
        new ArrayList<>());
    assertThat(identical.cell(2, "name")).isEqualTo("Merrow");
    MemoryTable uneven = MemoryTable.of("u", "no,name,phone", "G1,A,", "G1,B,5", "G1,C,6");
    ListSink fullest = new ListSink();
    run(
        Lookup.in(uneven).key("grower", "no").bring("name").duplicates(Duplicates.fullest()),
        fullest,
        new ArrayList<>());
    assertThat(fullest.cell(0, "name")).isEqualTo("B");
    assertThatThrownBy(
            () ->
                run(
                    lookup().duplicates(Duplicates.newestBy("sinse")),
                    new ListSink(),
                    new ArrayList<>()))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"since\"?");
  }

  @Test
  void rowsAreCountedForTheStepThatMadeThemMatch() {
    LookupFigures figures =
        run(
            lookup()
                .several(Several.first())
                .normalise(Normalise.trim(), Normalise.ignoreCase(), Normalise.dropLeadingZeros()),
            new ListSink(),
            new ArrayList<>());
    assertThat(figures.matchedBy())
        .extracting(Share::name, Share::rows)
        .containsExactly(
            tuple("as written", 3L),
            tuple("trim", 0L),
            tuple("ignore-case", 1L),
            tuple("drop-leading-zeros", 1L));
    assertThat(figures.matchedBy().stream().mapToLong(Share::rows).sum())
        .isEqualTo(figures.matched());
  }

  @Test
  void blankPartsAreCountedPartByPart() {
    MemoryTable two = MemoryTable.of("two.csv", "no,part,v", "G1,a,x");
    LookupFigures figures =
        run(
            Lookup.in(two).key("grower", "no").key("part").bring("v"),
            new ListSink(),
            new ArrayList<>());
    assertThat(figures.blankKey()).isEqualTo(2);
    assertThat(figures.blankParts())
        .extracting(Share::name, Share::rows)
        .containsExactly(tuple("grower", 1L), tuple("part", 2L));
  }
}
