package org.abletwine.plan;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Consumer;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Exchange;
import org.abletwine.step.run.Exchanging;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.RangedTable;
import org.abletwine.table.batch.Stretch;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.output.StoredBytes;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;

/**
 * How the processes of one run divide among them references that fit in the memory of none: a
 * partitioned hash join whose parts are spread over machines (DeWitt and Gerber 1985,
 * "Multiprocessor hash-based join algorithms"). Each lookup over such references is a {@link
 * Round}:
 *
 * <ol>
 *   <li>any cut and look at the references ({@link #stretches}, {@link #look}), and divide a range
 *       of their rows each ({@link #divide});
 *   <li>any take a range of the transactions as far as the lookup, and divide their keys ({@link
 *       #keys});
 *   <li>one for each part asks it ({@link #ask}), and sends the answers to the ranges;
 *   <li>where the plan tells of parts of keys, any go through the reference once more ({@link
 *       #known});
 *   <li>those who take the rows of a range have all that was found ({@link #take}), and so has the
 *       one that puts all together ({@link #finish}).
 * </ol>
 *
 * <p>What passes between them are {@link Block}s, in any order. Each step may be done again by
 * another process, with the same blocks. Safe for use by several threads, each with its own blocks.
 */
@SuppressWarnings("exports") // stretches of tables are for the modules of this product
public final class PlanExchange {
  private static final int BLOCK = 1 << 20;

  /** What ends a run behind what is wrong with the rows of references, in the order of those. */
  private static final int AFTER_REFERENCES = 1 << 30;

  private final PlanInParts plan;
  private final List<Round> rounds;
  private final List<Exchanging> lookups = new ArrayList<>();

  /**
   * A lookup whose references are divided among processes.
   *
   * @param lookup its name
   * @param parts into how many parts
   * @param divided which of its references are divided, by number, ascending
   * @param again whether the first is gone through again for parts of keys
   */
  public record Round(String lookup, int parts, List<Integer> divided, boolean again)
      implements Serializable {
    /** Copies the list. */
    public Round {
      divided = List.copyOf(divided);
    }
  }

  /**
   * @param plan the plan, as this process has opened it
   * @param rounds the lookups, as one process has settled them for all
   */
  PlanExchange(PlanInParts plan, List<Round> rounds) {
    this.plan = plan;
    this.rounds = List.copyOf(rounds);
    for (Round round : rounds) {
      lookups.add(
          plan.enrichment().exchanging().stream()
              .filter(one -> one.name().equals(round.lookup()))
              .findFirst()
              .orElseThrow());
    }
  }

  /** As {@link PlanInParts#rounds}. */
  static List<Round> rounds(PlanInParts plan, int processes) {
    List<Round> rounds = new ArrayList<>();
    long left = plan.memory();
    for (Exchanging one : plan.enrichment().exchanging()) {
      Set<Integer> divided = new TreeSet<>();
      long held = 0;
      long most = 0;
      for (int i = 0; i < one.references().size(); i++) {
        long needed = PlanInParts.USUAL_GROWTH * Math.max(0, one.references().get(i).sizeInBytes());
        if (needed > left - held && one.divides(i)) {
          divided.add(i);
          most = Math.max(most, needed);
        } else {
          held += needed;
        }
      }
      if (divided.isEmpty()) {
        left -= held;
      } else {
        divided.add(0);
        int parts = Math.max(processes, new Spill(plan.memory(), null).partsFor(most));
        rounds.add(
            new Round(one.name(), parts, List.copyOf(divided), one.looksAgain() && plan.tells()));
      }
    }
    return rounds;
  }

  /** {@return the lookups} */
  public List<Round> rounds() {
    return rounds;
  }

  /** {@return room for blocks that come to one who does a step} */
  public Blocks blocks() {
    return new Blocks(plan.spill());
  }

  private RangedTable table(int round, int of) {
    return RangedTable.of(lookups.get(round).references().get(of));
  }

  /**
   * Cuts a reference.
   *
   * @param round which of the rounds, 0-based
   * @param of which of its references, 0-based
   * @param bytes how many each stretch should have, about
   * @throws DataException when it cannot be read
   */
  public List<Stretch> stretches(int round, int of, long bytes) {
    return table(round, of).stretches(bytes);
  }

  /** Looks at a stretch of a reference. */
  public Stretch.Looked look(int round, int of, Stretch stretch) {
    return table(round, of).look(stretch);
  }

  /**
   * Divides some rows of a reference.
   *
   * @param number which of its ranges, from 1 on
   * @param range the rows
   * @param out takes what comes of it
   */
  public void divide(int round, int of, int number, Stretch.Range range, Consumer<Block> out) {
    try (Spill spill = plan.spill()) {
      PartedRows parts = new PartedRows(spill, rounds.get(round).parts());
      Table rows = table(round, of).rows(range);
      byte[] values = lookups.get(round).divide(of, rows, parts, Progress.NONE, plan.workers());
      out.accept(new Block(Block.Kind.VALUES, round, of, 0, number, 0, 0, values));
      send(parts, new Block(Block.Kind.REFERENCE, round, of, 0, number, 0, 0, new byte[0]), out);
    } catch (DataException e) {
      out.accept(unread(round, of, number, e));
    }
  }

  /**
   * Takes some of the transactions as far as the lookup, and divides their keys.
   *
   * @param number which of the ranges, from 1 on
   * @param range the rows
   * @param in what was found for them in the rounds before
   * @param out takes what comes of it
   */
  public void keys(int round, int number, Stretch.Range range, Blocks in, Consumer<Block> out) {
    try (Spill spill = plan.spill()) {
      PartedRows parts = new PartedRows(spill, rounds.get(round).parts());
      DataException stopped =
          plan.exchange(
              plan.rows(range),
              rounds.get(round).lookup(),
              found(in, number, round),
              lookup -> lookup.keys(parts));
      if (stopped != null) {
        out.accept(new Block(Block.Kind.STOPPED, round, 0, number, 0, 0, 0, bytes(stopped)));
      }
      send(parts, new Block(Block.Kind.KEYS, round, 0, 0, number, 0, 0, new byte[0]), out);
    } catch (DataException e) {
      // Whoever takes these rows through all steps meets first what is wrong with the steps before.
      out.accept(unread(round, 0, AFTER_REFERENCES + number, e));
    }
  }

  /**
   * Asks parts of the references, one after another.
   *
   * @param parts which, 0-based
   * @param in their rows, the keys that belong to them, and what the values of rules are
   * @param out takes what comes of it
   */
  public void ask(int round, List<Integer> parts, Blocks in, Consumer<Block> out) {
    try {
      plan.exchange(
          null,
          rounds.get(round).lookup(),
          found(in, 0, round),
          lookup -> {
            parts.forEach(part -> ask(round, part, in, lookup, out));
            return parts;
          });
    } catch (DataException e) {
      // Whoever takes rows through all steps meets first what is wrong with the steps before.
      out.accept(unread(round, 0, AFTER_REFERENCES + parts.get(0), e));
    }
  }

  private void ask(int round, int part, Blocks in, Exchanging.Rows lookup, Consumer<Block> out) {
    Map<Integer, Stored> rows = new TreeMap<>();
    Map<Integer, List<byte[]>> values = new TreeMap<>();
    for (int of : rounds.get(round).divided()) {
      rows.put(of, in.reference(round, of, part));
      values.put(of, in.all(Block.Kind.VALUES, round, of, 0).stream().map(Block::bytes).toList());
    }
    Exchanging.Part asked = lookup.part(rows, values);
    asked.unread().forEach((of, failure) -> out.accept(unread(round, of, part, failure)));
    out.accept(new Block(Block.Kind.REFUSED, round, 0, 0, part, 0, 0, asked.refused()));
    if (!asked.loaded()) {
      return;
    }
    long bytes = rows.values().stream().mapToLong(stored -> stored.bytes().size()).sum();
    Set<Integer> ranges = new TreeSet<>(in.ranges(round, part));
    ranges.add(0); // no range has that number: a part that no row asks is asked by none of it
    for (int range : ranges) {
      Stored keys = in.keys(round, part, range);
      try (SpillFile answers = in.spill().file()) {
        asked.ask(keys, answers);
        Block first = new Block(Block.Kind.ANSWERS, round, 0, range, part, 0, 0, new byte[0]);
        send(answers, 0, first, out);
        bytes += keys.bytes().size() + 2 * answers.size();
      }
    }
    if (rounds.get(round).again()) {
      out.accept(new Block(Block.Kind.ASKED, round, 0, 0, part, 0, 0, bytes(asked.asked())));
    }
    try {
      plan.partsFound().write(round, part, rows, asked.found(bytes));
    } catch (DataException e) {
      out.accept(unread(round, 0, AFTER_REFERENCES + part, e));
    }
  }

  /**
   * Goes through some rows of the first reference for parts of keys.
   *
   * @param number which of its ranges, from 1 on
   * @param range the rows
   * @param in what all parts were asked for
   * @param out takes what comes of it
   */
  public void known(int round, int number, Stretch.Range range, Blocks in, Consumer<Block> out) {
    List<Set<String>> asked = sets(in.all(Block.Kind.ASKED, round, 0, 0));
    List<Set<String>> known = null;
    try {
      known = asked == null ? null : lookups.get(round).known(table(round, 0).rows(range), asked);
    } catch (DataException e) {
      out.accept(unread(round, 0, AFTER_REFERENCES + number, e)); // most often met by others too
    }
    out.accept(new Block(Block.Kind.KNOWN, round, 0, 0, number, 0, 0, bytes(known)));
  }

  /**
   * As {@link PlanInParts#take}.
   *
   * @param in what was found for the rows
   */
  public @Nullable String take(int number, Stretch.Range range, Blocks in) {
    return plan.take(number, range, found(in, number, rounds.size()));
  }

  /** As {@link PlanInParts#finish}. */
  public PlannedRun.Result finish(List<@Nullable String> failures) {
    PartsFound found = plan.partsFound();
    return plan.finish(
        failures,
        name -> {
          int round = round(name);
          if (round < 0) {
            return null;
          }
          for (String failure : failures) {
            if (failure != null) {
              throw new DataException(failure); // what was found is not all there then
            }
          }
          found.noteRows(round, rounds.get(round).parts(), lookups.get(round).references());
          return new Exchange.Found(
              rounds.get(round).parts(),
              rounds.get(round).divided(),
              Map.of(),
              List.of(),
              List.of(),
              null,
              List.of(),
              () ->
                  java.util.stream.IntStream.range(0, rounds.get(round).parts())
                      .mapToObj(part -> found.read(round, part))
                      .iterator());
        });
  }

  private int round(String lookup) {
    for (int round = 0; round < rounds.size(); round++) {
      if (rounds.get(round).lookup().equals(lookup)) {
        return round;
      }
    }
    return -1;
  }

  /**
   * What was found for a range of the transactions.
   *
   * @param range which; 0 for no rows
   * @param before only in the rounds before this one
   */
  private Exchange found(Blocks in, int range, int before) {
    return name -> {
      int round = round(name);
      if (round < 0) {
        return null;
      }
      if (range == 0 || round >= before) {
        return Exchange.Found.nothing(rounds.get(round).parts(), rounds.get(round).divided());
      }
      Map<Integer, DataException> unread = new TreeMap<>();
      for (int of = 0; of < lookups.get(round).references().size(); of++) {
        for (Block block : in.all(Block.Kind.UNREAD, round, of, 0)) {
          unread.putIfAbsent(of, failure(block)); // of the first range
        }
      }
      List<Block> stopped = in.all(Block.Kind.STOPPED, round, 0, range);
      List<? extends StoredBytes> answers = in.answers(round, range);
      return new Exchange.Found(
          rounds.get(round).parts(),
          rounds.get(round).divided(),
          unread,
          in.all(Block.Kind.REFUSED, round, 0, 0).stream().map(Block::bytes).toList(),
          answers,
          stopped.isEmpty() ? null : failure(stopped.get(0)),
          rounds.get(round).again() ? sets(in.all(Block.Kind.KNOWN, round, 0, 0)) : List.of(),
          List.of());
    };
  }

  private static Block unread(int round, int of, int from, DataException failure) {
    return new Block(Block.Kind.UNREAD, round, of, 0, from, 0, 0, bytes(failure));
  }

  /** Sends what was divided. */
  private static void send(PartedRows parts, Block like, Consumer<Block> out) {
    for (int part = 0; part < parts.parts(); part++) {
      Stored stored = parts.stored(part);
      send(
          stored.bytes(),
          stored.rows(),
          new Block(like.kind(), like.round(), like.of(), part, like.from(), 0, 0, like.bytes()),
          out);
      parts.done(part);
    }
  }

  private static void send(StoredBytes from, long rows, Block like, Consumer<Block> out) {
    int turn = 0;
    for (long at = 0; at < from.size(); turn++) {
      byte[] bytes = new byte[(int) Math.min(BLOCK, from.size() - at)];
      int read = from.read(at, bytes, 0);
      if (read < bytes.length) {
        throw new IllegalStateException("a file is shorter than it was");
      }
      at += read;
      out.accept(
          new Block(
              like.kind(),
              like.round(),
              like.of(),
              like.to(),
              like.from(),
              turn,
              turn == 0 ? rows : 0,
              bytes));
    }
  }

  private static byte[] bytes(DataException failure) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    Carrier.to(new DataOutputStream(bytes)).failure(failure);
    return bytes.toByteArray();
  }

  private static DataException failure(Block block) {
    return carrier(block).failure(new DataException(""));
  }

  private static Carrier carrier(Block block) {
    return Carrier.from(new DataInputStream(new ByteArrayInputStream(block.bytes())));
  }

  private static byte[] bytes(@Nullable List<Set<String>> sets) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    Carrier carrier = Carrier.to(new DataOutputStream(bytes));
    if (carrier.flag(sets != null)) {
      carried(sets == null ? List.of() : sets, carrier);
    }
    return bytes.toByteArray();
  }

  private static List<Set<String>> carried(List<Set<String>> sets, Carrier carrier) {
    return carrier.all(
        sets, Set.of(), set -> new HashSet<>(carrier.all(List.copyOf(set), "", carrier::words)));
  }

  /** All of these together; null when there are too many of one. */
  private static @Nullable List<Set<String>> sets(List<Block> blocks) {
    List<Set<String>> all = new ArrayList<>();
    for (Block block : blocks) {
      Carrier carrier = carrier(block);
      if (!carrier.flag(false)) {
        return null;
      }
      List<Set<String>> some = carried(List.of(), carrier);
      for (int part = 0; part < some.size(); part++) {
        if (part == all.size()) {
          all.add(new HashSet<>());
        }
        all.get(part).addAll(some.get(part));
      }
    }
    return all.stream().anyMatch(set -> set.size() > Exchanging.MOST_ASKED) ? null : all;
  }

  @Override
  public String toString() {
    return "PlanExchange" + rounds;
  }
}
