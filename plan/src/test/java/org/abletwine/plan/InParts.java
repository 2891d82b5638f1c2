package org.abletwine.plan;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.abletwine.table.batch.Stretch;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Runs plans as several processes do: each opens the plan for itself, rows are taken in any order,
 * some of them twice, as after a kill, and all is put together twice.
 */
public final class InParts {
  private InParts() {}

  /**
   * Runs a plan.
   *
   * @param bytes how many a stretch has
   * @param random draws who takes what, and in which order
   * @param memory how much of references may be in memory; 0 for what is usual
   * @return what was written, as it was told the second time
   */
  public static PlannedRun.Result run(
      Path plan, Map<String, String> set, long bytes, Random random, long memory) {
    PlanInParts.Sharing sharing =
        new PlanInParts.Sharing(
            plan.toString(),
            new TreeMap<>(set),
            LocalDate.now(),
            Instant.now(),
            "r" + random.nextInt(Integer.MAX_VALUE),
            Veil.draw(),
            memory,
            1 + random.nextInt(3),
            null);
    try (PlanInParts one = PlanInParts.open(sharing);
        PlanInParts other = PlanInParts.open(sharing)) {
      List<PlanInParts> both = List.of(one, other);
      one.begin();
      try {
        List<Stretch.Looked> looked = new ArrayList<>();
        for (Stretch stretch : one.stretches(bytes)) {
          looked.add(both.get(random.nextInt(2)).look(stretch));
        }
        List<Stretch.Range> ranges = Stretch.rows(looked);
        List<Integer> order = new ArrayList<>();
        for (int number = 1; number <= ranges.size(); number++) {
          order.addAll(Collections.nCopies(1 + random.nextInt(4) / 3, number));
        }
        Collections.shuffle(order, random);
        List<PlanExchange.Round> rounds = one.rounds(1 + random.nextInt(3));
        @Nullable String[] failures = new @Nullable String[ranges.size()];
        if (rounds.isEmpty()) {
          for (int number : order) {
            failures[number - 1] = both.get(random.nextInt(2)).take(number, ranges.get(number - 1));
          }
        } else {
          List<PlanExchange> exchanges = List.of(one.exchange(rounds), other.exchange(rounds));
          try (Exchanged exchanged = new Exchanged(exchanges, ranges, bytes, random)) {
            exchanged.run();
            for (int number : order) {
              failures[number - 1] = exchanged.take(number);
            }
          }
        }
        PlannedRun.Result first = other.exchange(rounds).finish(Arrays.asList(failures));
        if (first.enriched() == null) {
          return first;
        }
        if (random.nextBoolean()) { // by the process that had done it
          return other.exchange(rounds).finish(Arrays.asList(failures));
        }
        try (PlanInParts again = PlanInParts.open(sharing)) {
          return again.exchange(rounds).finish(Arrays.asList(failures));
        }
      } finally {
        one.discard();
      }
    }
  }

  /** What the processes of a run have in common. */
  static PlanInParts.Sharing sharing(Path plan, String run) {
    return sharing(plan, run, 0);
  }

  /** As {@link #sharing(Path, String)}, with so many bytes of references in memory. */
  static PlanInParts.Sharing sharing(Path plan, String run, long memory) {
    return new PlanInParts.Sharing(
        plan.toString(),
        new TreeMap<>(),
        LocalDate.now(),
        Instant.now(),
        run,
        Veil.draw(),
        memory,
        1,
        null);
  }

  /** What is in a file, or in all parts in a folder. */
  public static String read(Path file) throws IOException {
    if (!Files.isDirectory(file)) {
      return Files.readString(file);
    }
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    try (Stream<Path> parts = Files.list(file)) {
      for (Path part : parts.sorted().toList()) {
        all.write(Files.readAllBytes(part));
      }
    }
    return all.toString(StandardCharsets.UTF_8);
  }

  /** What a run has written, without what differs from run to run. */
  static Map<String, String> outputs(Path out) throws IOException {
    Map<String, String> outputs = new TreeMap<>();
    try (Stream<Path> files = Files.list(out)) {
      for (Path file : files.toList()) {
        outputs.put("" + file.getFileName(), read(file));
      }
    }
    outputs.computeIfPresent("run.json", (name, text) -> record(text));
    return outputs;
  }

  private static String record(String text) {
    try {
      ObjectNode record = (ObjectNode) new ObjectMapper().readTree(text);
      record.remove(List.of("started", "elapsed_seconds"));
      for (JsonNode lookup : record.path("lookups")) {
        ((ObjectNode) lookup).remove("divided");
      }
      for (JsonNode rollup : record.path("rollups")) {
        ((ObjectNode) rollup).remove("bytes_on_disk");
      }
      return record.toPrettyString();
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }
}
