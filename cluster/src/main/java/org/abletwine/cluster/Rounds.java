package org.abletwine.cluster;

import java.util.Objects;
import java.util.Set;
import org.abletwine.plan.Block;
import org.abletwine.plan.Block.Kind;
import org.abletwine.plan.PlanExchange;
import org.abletwine.table.batch.Stretch;
import org.apache.flink.api.common.functions.FilterFunction;
import org.apache.flink.api.common.functions.Partitioner;
import org.apache.flink.api.common.functions.RichFlatMapFunction;
import org.apache.flink.api.common.functions.RichMapFunction;
import org.apache.flink.api.common.typeinfo.PrimitiveArrayTypeInfo;
import org.apache.flink.api.common.typeinfo.TypeInformation;
import org.apache.flink.streaming.api.datastream.DataStream;
import org.apache.flink.util.Collector;
import org.jspecify.annotations.Nullable;

/**
 * The rounds of a job in which processes divide references among them, in the order of the steps.
 * What passes between processes is handed over once all of it is there, so that what was lost with
 * one is asked for again of those alone that made it.
 */
final class Rounds {
  private static final TypeInformation<byte[]> BYTES =
      PrimitiveArrayTypeInfo.BYTE_PRIMITIVE_ARRAY_TYPE_INFO;

  private final Dividing dividing;
  private final int slots;

  /** For each reference that is divided, its ranges as blocks. */
  interface References {
    /**
     * The ranges of a reference.
     *
     * @param round which of the rounds, 0-based
     * @param of which of its references, 0-based
     */
    DataStream<byte[]> of(int round, int of);
  }

  Rounds(Dividing dividing, int slots) {
    this.dividing = dividing;
    this.slots = slots;
  }

  /**
   * Takes the transactions through all rounds, and then through the steps.
   *
   * @param ranges the ranges of the transactions, as blocks
   * @return for each range what has ended the run, as {@link Take} tells it
   */
  DataStream<byte[]> taken(DataStream<byte[]> ranges, References references) {
    DataStream<byte[]> forTakers = ranges.partitionCustom(BY_ADDRESSEE, Block::toOf);
    for (int round = 0; round < dividing.rounds().size(); round++) {
      forTakers = forTakers.union(round(round, forTakers, references));
    }
    return forTakers
        .transform(
            "take rows through the steps",
            BYTES,
            new ExchangeStep(
                dividing,
                (step, exchange, in) ->
                    step.eachRange(
                        (number, range) ->
                            step.hand(Wire.bytes(number, exchange.take(number, range, in))))))
        .setParallelism(slots);
  }

  /** What a round has for those who take rows. */
  private DataStream<byte[]> round(int round, DataStream<byte[]> forTakers, References references) {
    PlanExchange.Round what = dividing.rounds().get(round);
    String name = " for lookup " + what.lookup();
    DataStream<byte[]> keys =
        forTakers
            .transform(
                "divide keys" + name,
                BYTES,
                new ExchangeStep(
                    dividing,
                    (step, exchange, in) ->
                        step.eachRange(
                            (number, range) ->
                                exchange.keys(round, number, range, in, step::send))))
            .setParallelism(slots);
    DataStream<byte[]> toParts = to(only(keys, Kind.KEYS));
    DataStream<byte[]> made =
        to(only(keys, Kind.STOPPED)).union(only(keys, Kind.UNREAD).broadcast());
    @Nullable DataStream<byte[]> first = null;
    for (int of : what.divided()) {
      DataStream<byte[]> rows = references.of(round, of);
      first = first == null ? rows : first;
      DataStream<byte[]> divided =
          rows.rebalance()
              .flatMap(new Divide(dividing, round, of))
              .returns(BYTES)
              .setParallelism(slots)
              .name("divide reference " + (of + 1) + name);
      toParts =
          toParts
              .union(to(only(divided, Kind.REFERENCE)))
              .union(only(divided, Kind.VALUES).broadcast());
      made = made.union(only(divided, Kind.UNREAD).broadcast());
    }
    DataStream<byte[]> asked =
        toParts
            .transform(
                "ask" + name,
                BYTES,
                new ExchangeStep(
                    dividing,
                    (step, exchange, in) ->
                        exchange.ask(round, step.own(what.parts()), in, step::send)))
            .setParallelism(slots);
    made =
        made.union(to(only(asked, Kind.ANSWERS)))
            .union(only(asked, Kind.UNREAD, Kind.REFUSED).broadcast());
    if (what.again()) {
      made =
          made.union(
              Objects.requireNonNull(first, "the first reference is divided")
                  .rebalance()
                  .union(only(asked, Kind.ASKED).broadcast())
                  .transform(
                      "look for parts of keys" + name,
                      BYTES,
                      new ExchangeStep(
                          dividing,
                          (step, exchange, in) ->
                              step.eachRange(
                                  (number, range) ->
                                      exchange.known(round, number, range, in, step::send))))
                  .setParallelism(slots)
                  .broadcast());
    }
    return made;
  }

  private DataStream<byte[]> only(DataStream<byte[]> blocks, Kind... kinds) {
    Set<Kind> wanted = Set.of(kinds);
    FilterFunction<byte[]> filter = bytes -> wanted.contains(Block.kindOf(bytes));
    return blocks.filter(filter).setParallelism(slots);
  }

  private static DataStream<byte[]> to(DataStream<byte[]> blocks) {
    return blocks.partitionCustom(BY_ADDRESSEE, Block::toOf);
  }

  /** Which process has a part, or a range. */
  private static final Partitioner<Integer> BY_ADDRESSEE = (to, count) -> to % count;

  /** A range as a block. */
  static final class AsBlock extends RichMapFunction<byte[], byte[]> {
    private static final long serialVersionUID = 1L;

    @Override
    public byte[] map(byte[] range) {
      return new Block(Kind.RANGE, 0, 0, Wire.of(range).number(), 0, 0, 0, range).toBytes();
    }
  }

  /** Divides ranges of a reference. */
  private static final class Divide extends RichFlatMapFunction<byte[], byte[]> {
    private static final long serialVersionUID = 1L;

    private final Dividing dividing;
    private final int round;
    private final int of;

    Divide(Dividing dividing, int round, int of) {
      this.dividing = dividing;
      this.round = round;
      this.of = of;
    }

    @Override
    public void flatMap(byte[] bytes, Collector<byte[]> out) {
      Wire.Numbered<Stretch.Range> one = Wire.of(Block.of(bytes).bytes());
      Opened.exchange(dividing, getRuntimeContext())
          .divide(
              round,
              of,
              one.number(),
              Objects.requireNonNull(one.what()),
              block -> out.collect(block.toBytes()));
    }
  }
}
