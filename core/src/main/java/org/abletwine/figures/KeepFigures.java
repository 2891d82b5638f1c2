package org.abletwine.figures;

/**
 * What a row filter counted.
 *
 * @param condition the condition
 * @param rows rows that reached the step
 * @param leftOut rows left out
 * @param unknown those of them for which the condition was unknown, because something was null
 * @param file where they were written; empty for nowhere
 */
public record KeepFigures(String condition, long rows, long leftOut, long unknown, String file)
    implements StepFigures {
  @Override
  public String name() {
    return condition;
  }
}
