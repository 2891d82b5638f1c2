package org.abletwine.cluster;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.apache.flink.streaming.api.operators.AbstractStreamOperator;
import org.apache.flink.streaming.api.operators.BoundedOneInput;
import org.apache.flink.streaming.api.operators.OneInputStreamOperator;
import org.apache.flink.streaming.runtime.streamrecord.StreamRecord;

/**
 * Waits for all there is, which comes in any order, and then does something with all of it, in the
 * order of the rows. One of it in a job.
 */
abstract class Gather<T extends Serializable> extends AbstractStreamOperator<byte[]>
    implements OneInputStreamOperator<byte[], byte[]>, BoundedOneInput {
  private static final long serialVersionUID = 1L;

  private transient List<Wire.Numbered<T>> gathered = new ArrayList<>();

  /**
   * All is there.
   *
   * @param all all of it, in order
   */
  abstract void all(List<T> all);

  /** Hands something on. */
  final void hand(byte[] bytes) {
    output.collect(new StreamRecord<>(bytes));
  }

  @Override
  public void open() throws Exception {
    super.open();
    gathered = new ArrayList<>();
  }

  @Override
  public void processElement(StreamRecord<byte[]> element) {
    gathered.add(Wire.of(element.getValue()));
  }

  @Override
  public void endInput() {
    gathered.sort(Comparator.comparingInt(Wire.Numbered::number));
    List<T> all = new ArrayList<>();
    gathered.forEach(one -> all.add(one.what()));
    all(all);
  }
}
