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
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Overlaps of random keys against sets of strings: both directions, and what each step wins. */
class OverlapOracleTest {
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
    OverlapReport report =
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
    for (OverlapReport.Gain gain : report.alone()) {
      assertThat(gain.rows())
          .as(gain.step())
          .isEqualTo(matching(List.of(gain.step()), ours, theirs) - report.matchedRows());
    }
    assertThat(report.bestMatchedRows()).isEqualTo(matching(report.steps(), ours, theirs));
    long sum = report.best().stream().mapToLong(OverlapReport.Gain::rows).sum();
    assertThat(report.matchedRows() + sum).as("gains in turn").isEqualTo(report.bestMatchedRows());
    unmatched(report, ours, theirs);
  }

  private static void unmatched(
      OverlapReport report, List<@Nullable String> ours, Set<String> theirs) {
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
