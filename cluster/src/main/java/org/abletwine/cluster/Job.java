package org.abletwine.cluster;

import java.util.ArrayList;
import java.util.List;
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
    List<byte[]> stretches = new ArrayList<>();
    for (Stretch stretch : plan.stretches(bytes)) {
      stretches.add(Wire.bytes(stretches.size() + 1, stretch));
    }
    DataStream<byte[]> ranges =
        engine
            .fromData(stretches, BYTES)
            .name("stretches")
            .rebalance()
            .map(new Look(sharing))
            .returns(BYTES)
            .setParallelism(slots)
            .name("look at a stretch")
            .transform("whole rows", BYTES, new Ranges(sharing, slots))
            .setParallelism(1);
    ranges
        .rebalance()
        .map(new Take(sharing))
        .returns(BYTES)
        .setParallelism(slots)
        .name("take rows through the steps")
        .transform("put together", BYTES, new Finish(sharing, shown))
        .setParallelism(1)
        .sinkTo(new DiscardingSink<>())
        .setParallelism(1);
    JobExecutionResult result = engine.execute("able-twine " + shown.plan());
    List<String> told = result.getAccumulatorResult(Finish.TOLD);
    return told.get(0);
  }
}
