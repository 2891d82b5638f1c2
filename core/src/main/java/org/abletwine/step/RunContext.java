package org.abletwine.step;

/**
 * What a run offers to its steps.
 *
 * @param progress told about tables being read
 * @param exceptions told about rows that need attention
 */
public record RunContext(Progress progress, Exceptions exceptions) {
  /** Tells nobody about anything. */
  public static final RunContext QUIET = new RunContext(Progress.NONE, Exceptions.NONE);
}
