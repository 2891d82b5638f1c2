package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.abletwine.MemoryTable;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.Duplicates;
import org.abletwine.match.near.NearKeys;
import org.abletwine.match.near.NearSearch;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class AuditTest {
  private static final List<String> CODES =
      List.of("000123A", "000456B", "000789C", "001000D", "002000E");

  private static MemoryTable column(String name, List<String> values) {
    List<@Nullable String[]> rows = new ArrayList<>();
    values.forEach(value -> rows.add(new String[] {value}));
    return new MemoryTable(name, List.of("k"), rows, 4);
  }

  @Test
  void overlapMeasuresBothWaysAndProposesTheBestSteps() {
    MemoryTable theirs = column("theirs", CODES);
    MemoryTable ours =
        column(
            "ours",
            List.of(
                "000123A", " 000123A", "000456b", "456B", "000798C", "ZZ", "000123A", "001000D/W"));
    OverlapAudit.Report report =
        OverlapAudit.compare(ours, new int[] {0}, theirs, new int[] {0}, -1, List.of(), 10);
    assertThat(report.rows()).isEqualTo(8);
    assertThat(report.matchedRows()).isEqualTo(2);
    assertThat(report.bestMatchedRows()).isEqualTo(6);
    assertThat(report.best())
        .extracting(OverlapAudit.Gain::step)
        .containsExactlyInAnyOrder("trim", "ignore-case", "drop-leading-zeros", "drop-suffix=/W");
    assertThat(report.steps()).startsWith("trim", "drop-suffix=/W");
    assertThat(report.alone()).extracting(OverlapAudit.Gain::step).contains("digits-only");
    assertThat(report.unmatchedKeys()).isEqualTo(2);
    assertThat(report.unmatched().get(0).key()).isEqualTo("000798C");
    assertThat(report.unmatched().get(1).near()).isEmpty();
    assertThat(report.usedReferenceKeys()).isEqualTo(3);
  }

  @Test
  void aMeasureOrdersTheUnmatchedKeysByTheirTotal() {
    MemoryTable ours =
        MemoryTable.of("o", "k,kg", "A,1.5", "B,2", "A,x", "B,0.25", "C,", "000123A,9");
    OverlapAudit.Report report =
        OverlapAudit.compare(
            ours, new int[] {0}, column("t", CODES), new int[] {0}, 1, List.of(), 10);
    assertThat(report.unmatched())
        .extracting(u -> u.key() + " " + u.measure())
        .containsExactly("B 2.25", "A 1.5", "C 0");
    assertThat(report.notMeasured()).isEqualTo(1);
  }

  @Test
  void nearMissesFindOneSlipAnywhere() {
    List<String> keys = new ArrayList<>();
    Random random = new Random(3);
    for (int i = 0; i < 20_000; i++) {
      keys.add(String.format("%08d", random.nextInt(100_000_000)));
    }
    NearSearch near = new NearKeys(keys).search();
    int found = 0;
    for (int i = 0; i < 400; i++) {
      String right = keys.get(random.nextInt(keys.size()));
      int at = random.nextInt(8);
      String wrong = right.substring(0, at) + "x" + right.substring(at + 1);
      found += near.nearest(wrong, 3).stream().anyMatch(m -> m.key().equals(right)) ? 1 : 0;
    }
    assertThat(found).as("of 400").isGreaterThan(380);
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5})
  void duplicatesAgreeWithCountingByHand(long seed) {
    Random random = new Random(seed);
    List<@Nullable String[]> rows = new ArrayList<>();
    Map<String, List<Integer>> expected = new HashMap<>();
    for (int row = 1; row <= 500; row++) {
      String a = random.nextInt(20) == 0 ? null : "a" + random.nextInt(15);
      String b = "b" + random.nextInt(15);
      rows.add(new String[] {a, b, "v" + random.nextInt(2)});
      if (a != null) {
        expected.computeIfAbsent(a + "|" + b, k -> new ArrayList<>()).add(row);
      }
    }
    List<String> names = List.of("a", "b", "v");
    agree(new MemoryTable("t", names, rows, 7), rows, expected);
    agree(Tables.of("t", names, rows.stream().map(Arrays::asList).toList()), rows, expected);
  }

  private static void agree(
      Table table, List<@Nullable String[]> rows, Map<String, List<Integer>> expected) {
    DuplicateAudit audit = DuplicateAudit.of(table, new int[] {0, 1}, List.of(Normalise.trim()));
    DuplicateAudit.Report report = audit.report(1000);
    List<List<Integer>> groups = expected.values().stream().filter(g -> g.size() > 1).toList();
    assertThat(report.duplicateKeys()).isEqualTo(groups.size());
    assertThat(report.keys()).isEqualTo(expected.size());
    assertThat(report.examples())
        .extracting(DuplicateAudit.DuplicateKey::rows)
        .containsExactlyElementsOf(
            groups.stream().sorted(Comparator.comparing(group -> group.get(0))).toList());
    long alike =
        groups.stream()
            .filter(g -> g.stream().map(r -> rows.get(r - 1)[2]).distinct().count() == 1)
            .count();
    assertThat(report.identicalKeys()).isEqualTo(alike);
    assertThat(500 - audit.leftOutBy(Duplicates.first()).cardinality())
        .isEqualTo(expected.size() + report.blankRows());
  }

  @Test
  void theFewestColumnsThatMakeAKeyUniqueAreFound() {
    MemoryTable table =
        MemoryTable.of(
            "p",
            "commodity,grade,from,price",
            "oats,M1,1,5",
            "oats,M1,2,5",
            "oats,M2,1,5",
            "oats,M2,2,5");
    DuplicateAudit.Report report = DuplicateAudit.of(table, new int[] {0}, List.of()).report(5);
    assertThat(report.uniqueWith()).containsExactly(List.of("grade", "from"));
  }

  @Test
  void profilesShowWhatAColumnHolds() {
    MemoryTable table =
        MemoryTable.of(
            "t",
            "id,code,kg,on,half",
            "1,A1,1.5,2026-01-01,x",
            "2, a1,2,2026-01-02,",
            "3,a1,,2026-01-03,X");
    TableProfile profile = TableProfile.of(table);
    assertThat(profile.columns())
        .extracting(TableProfile.Column::type)
        .containsExactly("whole number", "text", "decimal", "date", "text");
    TableProfile.Column code = profile.columns().get(1);
    assertThat(code.straySpaces()).isEqualTo(1);
    assertThat(code.caseForms()).as("A1 and a1").isEqualTo(1);
    assertThat(profile.columns().get(2).nulls()).isEqualTo(1);
    assertThat(
            profile.columns().stream()
                .filter(TableProfile.Column::unique)
                .map(TableProfile.Column::name))
        .containsExactly("id", "code", "on");
    MemoryTable pairs = MemoryTable.of("p", "a,b,c", "1,1,x", "1,2,x", "2,1,x", "2,2,x");
    assertThat(TableProfile.of(pairs).pairs()).containsExactly(List.of("a", "b"));
  }

  @Test
  void largeCountsAreEstimatedWithinTheirError() {
    HashCounter counter = new HashCounter(1_000);
    for (int i = 0; i < 500_000; i++) {
      counter.add(HashCounter.mixed(OneRow.of("" + i % 200_000).column(0).hash(0)));
    }
    assertThat(counter.exact()).isFalse();
    assertThat((double) counter.count())
        .isCloseTo(200_000, within(200_000 * 4 * HashCounter.ERROR));
  }

  @Test
  void duplicatesOfKeysThatDoNotFitInMemoryAreTheSame(@TempDir Path folder) {
    Random random = new Random(5);
    for (int size : new int[] {1, 50, 3_000}) {
      String[] rows = new String[size];
      for (int i = 0; i < size; i++) {
        int key = random.nextInt(size);
        rows[i] = (key % 11 == 0 ? "" : " k" + key) + "," + key % 3 + "," + random.nextInt(2);
      }
      MemoryTable table = MemoryTable.of("t", "a,b,v", rows);
      List<NormaliseStep> steps = List.of(Normalise.trim());
      DuplicateAudit expected = DuplicateAudit.of(table, new int[] {0, 1}, steps);
      try (Spill spill = new Spill(1, folder)) {
        DuplicateAudit parted = DuplicateAudit.of(table, new int[] {0, 1}, steps, spill);
        assertThat(parted.duplicateRows()).isEqualTo(expected.duplicateRows());
        assertThat(parted.leftOutBy(Duplicates.last()))
            .isEqualTo(expected.leftOutBy(Duplicates.last()));
        assertThat(parted.report(20))
            .usingRecursiveComparison()
            .ignoringFields("bytesPerKey")
            .isEqualTo(expected.report(20));
      }
      assertThat(folder).isEmptyDirectory();
    }
  }
}
