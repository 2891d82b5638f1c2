package org.abletwine.plan.random;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.InParts;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Random plans against the oracle: the rows as they are written, exceptions, figures and rollups.
 * Any number of them by {@code -Dplans=5000}, from any seed on by {@code -Dplans.seed=1}.
 */
class RandomPlansTest {
  private static final int PLANS = Integer.getInteger("plans", 120);

  /** Of so many plans one is run in parts too: {@code -Dplans.parted=1} for each. */
  private static final int PARTED = Integer.getInteger("plans.parted", 8);

  /** With nothing in memory, each plan that is run in parts: {@code -Dplans.exchanged=true}. */
  private static final boolean EXCHANGED = Boolean.getBoolean("plans.exchanged");

  private static final int SEED = Integer.getInteger("plans.seed", 1);

  private static final Set<String> WRITTEN = Set.of("out.csv", "exceptions.csv", "rollup.csv");

  @TempDir private Path folder;

  @Test
  void agreeWithTryingEveryRow() throws IOException {
    int stopped = 0;
    for (int seed = SEED; seed < SEED + PLANS; seed++) {
      stopped += agrees(seed) ? 0 : 1;
    }
    assertThat(stopped).as("plans that have to stop").isLessThan(1 + PLANS / 4);
  }

  /** Returns false when the run has to stop, and does. */
  private boolean agrees(int seed) throws IOException {
    RandomPlan plan = new RandomPlan(seed, 7_000);
    Path here = Files.createDirectories(folder.resolve("" + seed));
    Files.writeString(here.resolve("tickets.csv"), plan.tickets.write(plan.random));
    for (Grid table : plan.references) {
      Files.writeString(here.resolve(table.name + ".csv"), table.write(plan.random));
    }
    Files.writeString(here.resolve("none.csv"), "a\n");
    Path file = Files.writeString(here.resolve("p.plan.yaml"), plan.text());
    String about = "seed " + seed + "\n" + plan.text();
    Act.Told told = new Act.Told(new ArrayList<>(), new LinkedHashMap<>());
    List<Act.Line> expected = new ArrayList<>();
    try {
      expected = expected(plan, told);
    } catch (Look.Stops e) {
      PlannedRun run = PlanFile.load(file);
      String message = failure(run, about);
      assertThat(here.resolve("out.csv")).as(about).doesNotExist();
      String divided =
          divided(seed, () -> failure(PlanFile.load(file).workers(workers(seed)), about));
      assertThat(divided).as(about).isEqualTo(message);
      assertThat(failure(PlanFile.load(file).memory(1, null), about))
          .as("with nothing in memory, " + about)
          .isEqualTo(message);
      if (seed % PARTED == 0) {
        assertThat(inPartsStops(here, seed)).as("in parts, " + about).isEqualTo(message);
      }
      return false;
    }
    PlannedRun.Result result;
    try {
      result = PlanFile.load(file).run(Progress.NONE);
    } catch (RuntimeException e) {
      throw new AssertionError(about + "\n" + java.util.Arrays.asList(e.getStackTrace()), e);
    }
    List<String> columns = result.record().columns();
    List<String> shown = new ArrayList<>();
    expected.forEach(row -> shown.add(shown(row, columns)));
    List<List<String>> written =
        Grid.parse(Files.readString(here.resolve("out.csv")), plan.delimiter);
    assertThat(written.get(0)).as(about).isEqualTo(columns);
    List<String> got = new ArrayList<>();
    written.subList(1, written.size()).forEach(row -> got.add(shown(row)));
    assertThat(got).as(about).isEqualTo(shown);
    untouchedCellsLeaveAsTheyCame(plan, expected, columns, written, about);
    assertThat(exceptions(here)).as(about).isEqualTo(told.exceptions().stream().sorted().toList());
    figures(result, told, about);
    rollup(plan, here, expected, about);
    Map<String, String> before = outputs(here);
    divided(seed, () -> "" + PlanFile.load(file).workers(workers(seed)).run(Progress.NONE));
    assertThat(outputs(here)).as("by " + workers(seed) + ", " + about).isEqualTo(before);
    PlannedRun.Result divided =
        PlanFile.load(file).memory(1, null).workers(workers(seed)).run(Progress.NONE);
    assertThat(outputs(here)).as("with nothing in memory, " + about).isEqualTo(before);
    assertThat(known(divided)).as("with nothing in memory, " + about).isEqualTo(known(result));
    if (seed % PARTED > 0) {
      return true;
    }
    before.keySet().removeAll(inputs(here));
    PlannedRun.Result parted = inParts(here, seed);
    Map<String, String> joined = outputs(here.resolve("parts"));
    joined.keySet().removeAll(inputs(here));
    assertThat(joined).as("in parts, " + about).isEqualTo(before);
    assertThat(("" + known(parted)).replace("/parts/", "/"))
        .as("in parts, " + about)
        .isEqualTo("" + known(result));
    return true;
  }

  /** The figures of the steps, but for what was on disk. */
  private static List<StepFigures> known(PlannedRun.Result result) {
    return result.record().steps().stream().map(StepFigures::inMemory).toList();
  }

  private static String failure(PlannedRun run, String about) {
    try {
      run.run(Progress.NONE);
    } catch (DataException e) {
      return "" + e.getMessage();
    }
    throw new AssertionError("does not stop: " + about);
  }

  private static int workers(int seed) {
    return 1 + seed % 8;
  }

  /** With the rows cut into pieces of another size: from a row each to all of them at once. */
  private static String divided(int seed, java.util.function.Supplier<String> run) {
    int[] sizes = {1, 100, 1_000, 5_000, 30_000, 1 << 20};
    System.setProperty("org.abletwine.piece", "" + sizes[seed / 8 % sizes.length]);
    try {
      return run.get();
    } finally {
      System.clearProperty("org.abletwine.piece");
    }
  }

  /** The plan run by several processes, in a folder of its own. */
  private static PlannedRun.Result inParts(Path here, int seed) throws IOException {
    Path parts = Files.createDirectories(here.resolve("parts"));
    for (String name : inputs(here)) {
      Files.copy(here.resolve(name), parts.resolve(name), StandardCopyOption.REPLACE_EXISTING);
    }
    int[] sizes = {1, 50, 400, 3_000, 20_000};
    long bytes = Math.max(sizes[seed % sizes.length], Files.size(parts.resolve("tickets.csv")) / 6);
    return InParts.run(
        parts.resolve("p.plan.yaml"),
        Map.of(),
        bytes,
        new Random(seed),
        EXCHANGED || seed % 7 < 2 ? 1 : 0);
  }

  private static List<String> inputs(Path here) throws IOException {
    try (java.util.stream.Stream<Path> files = Files.list(here)) {
      return files
          .map(file -> "" + file.getFileName())
          .filter(name -> !name.endsWith(".json") && !WRITTEN.contains(name))
          .filter(name -> !name.equals("parts"))
          .toList();
    }
  }

  private static String inPartsStops(Path here, int seed) throws IOException {
    try {
      inParts(here, seed);
    } catch (DataException e) {
      assertThat(here.resolve("parts/out.csv")).doesNotExist();
      return String.valueOf(e.getMessage()).replace("parts/", "");
    }
    throw new AssertionError("does not stop");
  }

  /** What was written, all but the run record, which holds times. */
  private static Map<String, String> outputs(Path here) throws IOException {
    Map<String, String> outputs = new TreeMap<>();
    try (java.util.stream.Stream<Path> files = Files.list(here)) {
      for (Path file : files.filter(f -> !f.toString().endsWith(".json")).toList()) {
        if (!file.endsWith("parts")) {
          outputs.put("" + file.getFileName(), InParts.read(file));
        }
      }
    }
    return outputs;
  }

  private static List<Act.Line> expected(RandomPlan plan, Act.Told told) {
    List<Act.Line> rows = new ArrayList<>();
    for (int row = 0; row < plan.tickets.rows.size(); row++) {
      Map<String, @Nullable String> cells = new LinkedHashMap<>();
      for (String column : plan.tickets.columns) {
        cells.put(column, plan.tickets.get(row, column));
      }
      rows.add(new Act.Line(row + 1, cells));
    }
    for (Act act : plan.acts) {
      if (act instanceof Act.Lookup lookup) {
        lookup.look().staying();
        lookup.look().otherwise().forEach(Look::staying);
      }
    }
    for (Act act : plan.acts) {
      rows = act.apply(rows, told);
    }
    return rows;
  }

  private static String shown(Act.Line row, List<String> columns) {
    List<String> cells = new ArrayList<>();
    columns.forEach(column -> cells.add(String.valueOf(row.get(column))));
    return String.join("¦", cells);
  }

  private static String shown(List<String> raw) {
    List<String> cells = new ArrayList<>();
    raw.forEach(cell -> cells.add(String.valueOf(Grid.value(cell))));
    return String.join("¦", cells);
  }

  private static void untouchedCellsLeaveAsTheyCame(
      RandomPlan plan,
      List<Act.Line> rows,
      List<String> columns,
      List<List<String>> written,
      String about) {
    for (int row = 0; row < rows.size(); row++) {
      int number = rows.get(row).number() - 1;
      for (String column : plan.tickets.columns) {
        String value = plan.tickets.get(number, column);
        if (java.util.Objects.equals(rows.get(row).get(column), value)) {
          String raw = plan.tickets.raw.get(number)[plan.tickets.column(column)];
          assertThat(written.get(row + 1).get(columns.indexOf(column)))
              .as(about)
              .isEqualTo(plan.delimiter == ',' ? raw : quoted(raw, plan.delimiter));
        }
      }
    }
  }

  /** A cell that holds what stands between the cells of the output leaves in quotes. */
  private static String quoted(String raw, char delimiter) {
    return raw.startsWith("\"") || raw.indexOf(delimiter) < 0 ? raw : '"' + raw + '"';
  }

  private static List<String> exceptions(Path here) throws IOException {
    List<String> found = new ArrayList<>();
    for (List<String> row : Grid.parse(Files.readString(here.resolve("exceptions.csv")))) {
      String kind = row.get(1);
      if (List.of("unmatched", "ambiguous", "blank-key").contains(kind)) {
        String key = Grid.value(row.get(4));
        found.add(row.get(0) + "/" + kind + "/" + row.get(3) + "/" + (key == null ? "" : key));
      }
    }
    found.sort(null);
    return found;
  }

  private static void figures(PlannedRun.Result result, Act.Told told, String about) {
    for (LookupFigures figures : result.record().lookups()) {
      Map<String, Long> counts = told.figures().getOrDefault(figures.name(), Map.of());
      assertThat(
              List.of(
                  figures.matched(),
                  figures.unmatched(),
                  figures.ambiguous(),
                  figures.blankKey(),
                  figures.notAsked(),
                  figures.outcomes().wouldMatch()))
          .as(figures.name() + " of " + about)
          .isEqualTo(
              List.of(
                  counts.getOrDefault("matched", 0L),
                  counts.getOrDefault("unmatched", 0L),
                  counts.getOrDefault("ambiguous", 0L),
                  counts.getOrDefault("blank-key", 0L),
                  counts.getOrDefault("not-asked", 0L),
                  counts.getOrDefault("would", 0L)));
      long misses = figures.misses().stream().mapToLong(LookupFigures.Miss::rows).sum();
      assertThat(misses).as(about).isLessThanOrEqualTo(figures.unmatched() + figures.blankKey());
    }
  }

  private static void rollup(RandomPlan plan, Path here, List<Act.Line> rows, String about)
      throws IOException {
    if (plan.rollupBy == null) {
      return;
    }
    Map<String, long[]> groups = new TreeMap<>();
    for (Act.Line row : rows) {
      long[] group =
          groups.computeIfAbsent(String.valueOf(row.get(plan.rollupBy)), g -> new long[2]);
      group[0]++;
      group[1] += Long.parseLong(String.valueOf(row.get("id")));
    }
    List<String> expected = new ArrayList<>();
    groups.forEach((group, totals) -> expected.add(group + "¦" + totals[0] + "¦" + totals[1]));
    List<String> got = new ArrayList<>();
    List<List<String>> written = Grid.parse(Files.readString(here.resolve("rollup.csv")));
    written.subList(1, written.size()).forEach(row -> got.add(shown(row)));
    assertThat(got).as(about).containsExactlyInAnyOrderElementsOf(expected);
  }
}
