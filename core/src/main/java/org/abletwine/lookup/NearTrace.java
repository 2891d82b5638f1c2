package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.abletwine.key.NormaliseStep;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;
import org.abletwine.step.run.Trace;
import org.abletwine.table.batch.Batch;

/** Tells of a row that did not match which parts of its key are known, and what is near. */
final class NearTrace {
  private static final int MOST = 3;

  private final Lookup lookup;
  private final LoadedReference reference;
  private final Map<String, String> shown = new LinkedHashMap<>();
  private final List<Set<String>> known = new ArrayList<>();

  /** The keys of a reference, all of whose parts must be equal. */
  NearTrace(Lookup lookup, LoadedReference reference) {
    this.lookup = lookup;
    this.reference = reference;
    int parts = lookup.key.size();
    for (int part = 0; part < parts; part++) {
      known.add(new HashSet<>());
    }
    int first = lookup.bring.size(); // the cells of the key stand behind those brought
    for (int row = 0; row < reference.rows().rows(); row++) {
      StringBuilder key = new StringBuilder();
      StringBuilder text = new StringBuilder();
      boolean blank = false;
      for (int part = 0; part < parts && !blank; part++) {
        String cell = reference.rows().get(row, first + part);
        blank = cell == null;
        String compared = blank ? "" : compared(cell, part);
        key.append(part == 0 ? "" : NearKeys.PART).append(compared);
        text.append(part == 0 ? "" : " | ").append(cell);
        known.get(part).add(compared);
      }
      if (!blank) {
        shown.putIfAbsent(key.toString(), text.toString());
      }
    }
  }

  private String compared(String cell, int part) {
    String text = cell;
    for (NormaliseStep step : KeyLayout.steps(lookup, lookup.key.get(part))) {
      text = step.apply(text);
    }
    return text;
  }

  void note(Batch batch, int row, int[] keyColumns, Trace trace) {
    StringBuilder key = new StringBuilder();
    List<String> parts = new ArrayList<>();
    boolean all = true;
    for (int part = 0; part < keyColumns.length; part++) {
      String cell = batch.column(keyColumns[part]).get(row);
      String compared = compared(cell == null ? "" : cell, part);
      key.append(part == 0 ? "" : NearKeys.PART).append(compared);
      boolean there = known.get(part).contains(compared);
      all &= there;
      parts.add(lookup.key.get(part).ours() + (there ? " known" : " not"));
    }
    if (keyColumns.length > 1) {
      trace.note(
          "parts",
          all
              ? "each is known, but no row of " + reference.name() + " has them together"
              : String.join(", ", parts));
    }
    NearKeys near = new NearKeys(List.copyOf(shown.keySet()), List.copyOf(shown.values()));
    List<String> told = new ArrayList<>();
    for (NearMiss miss : near.search().nearest(key.toString(), MOST)) {
      told.add(
          Trace.shown(miss.key())
              + String.format(Locale.ROOT, " %.2f", miss.likeness())
              + (miss.clear() ? " clear" : miss.weak() ? " weak" : ""));
    }
    trace.note("near misses", told.isEmpty() ? "none" : String.join(", ", told));
  }
}
