package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lookups on random tables against the nested loop, and the sums that the figures must keep. */
class LookupOracleTest {
  private static final String[] PIECES = {"a", "b", "ab", "bc", "abc", "é", "ж", "0", "00"};

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20})
  void agreesWithTheNestedLoop(long seed) {
    Random random = new Random(seed);
    int parts = 1 + random.nextInt(3);
    MemoryTable ours = table("ours", random, random.nextInt(400), parts + 1);
    MemoryTable theirs = table("theirs", random, random.nextInt(120), parts + 2);
    int[] key = new int[parts];
    Lookup lookup = Lookup.in(theirs).bring("c" + parts + " as x", "c" + (parts + 1) + " as y");
    for (int part = 0; part < parts; part++) {
      key[part] = part;
      lookup = lookup.key("c" + part);
    }
    Several several =
        new Several[] {Several.flag(), Several.first(), Several.last()}[random.nextInt(3)];
    lookup =
        lookup
            .several(several)
            .markAs("outcome")
            .whenUnmatched(Fill.fill("x", "none"))
            .whenEmpty(Fill.fill("y", "-"));
    ListSink sink = new ListSink();

    RunRecord run = Enrichment.of(ours).lookup(lookup).build().writeTo(sink);

    long[] outcomes = new long[Outcome.values().length];
    int[] brought = {parts, parts + 1};
    for (int row = 0; row < ours.rowCount(); row++) {
      NestedLoop.Found found = NestedLoop.find(ours, row, key, theirs, key, brought);
      Outcome outcome = found.outcome();
      @Nullable String x = outcome == Outcome.UNMATCHED ? "none" : null;
      @Nullable String y = null;
      if (outcome == Outcome.MATCHED
          || outcome == Outcome.AMBIGUOUS && several.rule() != Several.Rule.FLAG) {
        outcome = Outcome.MATCHED;
        int taken = several.rule() == Several.Rule.LAST ? found.rows().size() - 1 : 0;
        x = theirs.cell(found.rows().get(taken), parts);
        y = theirs.cell(found.rows().get(taken), parts + 1);
        y = y == null ? "-" : y;
      }
      outcomes[outcome.ordinal()]++;
      assertThat(sink.cell(row, "outcome")).isEqualTo(outcome.label());
      assertThat(sink.cell(row, "x")).isEqualTo(x);
      assertThat(sink.cell(row, "y")).isEqualTo(y);
    }
    LookupFigures figures = run.lookups().get(0);
    assertThat(figures.matched()).isEqualTo(outcomes[0]);
    assertThat(figures.unmatched()).isEqualTo(outcomes[1]);
    assertThat(figures.ambiguous()).isEqualTo(outcomes[2]);
    assertThat(figures.blankKey()).isEqualTo(outcomes[3]);
    assertThat(figures.matched() + figures.unmatched() + figures.ambiguous() + figures.blankKey())
        .isEqualTo(run.rowsIn())
        .isEqualTo(ours.rowCount());
    for (LookupFigures.Attribute attribute : figures.attributes()) {
      long nulls = sink.column(attribute.column()).stream().filter(c -> c == null).count();
      assertThat(attribute.nulls()).isEqualTo(nulls);
    }
  }

  private static MemoryTable table(String name, Random random, int rows, int columns) {
    List<String> names = new ArrayList<>();
    for (int column = 0; column < columns; column++) {
      names.add("c" + column);
    }
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      @Nullable String[] line = new String[columns];
      for (int column = 0; column < columns; column++) {
        line[column] = random.nextInt(9) == 0 ? null : word(random);
      }
      cells.add(line);
    }
    return new MemoryTable(name, names, cells, 1 + random.nextInt(50));
  }

  private static String word(Random random) {
    String word = PIECES[random.nextInt(PIECES.length)];
    return switch (random.nextInt(12)) {
      case 0 -> " " + word;
      case 1 -> word + "  ";
      case 2 -> "  ";
      default -> word;
    };
  }
}
