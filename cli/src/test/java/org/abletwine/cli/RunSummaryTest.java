package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.tell.Words;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RunSummaryTest {

  @ParameterizedTest
  @CsvSource({
    "0,0,-",
    "0,10,0.0 %",
    "10,10,100.0 %",
    "1,3,33.3 %",
    "1,1000000,<0.1 %",
    "999999,1000000,>99.9 %"
  })
  void sharesAreNeverRoundedToAllOrNothing(long part, long whole, String expected) {
    assertThat(Words.percent(part, whole)).isEqualTo(expected);
  }

  private static List<String> lines(boolean colour) {
    LookupFigures lookup =
        new LookupFigures(
            "growers",
            "code = no",
            new LookupFigures.Reference(
                "growers.csv", 10, 8, 1, 2, 1, 0, 0, 0, 0, List.of(), List.of()),
            new LookupFigures.Outcomes(
                1_000, 900, 60, 30, 10, 0, 5, 0, new LookupFigures.Firsts(7, 8, 9), List.of()),
            null,
            new LookupFigures.Fits(false, false, 0, 1_033, 0),
            List.of(new Share("as written", 880), new Share("trim", 20)),
            List.of(new Share("code", 10)),
            List.of(),
            null,
            List.of(),
            List.of(),
            List.of(new LookupFigures.Attribute("name", 60, 30, 10, 0, 4, 60)),
            false,
            null);
    RunRecord run =
        new RunRecord(
            "Harvest",
            "tickets.csv",
            Instant.EPOCH,
            Duration.ofMillis(250),
            1_000,
            995,
            4_000,
            List.of("no", "name"),
            List.of(lookup),
            "",
            Map.of(),
            List.of("growers.xlsx: 2 rows are hidden"),
            List.of(),
            List.of());
    return RunSummary.lines(run, colour);
  }

  @Test
  void figuresStandInAlignedColumns() {
    List<String> lines = lines(false);
    assertThat(lines).anyMatch(l -> l.contains("rows in 1,000   rows out 995 (-5)"));
    assertThat(lines)
        .anyMatch(l -> l.matches(" {2}growers +code = no +1,000 +900 +90\\.0 +60 +6\\.0 .*"));
    assertThat(lines).anyMatch(l -> l.contains("880 as written + 20 trim"));
    assertThat(lines).anyMatch(l -> l.matches(" {2}name +growers\\.csv +60 +30 +10 +4 +60 +44"));
    assertThat(lines)
        .anyMatch(l -> l.contains("1 key of growers.csv stands on several rows that disagree"))
        .anyMatch(l -> l.contains("would make 1,033 of 1,000 rows"))
        .anyMatch(l -> l.contains("5 rows left out"));
    assertThat(String.join("", lines)).doesNotContain("\u001b");
  }

  @Test
  void colourChangesNothingButColour() {
    List<String> plain = lines(false);
    List<String> coloured = lines(true).stream().map(Ink::shown).toList();
    assertThat(String.join("\n", coloured)).contains("\u001b[");
    assertThat(
            coloured.stream().map(l -> l.replaceAll("\u001b\\[\\d+m", "").stripTrailing()).toList())
        .isEqualTo(plain.stream().map(String::stripTrailing).toList());
  }
}
