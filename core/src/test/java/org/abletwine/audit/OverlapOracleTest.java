package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.abletwine.MemoryTable;
import org.abletwine.key.StepOracle;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Overlaps of random keys against sets of strings: both directions, and what each step wins. */
class OverlapOracleTest {
  private static final long ENOUGH = 1L << 40;
  private static final String[] FORMS = {"%s", " %s", "%s ", "0%s", "%s/W", "G-%s", "%s"};

  private static @Nullable String form(Random random, String word) {
    String form = FORMS[random.nextInt(FORMS.length)];
    String written = String.format(form, word);
    return switch (random.nextInt(12)) {
      case 0 -> written.toLowerCase(java.util.Locale.ROOT);
      case 1 -> null;
      default -> written;
    };
  }

  private static String stepped(List<String> steps, String key) {
    String value = key;
    for (String step : steps) {
      value = StepOracle.apply(step, value);
    }
    return value;
  }

  private static long matching(
      List<String> steps, List<@Nullable String> ours, Set<String> theirs) {
    Set<String> keys = new HashSet<>();
    theirs.forEach(key -> keys.add(stepped(steps, key)));
    return ours.stream()
        .filter(key -> key != null && !stepped(steps, key).isEmpty())
        .filter(key -> keys.contains(stepped(steps, String.valueOf(key))))
        .count();
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void figuresAreThoseOfSets(long seed) {
    Random random = new Random(seed);
    Set<String> theirs = new HashSet<>();
    for (int i = 0; i < 60; i++) {
      theirs.add("K" + random.nextInt(200) + "X");
    }
    List<@Nullable String> ours = new ArrayList<>();
    for (int i = 0; i < 400; i++) {
      ours.add(form(random, "K" + random.nextInt(220) + "X"));
    }
    OverlapAudit.Report report =
        OverlapAudit.compare(
            table("ours", ours),
            new int[] {0},
            table("theirs", new ArrayList<>(theirs)),
            new int[] {0},
            -1,
            List.of(),
            1_000);

    assertThat(report.rows()).isEqualTo(400);
    assertThat(report.blankRows()).isEqualTo(ours.stream().filter(k -> k == null).count());
    assertThat(report.referenceKeys()).isEqualTo(theirs.size());
    assertThat(report.matchedRows()).isEqualTo(matching(List.of(), ours, theirs));
    for (OverlapAudit.Gain gain : report.alone()) {
      assertThat(gain.rows())
          .as(gain.step())
          .isEqualTo(matching(List.of(gain.step()), ours, theirs) - report.matchedRows());
    }
    assertThat(report.bestMatchedRows()).isEqualTo(matching(report.steps(), ours, theirs));
    long sum = report.best().stream().mapToLong(OverlapAudit.Gain::rows).sum();
    assertThat(report.matchedRows() + sum).as("gains in turn").isEqualTo(report.bestMatchedRows());
    unmatched(report, ours, theirs);
  }

  /** Two columns of keys of all forms, and a measure; or one column, whose ends differ too. */
  private static MemoryTable keys(Random random, int rows, int parts, boolean ours) {
    int different = rows / 4;
    List<@Nullable String[]> all = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      @Nullable String[] cells = new @Nullable String[parts + 1];
      for (int part = 0; part < parts; part++) {
        String key = "k" + random.nextInt(different) + (random.nextInt(3) == 0 ? "é" : "x");
        String end = ours && random.nextInt(4) == 0 ? "-NV" : "";
        cells[part] = random.nextInt(15) == 0 ? null : form(random, key + end);
      }
      cells[parts] = random.nextInt(9) == 0 ? "none" : random.nextInt(80) + ".5";
      all.add(cells);
    }
    List<String> names = parts == 1 ? List.of("a", "kg") : List.of("a", "b", "kg");
    return new MemoryTable(ours ? "ours" : "theirs", names, all, 40);
  }

  /** Keys that do not fit in memory are told apart, counted and compared as those that do. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
  void whatDoesNotFitInMemoryIsComparedAlike(long seed) {
    Random random = new Random(seed);
    int parts = 1 + (int) (seed % 2);
    int[] columns = parts == 1 ? new int[] {0} : new int[] {0, 1};
    MemoryTable ours = keys(random, seed > 8 ? 4_000 : 600, parts, true);
    MemoryTable theirs = keys(random, seed > 8 ? 3_000 : 300, parts, false);
    int measure = seed % 3 == 0 ? -1 : parts;
    List<String> fixed = seed % 5 == 0 ? List.of("trim") : List.of();
    int most = seed % 4 == 0 ? 7 : 60;
    OverlapAudit.Report whole;
    try (Spill spill = new Spill(ENOUGH, null)) {
      whole = OverlapAudit.compare(ours, columns, theirs, columns, measure, fixed, most, spill);
    }
    try (Spill spill = new Spill(1, null)) {
      OverlapAudit.Report divided =
          OverlapAudit.compare(ours, columns, theirs, columns, measure, fixed, most, spill);
      assertThat(whole.nearLeftOut()).isFalse();
      assertThat(divided.nearLeftOut()).isTrue();
      assertThat(withoutNear(divided)).isEqualTo(withoutNear(whole));
      assertThat(divided.unmatched()).allMatch(one -> one.near().isEmpty());
    }
    for (int bits = 14; bits < 26; bits += 4) { // what fits differs
      try (Spill spill = new Spill(1L << bits, null)) {
        OverlapAudit.Report some =
            OverlapAudit.compare(ours, columns, theirs, columns, measure, fixed, most, spill);
        assertThat(withoutNear(some)).as("2^%d bytes", bits).isEqualTo(withoutNear(whole));
        if (!some.nearLeftOut()) {
          assertThat(some).as("2^%d bytes", bits).isEqualTo(whole);
        }
      }
    }
  }

  private static OverlapAudit.Report withoutNear(OverlapAudit.Report report) {
    return new OverlapAudit.Report(
        report.rows(),
        report.blankRows(),
        report.notMeasured(),
        report.keys(),
        report.referenceRows(),
        report.referenceKeys(),
        report.matchedRows(),
        report.matchedKeys(),
        report.usedReferenceKeys(),
        report.alone(),
        report.best(),
        report.steps(),
        report.bestMatchedRows(),
        report.unmatched().stream()
            .map(
                one ->
                    new OverlapAudit.Unmatched(
                        one.key(), one.rows(), one.measure(), one.firstRow(), List.of()))
            .toList(),
        report.unmatchedKeys(),
        false);
  }

  private static void unmatched(
      OverlapAudit.Report report, List<@Nullable String> ours, Set<String> theirs) {
    Set<String> keys = new HashSet<>();
    theirs.forEach(key -> keys.add(stepped(report.steps(), key)));
    Map<String, Long> expected = new HashMap<>();
    Set<String> used = new HashSet<>();
    for (String key : ours) {
      if (key != null && !keys.contains(stepped(report.steps(), key))) {
        expected.merge(key, 1L, Long::sum);
      } else if (key != null) {
        used.add(stepped(report.steps(), key));
      }
    }
    Map<String, Long> found = new HashMap<>();
    report.unmatched().forEach(one -> found.put(one.key(), one.rows()));
    assertThat(found).isEqualTo(expected);
    assertThat(report.unmatchedKeys()).isEqualTo(expected.size());
    assertThat(report.usedReferenceKeys()).isEqualTo(used.size());
    for (int i = 1; i < report.unmatched().size(); i++) {
      assertThat(report.unmatched().get(i).rows())
          .as("most rows first")
          .isLessThanOrEqualTo(report.unmatched().get(i - 1).rows());
    }
  }

  private static MemoryTable table(String name, List<@Nullable String> keys) {
    List<@Nullable String[]> rows = new ArrayList<>();
    keys.forEach(key -> rows.add(new @Nullable String[] {key}));
    return new MemoryTable(name, List.of("k"), rows, 33);
  }
}
