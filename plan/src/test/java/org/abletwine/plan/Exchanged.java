package org.abletwine.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.abletwine.table.batch.Stretch;
import org.jspecify.annotations.Nullable;

/**
 * References divided among processes, as a distributed engine does it: every step by a process that
 * is drawn, some twice, blocks passed on as bytes in any order.
 */
final class Exchanged implements AutoCloseable {
  private final List<PlanExchange> processes;
  private final List<Stretch.Range> ranges;
  private final long bytes;
  private final Random random;

  /** What there is for those who take rows, of all rounds so far. */
  private final List<Block> forTakers = new ArrayList<>();

  Exchanged(List<PlanExchange> processes, List<Stretch.Range> ranges, long bytes, Random random) {
    this.processes = processes;
    this.ranges = ranges;
    this.bytes = bytes;
    this.random = random;
  }

  private PlanExchange any() {
    return processes.get(random.nextInt(processes.size()));
  }

  /** A step that may be done twice, of which what comes first is lost. */
  private List<Block> done(java.util.function.Consumer<List<Block>> step) {
    List<Block> sent = new ArrayList<>();
    for (int times = random.nextInt(6) == 0 ? 2 : 1; times > 0; times--) {
      sent.clear();
      step.accept(sent);
    }
    return sent.stream().map(block -> Block.of(block.toBytes())).toList();
  }

  /** The parts, as several processes have them. */
  private List<List<Integer>> processes(int parts) {
    int count = 1 + random.nextInt(parts);
    List<List<Integer>> all = new ArrayList<>();
    for (int first = 0; first < count; first++) {
      List<Integer> some = new ArrayList<>();
      for (int part = first; part < parts; part += count) {
        some.add(part);
      }
      all.add(some);
    }
    return all;
  }

  private Blocks taken(List<Block> blocks, int to) {
    return taken(blocks, List.of(to));
  }

  private Blocks taken(List<Block> blocks, List<Integer> to) {
    List<Block> all =
        new ArrayList<>(
            blocks.stream().filter(one -> one.kind().forAll() || to.contains(one.to())).toList());
    Collections.shuffle(all, random);
    Blocks taken = any().blocks();
    all.forEach(taken::take);
    return taken;
  }

  private List<Stretch.Range> ranges(int round, int of) {
    List<Stretch.Looked> looked = new ArrayList<>();
    for (Stretch stretch : any().stretches(round, of, bytes)) {
      looked.add(any().look(round, of, stretch));
    }
    return Stretch.rows(looked);
  }

  /** Goes through all rounds. */
  void run() {
    List<PlanExchange.Round> rounds = processes.get(0).rounds();
    for (int at = 0; at < rounds.size(); at++) {
      int round = at;
      List<Block> toParts = new ArrayList<>();
      for (int of : rounds.get(round).divided()) {
        List<Stretch.Range> rows = ranges(round, of);
        for (int number = 1; number <= rows.size(); number++) {
          int one = number;
          toParts.addAll(done(out -> any().divide(round, of, one, rows.get(one - 1), out::add)));
        }
      }
      for (int number = 1; number <= ranges.size(); number++) {
        int one = number;
        try (Blocks in = taken(forTakers, one)) {
          toParts.addAll(done(out -> any().keys(round, one, ranges.get(one - 1), in, out::add)));
        }
      }
      List<Block> asked = new ArrayList<>();
      for (List<Integer> some : processes(rounds.get(round).parts())) {
        List<Block> wanted =
            toParts.stream().filter(block -> block.kind() != Block.Kind.STOPPED).toList();
        try (Blocks in = taken(wanted, some)) {
          asked.addAll(done(out -> any().ask(round, some, in, out::add)));
        }
      }
      if (rounds.get(round).again()) {
        List<Stretch.Range> rows = ranges(round, 0);
        List<Block> all = asked.stream().filter(block -> block.kind() == Block.Kind.ASKED).toList();
        for (int number = 1; number <= rows.size(); number++) {
          int one = number;
          try (Blocks in = taken(all, 0)) {
            forTakers.addAll(done(out -> any().known(round, one, rows.get(one - 1), in, out::add)));
          }
        }
      }
      toParts.stream()
          .filter(block -> block.kind() == Block.Kind.STOPPED || block.kind() == Block.Kind.UNREAD)
          .forEach(forTakers::add);
      asked.stream().filter(block -> block.kind() != Block.Kind.ASKED).forEach(forTakers::add);
    }
  }

  /** Takes a range. */
  @Nullable String take(int number) {
    try (Blocks in = taken(forTakers, number)) {
      return any().take(number, ranges.get(number - 1), in);
    }
  }

  @Override
  public void close() {
    forTakers.clear();
  }
}
