package org.abletwine.correct;

import org.abletwine.step.run.StepWorker;

/** Corrects values, and counts what it has done. Belongs to one thread. */
abstract class Corrector implements StepWorker {
  /** How often each line of the list was used. */
  final long[] uses;

  /** Rows seen. */
  long rows;

  /** Rows changed. */
  long changed;

  Corrector(CorrectionList list) {
    uses = new long[list.lines().size()];
  }
}
