package org.abletwine.cluster;

import java.util.List;
import org.abletwine.cli.ResultText;
import org.abletwine.plan.PlanInParts;
import org.abletwine.plan.PlannedRun;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.apache.flink.api.common.accumulators.ListAccumulator;

/** Puts together what all have written and counted, and hands what to tell of it to the client. */
final class Finish extends Gather<String> {
  private static final long serialVersionUID = 1L;

  /** The name of what is told: first the exit status, then the text. */
  static final String TOLD = "told";

  private static final int DATA = 1;
  private static final int USAGE = 2;
  private static final int CONTROL = 3;

  private final Dividing dividing;
  private final Shown shown;

  /**
   * How a run is told.
   *
   * @param plan the plan, as it was named
   * @param all whether every figure is wanted
   * @param quiet whether only what fails is wanted
   * @param json whether as JSON
   * @param lenient whether controls that do not hold are only reported
   */
  record Shown(String plan, boolean all, boolean quiet, boolean json, boolean lenient)
      implements java.io.Serializable {}

  Finish(Dividing dividing, Shown shown) {
    this.dividing = dividing;
    this.shown = shown;
  }

  @Override
  void all(List<String> failures) {
    try {
      PlanInParts plan = Opened.of(dividing.sharing(), getRuntimeContext());
      PlannedRun.Result result = plan.exchange(dividing.rounds()).finish(failures);
      boolean holds = result.record().holds() || shown.lenient();
      tell(
          holds ? 0 : CONTROL,
          shown.json()
              ? ResultText.json(result)
              : ResultText.of(result, shown.plan(), plan.drafts(), shown.all(), shown.quiet()));
    } catch (DataException e) {
      tell(DATA, String.valueOf(e.getMessage()));
    } catch (SettingException e) {
      tell(USAGE, String.valueOf(e.getMessage()));
    }
  }

  private void tell(int status, String text) {
    ListAccumulator<String> told = new ListAccumulator<>();
    told.add(status + " " + text);
    getRuntimeContext().addAccumulator(TOLD, told);
  }
}
