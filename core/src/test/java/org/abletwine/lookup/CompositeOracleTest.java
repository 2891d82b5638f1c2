package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.TreeSet;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.key.Normalise;
import org.abletwine.key.StepOracle;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Composite keys of two to five parts, each with steps of its own, on random tables: rows found,
 * blank parts, rows won by each step, collisions and rows there would be, against comparing every
 * pair of rows part by part.
 */
class CompositeOracleTest {
  private static final String[] STEPS = {
    "trim", "ignore-case", "drop-leading-zeros", "drop-suffix=/W", "ignore-accents", "first=2"
  };
  private static final String[] WORDS = {
    "a", "A", " a", "b", "bb", "0b", "b/W", "é", "E", "ab", "a ", "00", "0", "c"
  };

  private Random random = new Random();
  private int parts;
  private final List<List<String>> steps = new ArrayList<>();
  private MemoryTable ours = MemoryTable.of("ours", "x");
  private MemoryTable theirs = MemoryTable.of("theirs", "x");

  private MemoryTable table(String name, String prefix, int rows, int more) {
    List<String> names = new ArrayList<>();
    for (int part = 0; part < parts + more; part++) {
      names.add(prefix + part);
    }
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      @Nullable String[] line = new String[names.size()];
      for (int part = 0; part < line.length; part++) {
        boolean none = random.nextInt(14) == 0;
        line[part] = none ? null : WORDS[random.nextInt(2 + random.nextInt(WORDS.length - 1))];
      }
      cells.add(line);
    }
    return new MemoryTable(name, names, cells, 1 + random.nextInt(40));
  }

  /** A key part after its first steps; null when nothing is left. */
  private @Nullable String stepped(@Nullable String cell, int part, int count) {
    String value = cell;
    for (int i = 0; i < Math.min(count, steps.get(part).size()) && value != null; i++) {
      value = StepOracle.apply(steps.get(part).get(i), value);
    }
    return value == null || value.isEmpty() ? null : value;
  }

  /** Whether two rows have equal keys after so many steps. */
  private boolean equal(int our, int their, int count) {
    for (int part = 0; part < parts; part++) {
      String one = stepped(ours.cell(our, part), part, count);
      if (one == null || !one.equals(stepped(theirs.cell(their, part), part, count))) {
        return false;
      }
    }
    return true;
  }

  private List<Integer> fitting(int our) {
    List<Integer> rows = new ArrayList<>();
    for (int their = 0; their < theirs.rowCount(); their++) {
      if (equal(our, their, Integer.MAX_VALUE)) {
        rows.add(their);
      }
    }
    return rows;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16})
  void agreesWithComparingPartByPart(long seed) {
    random = new Random(seed);
    parts = 2 + random.nextInt(4);
    ours = table("ours", "o", 300, 0);
    theirs = table("theirs", "t", 150, 1);
    Lookup lookup = Lookup.in(theirs).bring("t" + parts + " as got");
    int most = 0;
    for (int part = 0; part < parts; part++) {
      List<String> own = new ArrayList<>();
      for (int i = random.nextInt(4); i > 0; i--) {
        own.add(STEPS[random.nextInt(STEPS.length)]);
      }
      steps.add(own);
      most = Math.max(most, own.size());
      lookup = lookup.key(new KeyPart("o" + part, "t" + part, Normalise.parse(own)));
    }
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(ours).lookup(lookup.markAs("outcome")).build().writeTo(sink).lookups().get(0);

    long[] blank = new long[parts];
    long added = 0;
    long[] gained = new long[most + 1];
    for (int row = 0; row < ours.rowCount(); row++) {
      boolean anyBlank = false;
      for (int part = 0; part < parts; part++) {
        boolean none = stepped(ours.cell(row, part), part, Integer.MAX_VALUE) == null;
        blank[part] += none ? 1 : 0;
        anyBlank |= none;
      }
      List<Integer> rows = fitting(row);
      added += Math.max(1, rows.size());
      boolean agree =
          rows.stream()
              .allMatch(
                  r -> Objects.equals(theirs.cell(r, parts), theirs.cell(rows.get(0), parts)));
      String outcome =
          anyBlank ? "blank-key" : rows.isEmpty() ? "unmatched" : agree ? "matched" : "ambiguous";
      assertThat(sink.cell(row, "outcome")).as("row %s", row).isEqualTo(outcome);
      assertThat(sink.cell(row, "got"))
          .isEqualTo(outcome.equals("matched") ? theirs.cell(rows.get(0), parts) : null);
      if (outcome.equals("matched")) {
        int stage = 0;
        while (!equal(row, rows.get(0), stage)) {
          stage++;
        }
        gained[stage]++;
      }
    }
    assertThat(figures.blankParts().stream().mapToLong(Share::rows).toArray()).isEqualTo(blank);
    assertThat(figures.fits().rowsIfEach()).isEqualTo(added);
    assertThat(figures.matchedBy().stream().mapToLong(Share::rows).sum())
        .isEqualTo(figures.matched());
    assertThat(figures.matchedBy().get(0).rows()).as("as written").isEqualTo(gained[0]);
    assertThat(figures.reference().collisions()).isEqualTo(collisions());
  }

  /** Keys of theirs that are one after the steps, but were written in more than one way. */
  private long collisions() {
    Map<List<String>, TreeSet<String>> written = new LinkedHashMap<>();
    for (int row = 0; row < theirs.rowCount(); row++) {
      List<String> key = new ArrayList<>();
      StringBuilder raw = new StringBuilder();
      for (int part = 0; part < parts; part++) {
        String value = stepped(theirs.cell(row, part), part, Integer.MAX_VALUE);
        key.add(String.valueOf(value));
        raw.append('|').append(theirs.cell(row, part));
        if (value == null) {
          key.clear();
          break;
        }
      }
      if (!key.isEmpty()) {
        written.computeIfAbsent(key, k -> new TreeSet<>()).add(raw.toString());
      }
    }
    return written.values().stream().filter(ways -> ways.size() > 1).count();
  }
}
