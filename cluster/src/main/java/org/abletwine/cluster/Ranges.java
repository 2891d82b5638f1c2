package org.abletwine.cluster;

import java.util.List;
import org.abletwine.table.batch.Stretch;

/** Makes ranges of whole rows of what was seen of all stretches. */
final class Ranges extends Gather<Stretch.Looked> {
  private static final long serialVersionUID = 1L;

  private final Dividing dividing;
  private final Of of;
  private final int slots;

  /**
   * @param of the table
   * @param slots how many tasks take rows
   */
  Ranges(Dividing dividing, Of of, int slots) {
    this.dividing = dividing;
    this.of = of;
    this.slots = slots;
  }

  @Override
  void all(List<Stretch.Looked> looked) {
    List<Stretch.Range> ranges = Stretch.rows(looked);
    if (!of.reference() && Opened.of(dividing.sharing(), getRuntimeContext()).fewRanges()) {
      ranges = Stretch.fewer(ranges, slots);
    }
    for (int i = 0; i < ranges.size(); i++) {
      hand(Wire.bytes(i + 1, ranges.get(i)));
    }
  }
}
