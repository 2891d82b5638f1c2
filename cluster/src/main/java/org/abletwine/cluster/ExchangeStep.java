package org.abletwine.cluster;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.abletwine.plan.Block;
import org.abletwine.plan.Blocks;
import org.abletwine.plan.PlanExchange;
import org.abletwine.table.batch.Stretch;
import org.apache.flink.streaming.api.operators.AbstractStreamOperator;
import org.apache.flink.streaming.api.operators.BoundedOneInput;
import org.apache.flink.streaming.api.operators.OneInputStreamOperator;
import org.apache.flink.streaming.runtime.streamrecord.StreamRecord;
import org.jspecify.annotations.Nullable;

/**
 * A step of dividing references among processes: waits for all blocks that come to it, keeps them
 * on disk, and then does its work.
 */
final class ExchangeStep extends AbstractStreamOperator<byte[]>
    implements OneInputStreamOperator<byte[], byte[]>, BoundedOneInput {
  private static final long serialVersionUID = 1L;

  private final Dividing dividing;

  private final Work work;

  private transient List<Wire.Numbered<Stretch.Range>> ranges = new ArrayList<>();
  private transient @Nullable Blocks blocks;

  /** What a step does once all is there. */
  interface Work extends Serializable {
    /**
     * Does it.
     *
     * @param step hands on what comes of it
     * @param exchange how the processes divide references among them
     * @param in what has come
     */
    void all(ExchangeStep step, PlanExchange exchange, Blocks in);
  }

  ExchangeStep(Dividing dividing, Work work) {
    this.dividing = dividing;
    this.work = work;
  }

  /** Takes a range. */
  interface EachRange {
    void take(int number, Stretch.Range range);
  }

  /** Goes through the ranges that have come, in order. */
  void eachRange(EachRange taker) {
    ranges.forEach(one -> taker.take(one.number(), Objects.requireNonNull(one.what())));
  }

  /** Those of some parts that this process has. */
  List<Integer> own(int parts) {
    List<Integer> own = new ArrayList<>();
    int count = getRuntimeContext().getTaskInfo().getNumberOfParallelSubtasks();
    for (int part = getRuntimeContext().getTaskInfo().getIndexOfThisSubtask();
        part < parts;
        part += count) {
      own.add(part);
    }
    return own;
  }

  /** Hands a block on. */
  void send(Block block) {
    hand(block.toBytes());
  }

  void hand(byte[] bytes) {
    output.collect(new StreamRecord<>(bytes));
  }

  @Override
  public void open() throws Exception {
    super.open();
    ranges = new ArrayList<>();
    blocks = exchange().blocks();
  }

  private PlanExchange exchange() {
    return Opened.exchange(dividing, getRuntimeContext());
  }

  @Override
  public void processElement(StreamRecord<byte[]> element) {
    Block block = Block.of(element.getValue());
    if (block.kind() == Block.Kind.RANGE) {
      ranges.add(Wire.of(block.bytes()));
    } else {
      Objects.requireNonNull(blocks, "opened").take(block);
    }
  }

  @Override
  public void endInput() {
    ranges.sort(Comparator.comparingInt(Wire.Numbered::number));
    work.all(this, exchange(), Objects.requireNonNull(blocks, "opened"));
  }

  @Override
  public void close() throws Exception {
    if (blocks != null) {
      blocks.close();
    }
    super.close();
  }
}
