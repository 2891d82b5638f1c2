package org.abletwine.step;

/**
 * What a run offers to its steps.
 *
 * @param progress told about tables being read
 * @param exceptions told about rows that need attention
 * @param trace told what each step makes of a row; {@link Trace#NONE} for a usual run
 * @param writes whether steps may write files of their own; not so for a preview or a trace
 */
public record RunContext(Progress progress, Exceptions exceptions, Trace trace, boolean writes) {
  /** Tells nobody about anything. */
  public static final RunContext QUIET = new RunContext(Progress.NONE, Exceptions.NONE);

  /** Tells nobody about anything, and lets steps write no files. */
  public static final RunContext PREVIEW =
      new RunContext(Progress.NONE, Exceptions.NONE, Trace.NONE, false);

  /** Offers progress and exceptions, and traces nothing. */
  public RunContext(Progress progress, Exceptions exceptions) {
    this(progress, exceptions, Trace.NONE, true);
  }
}
