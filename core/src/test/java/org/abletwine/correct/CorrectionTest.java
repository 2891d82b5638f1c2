package org.abletwine.correct;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.figures.StepFigures;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

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

  private StepFigures.Corrected run(Correction correction, ListSink sink) {
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
    StepFigures.Corrected figures =
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
    StepFigures.Corrected twice =
        run(Correction.of("variety", table("a,b", "a,b")), new ListSink());
    assertThat(twice.lines()).as("the same line twice is one").isEqualTo(1);
  }

  @Test
  void everyWrongLineIsToldAtOnceBeforeTheRun() {
    Correction wrong =
        Correction.of("variety", table("x,y", "c,", "x,z", "p,q", "p,r", "a,b", "b,a"));
    assertThat(Enrichment.of(tickets).step(wrong).build().check())
        .extracting(mistake -> mistake.message().replaceAll(";.*", ""))
        .containsExactly(
            "c.csv row 2: a correction needs both the written and the meant value",
            "c.csv rows 1 and 3 contradict each other: \"x\" means \"y\" on one and \"z\" on the other",
            "c.csv rows 4 and 5 contradict each other: \"p\" means \"q\" on one and \"r\" on the other");
    Correction circle = Correction.of("variety", table("a,b", "b,a", "c,a"));
    assertThat(Enrichment.of(tickets).step(circle).build().check())
        .extracting(mistake -> mistake.message().replaceAll(";.*", ""))
        .containsExactly(
            "c.csv row 1: \"a\" leads round in a circle",
            "c.csv row 2: \"b\" leads round in a circle",
            "c.csv row 3: \"c\" leads round in a circle");
    assertThat(Enrichment.of(tickets).step(part(table("a,b", "b,a"))).build().check())
        .as("within a value the lines follow each other, and end")
        .isEmpty();
  }

  /** Whole values and parts on random lists, against following the lines by hand. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6})
  void agreesWithFollowingTheLinesByHand(long seed) {
    Random random = new Random(seed);
    Map<String, String> lines = new LinkedHashMap<>();
    for (int i = 0; i < 12; i++) {
      // Meant values come later in the alphabet, so that there are chains and no circles.
      char from = (char) ('a' + random.nextInt(20));
      lines.putIfAbsent("" + from, "" + (char) (from + 1 + random.nextInt(4)));
    }
    List<String> cells = new ArrayList<>();
    for (int row = 0; row < 300; row++) {
      String word = "" + (char) ('a' + random.nextInt(24));
      cells.add(random.nextBoolean() ? word : word + (char) ('a' + random.nextInt(24)));
    }
    MemoryTable texts = MemoryTable.of("t.csv", "variety", cells.toArray(String[]::new));
    MemoryTable table =
        table(
            lines.entrySet().stream()
                .map(e -> e.getKey() + "," + e.getValue())
                .toArray(String[]::new));
    ListSink whole = new ListSink();
    Enrichment.of(texts).step(Correction.of("variety", table)).build().writeTo(whole);
    ListSink parts = new ListSink();
    StepFigures.Corrected figures =
        Enrichment.of(texts).step(part(table)).build().writeTo(parts).corrections().get(0);
    long changed = 0;
    for (int row = 0; row < cells.size(); row++) {
      String end = cells.get(row);
      while (lines.containsKey(end)) {
        end = lines.get(end);
      }
      assertThat(whole.cell(row, "variety")).isEqualTo(end);
      String replaced = cells.get(row);
      for (Map.Entry<String, String> line : lines.entrySet()) {
        replaced = replaced.replace(line.getKey(), line.getValue());
      }
      assertThat(parts.cell(row, "variety")).isEqualTo(replaced);
      changed += replaced.equals(cells.get(row)) ? 0 : 1;
    }
    assertThat(figures.changed()).isEqualTo(changed);
    assertThat(figures.lines()).isEqualTo(lines.size());
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
