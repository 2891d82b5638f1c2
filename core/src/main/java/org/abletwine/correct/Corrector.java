package org.abletwine.correct;

import org.abletwine.step.run.StepWorker;
import org.abletwine.table.carry.Carrier;

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

  @Override
  public void merge(StepWorker worker) {
    Corrector other = (Corrector) worker;
    rows += other.rows;
    changed += other.changed;
    for (int line = 0; line < uses.length; line++) {
      uses[line] += other.uses[line];
    }
  }

  @Override
  public void carry(Carrier carrier) {
    rows = carrier.number(rows);
    changed = carrier.number(changed);
    carrier.numbers(uses);
  }
}
