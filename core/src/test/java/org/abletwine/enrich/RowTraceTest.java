package org.abletwine.enrich;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.correct.Correction;
import org.abletwine.derive.Coalesce;
import org.abletwine.derive.Compute;
import org.abletwine.derive.Keep;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Fill;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Several;
import org.abletwine.step.Evaluation;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;

/** A trace tells of one row what a run makes of it. */
class RowTraceTest {
  private final MemoryTable tickets =
      MemoryTable.of(
          "tickets",
          "no,grower,crop,kg",
          "1, g1,oast,500",
          "2,G2,oats,900",
          "3,G9,rye,20",
          "4,,rye,30");
  private final MemoryTable growers =
      MemoryTable.of("growers", "code,name,phone", "G1,Ash,", "G2,Birch,1", "G2,Beech,2");
  private final MemoryTable spellings = MemoryTable.of("spellings", "written,meant", "oast,oats");

  private Enrichment enrichment(Several several) {
    return Enrichment.of(tickets)
        .step(Correction.of("crop", spellings))
        .lookup(
            Lookup.in(growers)
                .named("who")
                .key("grower", "code")
                .normalise(Normalise.trim(), Normalise.ignoreCase())
                .bring("name", "phone")
                .several(several)
                .whenUnmatched(Fill.fill("name", "Unlisted")))
        .step(new Coalesce("reach", List.of("phone", "name"), "nobody", "reach_by"))
        .step(new Compute("tonnes", "kg / 1000", Evaluation.STRICT))
        .step(new Keep("tonnes > 0.1", null, tickets, Evaluation.STRICT))
        .build();
  }

  private static List<String> lines(TracedRow row) {
    List<String> lines = new ArrayList<>();
    for (TracedRow.StepTrace step : row.steps()) {
      step.lines()
          .forEach(line -> lines.add(step.step() + " | " + line.label() + " " + line.detail()));
    }
    return lines;
  }

  @Test
  void everyStepTellsWhatItSawAndDid() {
    TracedRow row = enrichment(Several.flag()).trace(1);
    assertThat(row.number()).isEqualTo(1);
    assertThat(row.read()).containsEntry("grower", " g1").containsEntry("crop", "oast");
    assertThat(String.join("\n", lines(row)))
        .contains("correct crop | ")
        .contains("\"oast\" became \"oats\"")
        .contains("\" g1\"")
        .contains("ignore-case: \"g1\"")
        .contains("the only row that fits")
        .contains("compute tonnes | tonnes = \"0.5\"")
        .contains("reach = \"Ash\"");
  }

  @Test
  void aTraceAgreesWithTheRun() {
    for (Several several : List.of(Several.flag(), Several.first(), Several.last())) {
      ListSink sink = new ListSink();
      Enrichment.of(tickets)
          .lookup(
              Lookup.in(growers)
                  .key("grower", "code")
                  .normalise(Normalise.trim(), Normalise.ignoreCase())
                  .bring("name")
                  .several(several))
          .build()
          .writeTo(sink);
      for (int number = 1; number <= 2; number++) {
        String name = sink.cell(number - 1, "name");
        assertThat(String.join("\n", lines(enrichment(several).trace(number))))
            .contains(name == null ? "ambiguous" : "name = \"" + name + "\"");
      }
    }
  }

  @Test
  void anAmbiguousKeyShowsItsCandidatesWithTheirRowNumbers() {
    assertThat(String.join("\n", lines(enrichment(Several.flag()).trace(2))))
        .contains("row 2")
        .contains("row 3")
        .contains("Birch")
        .contains("Beech");
  }

  @Test
  void aRowThatIsLeftOutEndsItsTrace() {
    TracedRow row = enrichment(Several.flag()).trace(3);
    List<String> lines = lines(row);
    assertThat(lines.get(lines.size() - 1)).contains("left out, as the plan says");
    assertThat(String.join("\n", lines)).contains("unmatched").contains("Unlisted");
  }

  @Test
  void aConditionFindsTheRowAndThereMayBeNone() {
    Enrichment enrichment = enrichment(Several.flag());
    assertThat(enrichment.trace("kg > 600").number()).isEqualTo(2);
    assertThat(enrichment.trace("grower is null").number()).isEqualTo(4);
    assertThat(enrichment.trace("kg > 6000")).isNull();
    assertThat(enrichment.trace(5)).isNull();
    assertThatThrownBy(() -> enrichment.trace("kgs > 1"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"kg\"?");
  }
}
