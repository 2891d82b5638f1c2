package org.abletwine.plan;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowFilter;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.jspecify.annotations.Nullable;

/**
 * The keys that a lookup can find, those of rows that its condition lets pass, as written and as
 * compared: to say what is near a key that it does not find. The reference is read for them.
 */
final class ReferenceKeys {
  /** Parts the parts of a key where it is told. */
  static final String PARTED = " | ";

  private final Lookup lookup;
  private final List<String> compared = new ArrayList<>();
  private final List<String> shown = new ArrayList<>();
  private final Set<String> known;
  private @Nullable NearKeys near;

  /**
   * @param lookup a lookup all of whose key parts must be equal
   */
  ReferenceKeys(Lookup lookup) {
    this.lookup = lookup;
    Table reference = lookup.reference();
    int[] columns =
        lookup.keyParts().stream()
            .mapToInt(part -> reference.schema().indexOf(part.theirs()))
            .toArray();
    Map<String, String> keys = new LinkedHashMap<>();
    forEachRow(
        reference,
        lookup.condition(),
        (batch, row) -> {
          List<String> parts = new ArrayList<>();
          for (int column : columns) {
            String part = batch.column(column).get(row);
            if (part == null) {
              return;
            }
            parts.add(part.strip());
          }
          keys.putIfAbsent(compared(parts), String.join(PARTED, parts));
        });
    keys.forEach(
        (key, text) -> {
          compared.add(key);
          shown.add(text);
        });
    known = keys.keySet();
  }

  /** Whether what is near a key of a lookup can be told: nothing is found by a rule. */
  static boolean canTell(Lookup lookup) {
    return lookup.keyParts().stream().allMatch(KeyPart::equal);
  }

  /** A key of ours as it is compared. */
  private String compared(List<String> parts) {
    StringBuilder key = new StringBuilder();
    for (int part = 0; part < parts.size(); part++) {
      String text = parts.get(part).strip();
      for (NormaliseStep step : lookup.steps(lookup.keyParts().get(part))) {
        text = step.apply(text);
      }
      key.append(part == 0 ? "" : NearKeys.PART).append(text);
    }
    return key.toString();
  }

  /** Whether there is a key of one part. */
  boolean has(String key) {
    return known.contains(compared(List.of(key)));
  }

  /**
   * What is nearest to each of some keys.
   *
   * @param keys the keys as they are told, parts parted by {@value #PARTED}
   * @return for each the nearest; null where nothing is near
   */
  List<@Nullable NearMiss> nearest(List<String> keys) {
    if (near == null) {
      near = new NearKeys(compared, shown);
    }
    int parts = lookup.keyParts().size();
    List<String> wanted =
        keys.stream()
            .map(key -> compared(parts == 1 ? List.of(key) : List.of(key.split(" \\| ", parts))))
            .toList();
    List<@Nullable NearMiss> nearest = new ArrayList<>();
    for (List<NearMiss> found : near.nearest(wanted, 1)) {
      nearest.add(found.isEmpty() ? null : found.get(0));
    }
    return nearest;
  }

  /** How a near miss is judged, in a word. */
  static String judged(@Nullable NearMiss miss) {
    return miss == null ? "none" : miss.clear() ? "clear" : miss.weak() ? "weak" : "likely";
  }

  /** Takes rows one by one. */
  interface RowAction {
    void take(Batch batch, int row);
  }

  static void forEachRow(Table table, @Nullable String condition, RowAction action) {
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
}
