package org.abletwine.enrich;

import java.util.List;

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
