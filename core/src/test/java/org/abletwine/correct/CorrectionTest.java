package org.abletwine.correct;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.CorrectionFigures;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;

class CorrectionTest {
  private final MemoryTable tickets =
      MemoryTable.of(
          "t.csv",
          "no,variety",
          "1,Harow",
          "2, Harow ",
          "3,Dunmere",
          "4,",
          "5,a",
          "6,Harow x Harow");

  private CorrectionFigures run(Correction correction, ListSink sink) {
    return Enrichment.of(tickets).step(correction).build().writeTo(sink).corrections().get(0);
  }

  private static MemoryTable table(String... lines) {
    return MemoryTable.of("c.csv", "written,meant", lines);
  }

  private static Correction part(MemoryTable table) {
    return new Correction("variety", table, "written", "meant", true, null, List.of());
  }

  @Test
  void wholeValuesAreReplacedAndChainsFollowed() {
    ListSink sink = new ListSink();
    CorrectionFigures figures =
        run(Correction.of("variety", table("Harow,Harrow", "a,b", "b,c", "zz,y")), sink);
    assertThat(sink.column("variety"))
        .containsExactly("Harrow", "Harrow", "Dunmere", null, "c", "Harow x Harow");
    assertThat(figures.changed()).isEqualTo(3);
    assertThat(figures.lines()).isEqualTo(4);
    assertThat(figures.unusedExamples()).containsExactly("b -> c", "zz -> y");
    assertThat(figures.uses()).contains(new Share("Harow -> Harrow", 2));
  }

  @Test
  void partsAreReplacedInTheOrderOfTheTable() {
    ListSink sink = new ListSink();
    run(part(table("Harow,Harrow", "Harrow x,H x")), sink);
    assertThat(sink.cell(5, "variety")).isEqualTo("H x Harrow");
    assertThat(sink.cell(1, "variety")).isEqualTo(" Harrow ");
  }

  @Test
  void aCorrectedValueIsWhatALaterLookupSees() {
    ListSink sink = new ListSink();
    Enrichment.of(tickets)
        .step(Correction.of("variety", table("Harow,Harrow")))
        .lookup(
            Lookup.in(MemoryTable.of("v.csv", "variety,code", "Harrow,V1"))
                .key("variety")
                .bring("code"))
        .build()
        .writeTo(sink);
    assertThat(sink.column("code")).containsExactly("V1", "V1", null, null, null, null);
  }

  @Test
  void contradictionsCirclesAndGapsAreRefused() {
    assertRefused("rows 1 and 3 contradict each other", "x,y", "a,b", "x,z");
    assertRefused("circle", "a,b", "b,a");
    assertRefused("row 2: a correction needs both", "a,b", "c,");
    CorrectionFigures twice = run(Correction.of("variety", table("a,b", "a,b")), new ListSink());
    assertThat(twice.lines()).as("the same line twice is one").isEqualTo(1);
  }

  private void assertRefused(String part, String... lines) {
    assertThatThrownBy(() -> run(Correction.of("variety", table(lines)), new ListSink()))
        .isInstanceOf(DataException.class)
        .hasMessageContaining(part);
  }

  @Test
  void missingColumnsAreRefused() {
    assertThatThrownBy(() -> run(Correction.of("varety", table("a,b")), new ListSink()))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"variety\"?");
    MemoryTable wrong = MemoryTable.of("c.csv", "wrote,meant", "a,b");
    assertThatThrownBy(() -> run(Correction.of("variety", wrong), new ListSink()))
        .hasMessageContaining("no column \"written\"");
  }
}
