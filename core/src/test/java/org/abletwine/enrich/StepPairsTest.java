package org.abletwine.enrich;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.correct.Correction;
import org.abletwine.derive.ArrangeColumns;
import org.abletwine.derive.Coalesce;
import org.abletwine.derive.Compute;
import org.abletwine.derive.FormatColumn;
import org.abletwine.derive.Keep;
import org.abletwine.figures.StepFigures;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Outcome;
import org.abletwine.lookup.Several;
import org.abletwine.lookup.Treatment;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Step;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Every ordered pair of steps, over batches filled in every way and divided between any number of
 * workers, against the same pair over each row alone.
 */
class StepPairsTest {
  private static final Evaluation NULLS = new Evaluation(true, null);
  private static final List<String> NAMES = List.of("id", "code", "n", "day", "text");

  /** Steps that can stand anywhere: each makes its names of the place it is given. */
  private static final List<IntFunction<Step>> STEPS =
      List.of(
          at -> Correction.of("text", fixes()),
          at ->
              new Correction(
                  "text", fixes(), "written", "meant", true, null, List.of(Normalise.trim())),
          at -> Correction.of("code", fixes()),
          at -> lookup(at).key("code"),
          at -> lookup(at).key("code").several(Several.each()),
          at ->
              lookup(at)
                  .key("code")
                  .several(Several.first())
                  .when(Outcome.UNMATCHED, Treatment.drop()),
          at -> lookup(at).key(KeyPart.between("n", "lo", "hi")).several(Several.last()),
          at -> new Compute("sum" + at, "n * 2 + n", NULLS),
          at -> new Compute("joined" + at, "text || code", NULLS),
          at -> new Compute("days" + at, "day - '2026-01-01'", NULLS),
          at -> new Coalesce("one" + at, List.of("text", "n"), "none", "from" + at),
          at -> new Keep("n > 1", null, ours(List.of()), NULLS),
          at -> new Keep("text like '%\"%' or code is null", null, ours(List.of()), NULLS),
          at -> new FormatColumn("n", null, 2, NULLS),
          at -> new ArrangeColumns(Map.of("text", "n", "n", "text"), List.of("code")));

  private static MemoryTable fixes() {
    return new MemoryTable(
        "fixes",
        List.of("written", "meant"),
        List.of(
            new String[] {"a", "b,b"},
            new String[] {"b\"", "\"c\""},
            new String[] {"A1", "B2"},
            new String[] {"oats", "oats rye"}),
        3);
  }

  private static Lookup lookup(int at) {
    MemoryTable reference =
        new MemoryTable(
            "ref" + at,
            List.of("code", "lo", "hi", "value"),
            List.of(
                new @Nullable String[] {"A1", "0", "2", "v\"1"},
                new @Nullable String[] {"B2", "1", "3", "vé2"},
                new @Nullable String[] {"A1", "2", null, null},
                new @Nullable String[] {"C3", null, "0", "v,4"},
                new @Nullable String[] {"C3", "5", "9", "v,4"}),
            3);
    return Lookup.in(reference).bring("value as value" + at).markAs("mark" + at);
  }

  private static MemoryTable ours(List<@Nullable String[]> rows) {
    return new MemoryTable("ours", NAMES, rows, 3);
  }

  private static List<@Nullable String[]> rows() {
    List<@Nullable String[]> rows = new ArrayList<>();
    String[] codes = {"A1", " A1", null, "B2", "C3", "Z9", ""};
    String[] numbers = {"1", "2.50", null, "7", "x", "0"};
    String[] texts = {"a", "b\"", "oats", null, "é\"a\"", "", "x,y", "b\"b\""};
    String[] days = {"2026-03-01", null, "2026-01-01", "never"};
    for (int row = 0; row < 19; row++) {
      rows.add(
          new @Nullable String[] {
            "" + row,
            codes[row % codes.length],
            numbers[row % numbers.length],
            days[row % days.length],
            texts[row % texts.length]
          });
    }
    return rows;
  }

  static IntStream firsts() {
    return IntStream.range(0, STEPS.size());
  }

  @ParameterizedTest
  @MethodSource("firsts")
  void aPairIsWorthTheSameForRowsTogetherAndAlone(int first) {
    List<@Nullable String[]> rows = rows();
    for (IntFunction<Step> second : STEPS) {
      Step one = STEPS.get(first).apply(1);
      Step other = second.apply(2);
      String about = one.title() + ", " + other.title();
      if (!Enrichment.of(ours(rows)).step(one).step(other).build().check().isEmpty()) {
        continue; // such as a sum of a column that was formatted
      }
      List<List<@Nullable String>> alone = new ArrayList<>();
      for (@Nullable String[] row : rows) {
        alone.addAll(run(1, ours(java.util.Collections.singletonList(row)), one, other).rows());
      }
      List<StepFigures> figures = List.of();
      for (int workers = 1; workers <= 3; workers++) {
        Ran together = run(workers, ours(rows), one, other);
        assertThat(together.rows()).as(about + " by " + workers).isEqualTo(alone);
        figures = workers == 1 ? together.figures() : figures;
        assertThat(together.figures())
            .as("figures of " + about + " by " + workers)
            .usingRecursiveComparison()
            .isEqualTo(figures);
      }
    }
  }

  /** What a run makes. */
  private record Ran(List<List<@Nullable String>> rows, List<StepFigures> figures) {}

  private static Ran run(int workers, MemoryTable table, Step... steps) {
    ListSink sink = new ListSink();
    Enrichment.Builder builder = Enrichment.of(table);
    for (Step step : steps) {
      builder.step(step);
    }
    return new Ran(sink.rows(), builder.workers(workers).build().writeTo(sink).steps());
  }
}
