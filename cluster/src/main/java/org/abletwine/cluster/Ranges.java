package org.abletwine.cluster;

import java.util.List;
import org.abletwine.plan.PlanInParts;
import org.abletwine.table.batch.Stretch;

/** Makes ranges of whole rows of what was seen of all stretches. */
final class Ranges extends Gather<Stretch.Looked> {
  private static final long serialVersionUID = 1L;

  private final PlanInParts.Sharing sharing;
  private final int slots;

  /**
   * @param slots how many tasks take rows
   */
  Ranges(PlanInParts.Sharing sharing, int slots) {
    this.sharing = sharing;
    this.slots = slots;
  }

  @Override
  void all(List<Stretch.Looked> looked) {
    List<Stretch.Range> ranges = Stretch.rows(looked);
    if (Opened.of(sharing, getRuntimeContext()).fewRanges()) {
      ranges = Stretch.fewer(ranges, slots);
    }
    for (int i = 0; i < ranges.size(); i++) {
      hand(Wire.bytes(i + 1, ranges.get(i)));
    }
  }
}
