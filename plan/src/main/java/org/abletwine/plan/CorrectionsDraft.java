package org.abletwine.plan;

import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowFilter;
import org.abletwine.formats.csv.CsvRows;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.NearMiss;
import org.abletwine.match.index.NearMisses;
import org.abletwine.step.Exceptions;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/**
 * The draft of corrections a run proposes: unmatched keys of one part, each with the reference key
 * most like it, for a person to accept or not. Lines of an earlier draft that were decided are kept
 * as they are, and their keys are not proposed again.
 */
final class CorrectionsDraft implements Exceptions {
  private static final int MOST_KEYS = 100_000;
  private static final String[] HEADER = {
    "column", "written", "meant", "similarity", "rows", "measure", "accept"
  };

  private final Path target;
  private final Map<String, Lookup> lookups;
  private final Map<String, Map<String, Unmatched>> unmatched = new LinkedHashMap<>();

  /**
   * @param target the draft
   * @param lookups the lookups by name; those with keys of several parts are passed over
   */
  CorrectionsDraft(Path target, Map<String, Lookup> lookups) {
    this.target = target;
    this.lookups = new HashMap<>(lookups);
    this.lookups.values().removeIf(lookup -> lookup.keyParts().size() != 1);
  }

  @Override
  public void found(Found found) {
    if (found.kind().equals("unmatched") && lookups.containsKey(found.step())) {
      Map<String, Unmatched> keys =
          unmatched.computeIfAbsent(found.step(), s -> new LinkedHashMap<>());
      if (keys.size() < MOST_KEYS || keys.containsKey(found.key())) {
        keys.computeIfAbsent(found.key(), key -> new Unmatched()).add(found.measure());
      }
    }
  }

  /** A key and what its rows come to. */
  private static final class Unmatched {
    private long rows;
    private @Nullable BigDecimal measure;

    void add(@Nullable String value) {
      rows++;
      // What is no number is counted with the totals of the lookup.
      BigDecimal more = value == null ? null : DecimalText.read(value);
      if (more != null) {
        measure = measure == null ? more : measure.add(more);
      }
    }

    String measured() {
      return measure == null ? "" : measure.toPlainString();
    }
  }

  /** Writes the draft beside its target; the caller commits it. Returns the lines proposed. */
  Written write() {
    List<String[]> decided = decided();
    Set<String> known = new LinkedHashSet<>();
    decided.forEach(line -> known.add(line[0] + "\n" + line[1]));
    List<String[]> proposed = new ArrayList<>();
    unmatched.forEach((step, keys) -> propose(step, keys, known, proposed));
    proposed.sort(Comparator.comparingLong((String[] line) -> Long.parseLong(line[4])).reversed());
    CsvRows rows = new CsvRows(target, HEADER);
    decided.forEach(rows::row);
    proposed.forEach(rows::row);
    return new Written(rows, proposed.size(), decided.size());
  }

  /** A draft not yet moved into place. */
  record Written(CsvRows rows, int proposed, int kept) {}

  private void propose(
      String step, Map<String, Unmatched> keys, Set<String> known, List<String[]> proposed) {
    Lookup lookup = lookups.get(step);
    if (lookup == null) {
      return;
    }
    String column = lookup.keyParts().get(0).ours();
    NearMisses near = new NearMisses(List.copyOf(keysOf(lookup)));
    keys.forEach(
        (key, rows) -> {
          if (!known.contains(column + "\n" + key)) {
            for (NearMiss miss : near.of(key.strip(), 1)) {
              proposed.add(
                  new String[] {
                    column,
                    key,
                    miss.key(),
                    String.format(Locale.ROOT, "%.3f", miss.similarity()),
                    Long.toString(rows.rows),
                    rows.measured(),
                    ""
                  });
            }
          }
        });
  }

  /** The keys that a lookup can find: those of rows that its condition lets pass. */
  private static Set<String> keysOf(Lookup lookup) {
    Set<String> keys = new LinkedHashSet<>();
    int at = lookup.reference().schema().indexOf(lookup.keyParts().get(0).theirs());
    forEachRow(
        lookup.reference(),
        lookup.condition(),
        (batch, row) -> {
          String key = batch.column(at).get(row);
          if (key != null) {
            keys.add(key.strip());
          }
        });
    return keys;
  }

  private interface RowAction {
    void take(Batch batch, int row);
  }

  private static void forEachRow(Table table, @Nullable String condition, RowAction action) {
    Expression passes = condition == null ? null : RowFilter.parse(condition, table).start();
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        if (passes != null) {
          passes.over(batch);
        }
        for (int row = 0; row < batch.rows(); row++) {
          if (passes == null || passes.isTrue(row)) {
            action.take(batch, row);
          }
        }
      }
    }
  }

  /** Lines of an earlier draft in which a person has filled in accept. */
  private List<String[]> decided() {
    List<String[]> lines = new ArrayList<>();
    if (!Files.exists(target)) {
      return lines;
    }
    Table before = Tables.file(target);
    int[] columns = new int[HEADER.length];
    for (int i = 0; i < HEADER.length; i++) {
      columns[i] = before.schema().indexOf(HEADER[i]);
      if (columns[i] < 0) {
        throw new SettingException(
            "outputs, corrections: "
                + target
                + " is there already and is no draft (it has no column "
                + HEADER[i]
                + "); name another file");
      }
    }
    forEachRow(
        before,
        null,
        (batch, row) -> {
          String[] line = new String[HEADER.length];
          for (int i = 0; i < line.length; i++) {
            @Nullable String cell = batch.column(columns[i]).get(row);
            line[i] = cell == null ? "" : cell;
          }
          if (!line[HEADER.length - 1].isBlank()) {
            lines.add(line);
          }
        });
    return lines;
  }

  /** Refuses early what would only fail at the end. */
  void check() {
    try {
      decided();
    } catch (DataException e) {
      throw new SettingException("outputs, corrections: " + e.getMessage());
    }
  }
}
