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

  /**
   * What one step made of a row.
   *
   * @param step the step, as a plan begins it
   * @param lines what it saw and did, in order
   */
  public record StepTrace(String step, List<Line> lines) {

    /**
     * Something seen or done.
     *
     * @param label what it is about
     * @param detail what was seen or done
     */
    public record Line(String label, String detail) {}

    /** Copies the list. */
    public StepTrace {
      lines = List.copyOf(lines);
    }
  }
}
