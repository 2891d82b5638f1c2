package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;
import org.abletwine.step.run.Trace;
import org.abletwine.table.batch.Batch;
import org.jspecify.annotations.Nullable;

/** Tells of a row that did not match which parts of its key are known, and what is near. */
final class NearTrace {
  private static final int MOST = 3;

  private final KnownParts parts;
  private final Map<String, String> shown = new LinkedHashMap<>();
  private final int count;
  private final boolean hidden;

  /** The keys of a reference, all of whose parts must be equal. */
  NearTrace(Lookup lookup, LoadedReference reference, KnownParts parts) {
    this.parts = parts;
    count = lookup.key.size();
    hidden = lookup.key.stream().anyMatch(lookup::hides);
    for (int row = 0; row < reference.rows().rows(); row++) {
      StringBuilder key = new StringBuilder();
      StringBuilder text = new StringBuilder();
      boolean blank = false;
      for (int part = 0; part < count && !blank; part++) {
        @Nullable String cell = parts.part(row, part);
        blank = cell == null;
        key.append(part == 0 ? "" : NearKeys.PART).append(parts.compared(cell, part));
        text.append(part == 0 ? "" : " | ").append(cell);
      }
      if (!blank) {
        shown.putIfAbsent(key.toString(), text.toString());
      }
    }
  }

  void note(Batch batch, int row, int[] keyColumns, Trace trace) {
    if (parts.tells()) {
      trace.note("parts", parts.of(batch, row, keyColumns));
    }
    if (hidden) {
      trace.note("near misses", "not shown: the key is private");
      return;
    }
    StringBuilder key = new StringBuilder();
    for (int part = 0; part < count; part++) {
      String cell = batch.column(keyColumns[part]).get(row);
      key.append(part == 0 ? "" : NearKeys.PART).append(parts.compared(cell, part));
    }
    NearKeys near = new NearKeys(List.copyOf(shown.keySet()), List.copyOf(shown.values()));
    List<String> told = new ArrayList<>();
    for (NearMiss miss : near.search().nearest(key.toString(), MOST)) {
      told.add(Trace.shown(miss.key()) + " " + miss.judged());
    }
    trace.note("near misses", told.isEmpty() ? "none" : String.join(", ", told));
  }
}
