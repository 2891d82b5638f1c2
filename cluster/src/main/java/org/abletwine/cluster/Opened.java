package org.abletwine.cluster;

import java.util.HashMap;
import java.util.Map;
import org.abletwine.plan.PlanExchange;
import org.abletwine.plan.PlanInParts;
import org.apache.flink.api.common.functions.RuntimeContext;

/**
 * The plans that tasks of this process have opened: the tasks of one run share one, and with it the
 * references. The engine loads these classes anew for each job, and lets them go with it.
 */
final class Opened {
  private static final Map<String, PlanInParts> PLANS = new HashMap<>();

  private Opened() {}

  /**
   * The plan of a run, opened by the first task that asks for it.
   *
   * @param sharing what all processes of the run have in common
   * @param task the task, to know when the engine lets the job go
   */
  static PlanInParts of(PlanInParts.Sharing sharing, RuntimeContext task) {
    synchronized (PLANS) {
      PlanInParts known = PLANS.get(sharing.run());
      if (known == null) {
        known = PlanInParts.open(sharing);
        PLANS.put(sharing.run(), known);
        task.registerUserCodeClassLoaderReleaseHookIfAbsent(
            sharing.run(), () -> closed(sharing.run()));
      }
      return known;
    }
  }

  /** How the processes of a run divide references among them. */
  static PlanExchange exchange(Dividing dividing, RuntimeContext task) {
    return of(dividing.sharing(), task).exchange(dividing.rounds());
  }

  private static void closed(String run) {
    synchronized (PLANS) {
      PlanInParts plan = PLANS.remove(run);
      if (plan != null) {
        plan.close();
      }
    }
  }
}
