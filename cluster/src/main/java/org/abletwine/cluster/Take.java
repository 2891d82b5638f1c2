package org.abletwine.cluster;

import java.util.Objects;
import org.abletwine.plan.PlanInParts;
import org.abletwine.table.batch.Stretch;
import org.apache.flink.api.common.functions.RichMapFunction;

/** Takes a range of rows through the steps, and writes what comes of them. */
final class Take extends RichMapFunction<byte[], byte[]> {
  private static final long serialVersionUID = 1L;

  private final PlanInParts.Sharing sharing;

  Take(PlanInParts.Sharing sharing) {
    this.sharing = sharing;
  }

  @Override
  public byte[] map(byte[] bytes) {
    Wire.Numbered<Stretch.Range> one = Wire.of(bytes);
    Stretch.Range range = Objects.requireNonNull(one.what());
    return Wire.bytes(
        one.number(), Opened.of(sharing, getRuntimeContext()).take(one.number(), range));
  }
}
