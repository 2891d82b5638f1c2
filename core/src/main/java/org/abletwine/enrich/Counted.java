package org.abletwine.enrich;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.StepWorker;
import org.abletwine.step.run.TakenElsewhere;
import org.abletwine.table.Table;
import org.abletwine.table.carry.Carrier;

/**
 * What all workers together have counted.
 *
 * @param rowsIn rows read
 * @param rowsOut rows that came out
 * @param bytesIn bytes read
 * @param steps for each step a worker to which all others were added
 */
record Counted(long rowsIn, long rowsOut, long bytesIn, List<StepWorker> steps) {

  /** Carries what was counted to another process, or takes it from there. */
  Counted carried(Carrier carrier) {
    Counted all =
        new Counted(
            carrier.number(rowsIn), carrier.number(rowsOut), carrier.number(bytesIn), steps);
    steps.forEach(step -> step.carry(carrier));
    return all;
  }

  private static Counted nothing(List<PreparedStep> prepared) {
    List<StepWorker> workers = new ArrayList<>();
    prepared.forEach(step -> workers.add(step.worker(Exceptions.NONE)));
    return new Counted(0, 0, 0, workers);
  }

  private Counted and(Counted other) {
    for (int step = 0; step < steps.size(); step++) {
      steps.get(step).merge(other.steps.get(step));
    }
    return new Counted(
        rowsIn + other.rowsIn, rowsOut + other.rowsOut, bytesIn + other.bytesIn, steps);
  }

  /** Adds up what other processes have counted, and tells what they have met. */
  static Counted elsewhere(
      TakenElsewhere taken, List<PreparedStep> prepared, Table transactions, RunContext context) {
    Sum sum = new Sum(nothing(prepared));
    Runnable ended =
        context.progress().reading(transactions, () -> sum.all.bytesIn, () -> sum.all.rowsIn);
    try {
      taken.each(
          part -> {
            Carrier carrier = Carrier.from(part);
            for (Exceptions.Found found = HandedOn.next(carrier);
                found != null;
                found = HandedOn.next(carrier)) {
              context.exceptions().found(found);
            }
            sum.add(nothing(prepared).carried(carrier));
          });
    } finally {
      ended.run();
    }
    return sum.all;
  }

  /** What was added up so far. Looked at by whoever shows progress. */
  private static final class Sum {
    private volatile Counted all;

    Sum(Counted nothing) {
      all = nothing;
    }

    void add(Counted part) {
      all = all.and(part);
    }
  }
}
