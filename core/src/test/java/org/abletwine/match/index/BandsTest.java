package org.abletwine.match.index;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.MemoryTable;
import org.abletwine.key.Normalise;
import org.abletwine.match.BandReport;
import org.abletwine.match.BandReport.Kind;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is wrong with a table of bands. */
class BandsTest {
  private static BandReport bands(MemoryTable table, int[] key, int... ends) {
    return Bands.of(table, key, ends, List.of(Normalise.trim()));
  }

  private static List<String> findings(BandReport report) {
    return report.findings().stream()
        .map(f -> f.kind() + " " + f.partition() + " " + f.from() + ".." + f.to() + " " + f.rows())
        .toList();
  }

  /** Keys of several parts are compared part by part, however they are shown. */
  @Test
  void partsThatLookAlikeTogetherAreApart() {
    MemoryTable table =
        MemoryTable.of("m", "crop,grade,from,to", "a | b,c,0,10", "a,b | c,5,15", "a,b | c,10,20");
    assertThat(findings(bands(table, new int[] {0, 1}, 2, 3)))
        .containsExactly("OVERLAP a | b | c 10..15 [2, 3]");
  }

  @Test
  void overlapsGapsReversedAndOpenEndsAreNamedWithTheirRows() {
    MemoryTable table =
        MemoryTable.of(
            "m",
            "crop,from,to",
            "oats,,10",
            "oats,10,14",
            "oats,13,16",
            "oats,18,20",
            "oats,30,25",
            "wheat,5,10",
            "wheat,10,",
            ",1,2");
    BandReport report = bands(table, new int[] {0}, 1, 2);
    assertThat(findings(report))
        .containsExactlyInAnyOrder(
            "OPEN oats ..10 [1]",
            "OVERLAP oats 13..14 [2, 3]",
            "GAP oats 16..18 [3, 4]",
            "REVERSED oats 30..25 [5]",
            "OPEN wheat 10.. [7]");
    assertThat(report.rows()).isEqualTo(8);
    assertThat(report.partitions()).isEqualTo(2);
    assertThat(report.blankRows()).isEqualTo(1);
    assertThat(report.count(Kind.GAP)).isEqualTo(1);
  }

  @Test
  void lowerEndsAloneMayOnlyStandTwice() {
    MemoryTable table =
        MemoryTable.of("p", "crop,from", "oats,10", "oats,10.0", "oats,20", "wheat,10");
    assertThat(findings(bands(table, new int[] {0}, 1)))
        .containsExactly("SAME_START oats 10.0.. [1, 2]");
  }

  @Test
  void datesAreBandsTooAndWhatIsNoDateIsNamed() {
    MemoryTable table =
        MemoryTable.of("p", "from,to", "2026-01-01,2026-02-01", "2026-02-03,2026-03-01");
    assertThat(findings(bands(table, new int[0], 0, 1)))
        .containsExactly("GAP  2026-02-01..2026-02-03 [1, 2]");
    MemoryTable mixed =
        MemoryTable.of(
            "p", "from,to", "2026-01-01,2026-02-01", "2026-02-03,1 March", "2026-03-01,");
    assertThatThrownBy(() -> bands(mixed, new int[0], 0, 1))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 2: \"1 March\" is not a date");
  }

  /** Against counting, for each half step, how many bands hold it. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
  void gapsAndOverlapsAreThoseOfCounting(long seed) {
    Random random = new Random(seed);
    List<@Nullable String[]> rows = new ArrayList<>();
    int[][] bands = new int[1 + random.nextInt(6)][];
    for (int i = 0; i < bands.length; i++) {
      int from = random.nextInt(20);
      bands[i] = new int[] {from, from + 1 + random.nextInt(6)};
      rows.add(new @Nullable String[] {"" + bands[i][0], "" + bands[i][1]});
    }
    BandReport report =
        bands(new MemoryTable("b", List.of("from", "to"), rows, 4), new int[0], 0, 1);
    int lowest = Integer.MAX_VALUE;
    int highest = 0;
    for (int[] band : bands) {
      lowest = Math.min(lowest, band[0]);
      highest = Math.max(highest, band[1]);
    }
    boolean gap = false;
    boolean overlap = false;
    for (int at = lowest; at < highest; at++) {
      int holding = 0;
      for (int[] band : bands) {
        holding += band[0] <= at && at < band[1] ? 1 : 0;
      }
      gap |= holding == 0;
      overlap |= holding > 1;
    }
    assertThat(report.count(Kind.GAP) > 0).isEqualTo(gap);
    assertThat(report.count(Kind.OVERLAP) + report.count(Kind.SAME_START) > 0).isEqualTo(overlap);
  }
}
