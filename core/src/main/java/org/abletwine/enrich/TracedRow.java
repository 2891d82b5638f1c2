package org.abletwine.enrich;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One transaction on its way through an enrichment.
 *
 * @param number its row, 1-based, header not counted
 * @param read its cells as they were read, by column
 * @param steps what each step made of it; it ends early when a step leaves the row out
 */
public record TracedRow(long number, Map<String, @Nullable String> read, List<StepTrace> steps) {

  /** Copies map and list. */
  public TracedRow {
    read = Collections.unmodifiableMap(new LinkedHashMap<>(read));
    steps = List.copyOf(steps);
  }
}
