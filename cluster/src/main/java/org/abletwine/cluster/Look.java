package org.abletwine.cluster;

import java.util.Objects;
import org.abletwine.table.batch.Stretch;
import org.apache.flink.api.common.functions.RichMapFunction;

/** Looks at a stretch of the transactions, or of a reference. */
final class Look extends RichMapFunction<byte[], byte[]> {
  private static final long serialVersionUID = 1L;

  private final Dividing dividing;
  private final Of of;

  Look(Dividing dividing, Of of) {
    this.dividing = dividing;
    this.of = of;
  }

  @Override
  public byte[] map(byte[] bytes) {
    Wire.Numbered<Stretch> one = Wire.of(bytes);
    Stretch stretch = Objects.requireNonNull(one.what());
    return Wire.bytes(
        one.number(),
        of.reference()
            ? Opened.exchange(dividing, getRuntimeContext()).look(of.round(), of.number(), stretch)
            : Opened.of(dividing.sharing(), getRuntimeContext()).look(stretch));
  }
}
