package org.abletwine.derive;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.total.ControlThat;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Rollups whose groups do not fit in memory come to what they come to in memory. */
class RollupOnDiskTest {
  private static final long ENOUGH = 1L << 40;

  private static final List<String> TOTALS =
      List.of(
          "kg as total",
          "avg(kg)",
          "min(kg) as least",
          "max(note) as last",
          "count(*) as rows",
          "count(kg) as weighed",
          "count(distinct kg) as kinds",
          "count(distinct crop || note) as notes",
          "sum(kg) / count(distinct note) as per_note",
          "sum(kg) / sum(zero) as never");

  @TempDir Path folder;

  private static MemoryTable table(Random random, int rows) {
    int regions = 1 + random.nextInt(60);
    boolean texts = random.nextBoolean();
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      String kg =
          switch (random.nextInt(9)) {
            case 0 -> null;
            case 1 -> random.nextInt(100) + ".25";
            case 2 -> Long.toString(random.nextLong());
            case 3 -> random.nextInt(9) + ".0000000000000000" + random.nextInt(9);
            default -> Integer.toString(random.nextInt(30));
          };
      String region =
          random.nextInt(7) == 0
              ? null
              : (random.nextInt(5) == 0 ? "a region of a long name " : "r")
                  + random.nextInt(regions);
      String note = texts && random.nextInt(40) == 0 ? "x" : "" + random.nextInt(12);
      cells.add(
          new @Nullable String[] {
            region,
            random.nextInt(5) == 0 ? "" : "c" + random.nextInt(3),
            kg,
            random.nextInt(4) == 0 ? null : note,
            "0"
          });
    }
    return new MemoryTable("t", List.of("region", "crop", "kg", "note", "zero"), cells, 100);
  }

  private RunRecord run(MemoryTable table, List<Rollup> rollups, long memory, int workers) {
    Enrichment.Builder builder = Enrichment.of(table);
    rollups.forEach(builder::step);
    builder.step(new ControlThat("count(distinct kg) > 5 and sum(zero) = 0", Evaluation.STRICT));
    return builder.memory(memory, folder).workers(workers).build().writeTo(new ListSink());
  }

  private static List<StepFigures.RolledUp> rollups(RunRecord run) {
    return run.of(StepFigures.RolledUp.class).stream().map(StepFigures.RolledUp::inMemory).toList();
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void groupsOnDiskAreThoseInMemory(long seed) {
    Random random = new Random(seed);
    MemoryTable table = table(random, 20 + random.nextInt(1_500));
    List<Rollup.Shown> shown =
        List.of(
            Rollup.Shown.ALL,
            new Rollup.Shown(List.of("rows desc", "last"), 0, null, List.of()),
            new Rollup.Shown(List.of("kinds", "total desc"), 7, "rows > 2", List.of()));
    List<Rollup> rollups = new ArrayList<>();
    for (List<String> by :
        List.of(List.<String>of(), List.of("region"), List.of("region", "crop", "kg"))) {
      for (Rollup.Shown one : shown) {
        rollups.add(new Rollup(by, TOTALS, one, true, null, table, Evaluation.STRICT));
      }
    }
    RunRecord expected = run(table, rollups, ENOUGH, 1);
    assertThat(expected.of(StepFigures.RolledUp.class)).allMatch(one -> one.onDisk() == 0);
    for (long memory : new long[] {1, 400_000}) {
      for (int workers = 1; workers <= 3; workers += 2) {
        RunRecord run = run(table, rollups, memory, workers);
        assertThat(rollups(run)).isEqualTo(rollups(expected));
        assertThat(run.of(StepFigures.Judged.class))
            .isEqualTo(expected.of(StepFigures.Judged.class));
        if (memory == 1) {
          assertThat(run.of(StepFigures.RolledUp.class)).allMatch(one -> one.onDisk() > 0);
        }
      }
    }
  }

  @Test
  void manyRunsAreMergedAFewAtATime() {
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < 30_000; row++) {
      cells.add(new @Nullable String[] {"g" + row * 7_919L % 10_007, "v" + row % 5});
    }
    MemoryTable table = new MemoryTable("t", List.of("g", "v"), cells, 40);
    Rollup rollup =
        new Rollup(
            List.of("g"),
            List.of("count(*) as rows", "count(distinct v) as kinds"),
            new Rollup.Shown(List.of("rows", "g desc"), 0, null, List.of()),
            true,
            null,
            table,
            Evaluation.STRICT);
    StepFigures.RolledUp expected = rollups(run(table, rollup, ENOUGH)).get(0);
    StepFigures.RolledUp figures = run(table, rollup, 1).of(StepFigures.RolledUp.class).get(0);
    assertThat(figures.inMemory()).isEqualTo(expected);
    assertThat(figures.groups()).hasSize(10_007);
    assertThat(figures.groups().get(10_006)).isEqualTo(expected.groups().get(10_006));
    assertThat(figures.groups().get(3)).as("out of turn").isEqualTo(expected.groups().get(3));
    assertThat(figures.grandTotal()).containsExactly("30000", "5");
  }

  private static RunRecord run(MemoryTable table, Rollup rollup, long memory) {
    return Enrichment.of(table)
        .step(rollup)
        .memory(memory, null)
        .workers(2)
        .build()
        .writeTo(new ListSink());
  }
}
