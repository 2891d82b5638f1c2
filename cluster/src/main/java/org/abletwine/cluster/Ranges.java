package org.abletwine.cluster;

import java.util.List;
import org.abletwine.table.batch.Stretch;

/** Makes ranges of whole rows of what was seen of all stretches. */
final class Ranges extends Gather<Stretch.Looked> {
  private static final long serialVersionUID = 1L;

  @Override
  void all(List<Stretch.Looked> looked) {
    List<Stretch.Range> ranges = Stretch.rows(looked);
    for (int i = 0; i < ranges.size(); i++) {
      hand(Wire.bytes(i + 1, ranges.get(i)));
    }
  }
}
