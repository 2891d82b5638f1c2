package org.abletwine.cluster;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.plan.PlanExchange;
import org.abletwine.plan.PlanInParts;
import org.abletwine.table.batch.Stretch;
import org.apache.flink.api.common.JobExecutionResult;
import org.apache.flink.api.common.RuntimeExecutionMode;
import org.apache.flink.api.common.typeinfo.PrimitiveArrayTypeInfo;
import org.apache.flink.api.common.typeinfo.TypeInformation;
import org.apache.flink.configuration.Configuration;
import org.apache.flink.configuration.RestartStrategyOptions;
import org.apache.flink.streaming.api.datastream.DataStream;
import org.apache.flink.streaming.api.environment.StreamExecutionEnvironment;
import org.apache.flink.streaming.api.functions.sink.v2.DiscardingSink;

/**
 * The job: stretches are looked at by all, made into ranges by one, taken by all, and put together
 * by one. What passes between them is small; rows are read and written by those who take them.
 */
final class Job {
  private static final TypeInformation<byte[]> BYTES =
      PrimitiveArrayTypeInfo.BYTE_PRIMITIVE_ARRAY_TYPE_INFO;

  /** How often the engine starts again what was lost with a process. */
  private static final int ATTEMPTS = 20;

  private Job() {}

  /**
   * Runs a plan.
   *
   * @param plan the plan
   * @param bytes how many a stretch has, about
   * @return the exit status, a space, and what to tell
   * @throws Exception when the engine gives up
   */
  static String run(PlanInParts plan, PlanInParts.Sharing sharing, long bytes, Finish.Shown shown)
      throws Exception {
    Configuration settings = new Configuration();
    settings.set(RestartStrategyOptions.RESTART_STRATEGY, "fixed-delay");
    settings.set(RestartStrategyOptions.RESTART_STRATEGY_FIXED_DELAY_ATTEMPTS, ATTEMPTS);
    settings.set(
        RestartStrategyOptions.RESTART_STRATEGY_FIXED_DELAY_DELAY, java.time.Duration.ofSeconds(1));
    StreamExecutionEnvironment engine =
        StreamExecutionEnvironment.getExecutionEnvironment(settings);
    engine.setRuntimeMode(RuntimeExecutionMode.BATCH);
    int slots =
        engine.getParallelism(); // stated: the engine would go by the bytes it passes on, which are
    // few
    Dividing dividing = new Dividing(sharing, new ArrayList<>(plan.rounds(slots)));
    DataStream<byte[]> ranges =
        ranges(engine, dividing, Of.TRANSACTIONS, slots, plan.stretches(bytes));
    PlanExchange exchange = plan.exchange(dividing.rounds());
    DataStream<byte[]> taken =
        dividing.rounds().isEmpty()
            ? ranges
                .rebalance()
                .map(new Take(sharing))
                .returns(BYTES)
                .setParallelism(slots)
                .name("take rows through the steps")
            : new Rounds(dividing, slots)
                .taken(
                    blocks(ranges),
                    (round, of) ->
                        blocks(
                            ranges(
                                engine,
                                dividing,
                                new Of(round, of),
                                slots,
                                exchange.stretches(round, of, bytes))));
    taken
        .transform("put together", BYTES, new Finish(dividing, shown))
        .setParallelism(1)
        .sinkTo(new DiscardingSink<>())
        .setParallelism(1);
    JobExecutionResult result = engine.execute("able-twine " + shown.plan());
    List<String> told = result.getAccumulatorResult(Finish.TOLD);
    return told.get(0);
  }

  /** The ranges of whole rows of a table. */
  private static DataStream<byte[]> ranges(
      StreamExecutionEnvironment engine,
      Dividing dividing,
      Of of,
      int slots,
      List<Stretch> stretches) {
    List<byte[]> numbered = new ArrayList<>();
    for (Stretch stretch : stretches) {
      numbered.add(Wire.bytes(numbered.size() + 1, stretch));
    }
    return engine
        .fromData(numbered, BYTES)
        .name("stretches")
        .rebalance()
        .map(new Look(dividing, of))
        .returns(BYTES)
        .setParallelism(slots)
        .name("look at a stretch")
        .transform("whole rows", BYTES, new Ranges(dividing, of, slots))
        .setParallelism(1);
  }

  private static DataStream<byte[]> blocks(DataStream<byte[]> ranges) {
    return ranges.map(new Rounds.AsBlock()).returns(BYTES).setParallelism(1);
  }
}
