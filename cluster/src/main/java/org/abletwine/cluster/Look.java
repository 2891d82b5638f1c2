package org.abletwine.cluster;

import org.abletwine.plan.PlanInParts;
import org.abletwine.table.batch.Stretch;
import org.apache.flink.api.common.functions.RichMapFunction;

/** Looks at a stretch of the transactions. */
final class Look extends RichMapFunction<byte[], byte[]> {
  private static final long serialVersionUID = 1L;

  private final PlanInParts.Sharing sharing;

  Look(PlanInParts.Sharing sharing) {
    this.sharing = sharing;
  }

  @Override
  public byte[] map(byte[] bytes) {
    Wire.Numbered<Stretch> one = Wire.of(bytes);
    return Wire.bytes(
        one.number(),
        Opened.of(sharing, getRuntimeContext()).look(java.util.Objects.requireNonNull(one.what())));
  }
}
