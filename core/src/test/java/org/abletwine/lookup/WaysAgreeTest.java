package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInput;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.key.Normalise;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Exchange;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.TakenElsewhere;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Destination;
import org.abletwine.table.Table;
import org.abletwine.table.batch.ManyTables;
import org.abletwine.table.batch.Stretch;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.Spill;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * A lookup with any settings gives the same rows, figures and exceptions for one worker, for
 * several, and for parts of the rows that other processes have taken and carried here.
 */
class WaysAgreeTest {
  private static final int PARTS = 3;

  private static final ManyTables OURS =
      new ManyTables(
          "ours", List.of(ours("a", 40, 3), ours("b", 7, 2), ours("c", 60, 5)), null, false);

  private static final MemoryTable THEIRS =
      new MemoryTable("theirs", List.of("k", "n", "to", "t", "v", "w"), theirs(), 4)
          .typed("n", ColumnType.Kind.NUMBER);

  private static final MemoryTable MORE =
      MemoryTable.of("more", "k,v,w", "x,from more,1", "y,too,", "k3,not asked,3");

  private static MemoryTable ours(String name, int count, int batch) {
    Random random = new Random(count);
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < count; row++) {
      rows.add(
          new @Nullable String[] {
            one(random, "k1", "K2", " k3", "k4 ", "x", "y", "z", null),
            one(random, "-3", "0.5", "7", "12", "99", "none", null),
            one(random, "a pear", "some oats", "rye", "wheat and oats", null),
            one(random, "1.5", "20", "", "x", null)
          });
    }
    return new MemoryTable(name, List.of("k", "m", "s", "kg"), rows, batch);
  }

  private static List<@Nullable String[]> theirs() {
    return List.of(
        new @Nullable String[] {"k1", "0", "5", "oats", "one", "1"},
        new @Nullable String[] {"k2", "5", "10", "rye", "two", null},
        new @Nullable String[] {"k2", "5", "10", "rye", "two again", "2"},
        new @Nullable String[] {"k3", "20", "30", "pear", "three", "3"},
        new @Nullable String[] {"k3", "20", "30", "pear", "three", "4"},
        new @Nullable String[] {"k4", "-5", "-1", "wheat", "left out", "5"},
        new @Nullable String[] {null, "1", "2", "none", "no key", "6"},
        new @Nullable String[] {"k5", null, null, null, "no n", "7"});
  }

  private static @Nullable String one(Random random, @Nullable String... of) {
    return of[random.nextInt(of.length)];
  }

  private static Lookup keyed() {
    return Lookup.in(THEIRS).key("k").bring("v", "w").markAs("outcome");
  }

  static Stream<Lookup> lookups() {
    Lookup ruled = Lookup.in(THEIRS).bring("v").markAs("outcome");
    return Stream.of(
        keyed(),
        keyed().normalise(Normalise.trim(), Normalise.ignoreCase()),
        keyed().several(Several.first()),
        keyed().several(Several.each()),
        keyed().several(Several.newestBy("n")),
        keyed().duplicates(Duplicates.last()),
        keyed().duplicates(Duplicates.fullest()).where("v <> 'left out'"),
        keyed().where("w IS NULL OR w < 5").whenUnmatched(Treatment.drop()),
        keyed().when(Outcome.AMBIGUOUS, Treatment.drop()).when(Outcome.BLANK_KEY, Treatment.drop()),
        keyed().whenUnmatched(Fill.fill("v", "none")).whenEmpty(Fill.fill("w", "0")),
        keyed().when("kg IS NOT NULL").whenUnmatched(Treatment.expected()),
        keyed().otherwise(Lookup.in(MORE).key("k").bring("v", "w").named("more")),
        keyed()
            .otherwise(Lookup.in(MORE).key("k").bring("v").several(Several.first()).named("fewer"))
            .several(Several.each()),
        keyed().otherwise(Lookup.in(MORE).key("s", "k").bring("v").named("by another column")),
        keyed()
            .otherwise(
                Lookup.in(MORE)
                    .key("k")
                    .normalise(Normalise.ignoreCase())
                    .bring("v")
                    .named("by other steps")),
        Lookup.in(THEIRS).key("k").key("m", "n").bring("v").markAs("outcome"),
        ruled.key("k").key(KeyPart.atOrBelow("m", "n")),
        ruled.key(KeyPart.atOrAbove("m", "n")).several(Several.last()),
        ruled.key(KeyPart.nearest("m", "n")),
        ruled.key("k").key(KeyPart.atOrBelow("m", "n")).duplicates(Duplicates.last()),
        ruled.key("k").key(KeyPart.between("m", "n", "to")).duplicates(Duplicates.newestBy("w")),
        ruled.key(KeyPart.atOrBelow("m", "n")).duplicates(Duplicates.first()),
        ruled.key(KeyPart.between("m", "n", "to")).several(Several.each()),
        ruled.key(KeyPart.contains("s", "t")).several(Several.longest()),
        ruled.key(KeyPart.contains("s", "t")),
        Lookup.in(THEIRS).key("k").bring("count(*) as c", "sum(w) as sum", "max(v) as top"),
        Lookup.in(THEIRS).key("k").bring("v").named("by k"));
  }

  /** What came out, and what is told of the lookup and of what is made of its first attribute. */
  private record Run(
      List<List<@Nullable String>> rows, List<StepFigures> steps, List<Exceptions.Found> found) {
    static Run of(
        List<List<@Nullable String>> rows, RunRecord record, List<Exceptions.Found> found) {
      return new Run(rows, record.steps().stream().map(StepFigures::inMemory).toList(), found);
    }
  }

  private static Enrichment.Builder enriching(Table ours, Lookup lookup, int workers) {
    String first = lookup.bring.get(0).as();
    return Enrichment.of(ours)
        .lookup(lookup)
        .step(new Compute("after", first, Evaluation.STRICT)) // why it is null is told
        .measure("kg")
        .workers(workers);
  }

  private static Enrichment enrichment(Table ours, Lookup lookup, int workers) {
    return enriching(ours, lookup, workers).build();
  }

  private static Run whole(Lookup lookup, int workers) {
    return whole(enrichment(OURS, lookup, workers));
  }

  private static Run whole(Enrichment enrichment) {
    ListSink sink = new ListSink();
    List<Exceptions.Found> found = new ArrayList<>();
    RunRecord record = enrichment.writeTo(sink, new RunContext(Progress.NONE, found::add));
    return Run.of(sink.rows(), record, found);
  }

  /** Three processes take a table each, and a fourth puts together what they have handed on. */
  private static Run inParts(Lookup lookup, int workers) {
    return inParts(enrichment(OURS, lookup, workers), workers, Exchange.NONE, Exchange.NONE);
  }

  private static Run inParts(
      Enrichment enrichment, int workers, Exchange forRows, Exchange forAll) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    List<byte[]> handed = new ArrayList<>();
    for (Stretch.Range range : Stretch.rows(OURS.stretches(1).stream().map(OURS::look).toList())) {
      ListSink sink = new ListSink();
      ByteArrayOutputStream bytes = new ByteArrayOutputStream();
      RunContext context =
          new RunContext(Progress.NONE, ignored -> {})
              .among(Destination::open, null, null, forRows);
      enrichment.writePart(OURS.rows(range), workers, sink, context, new DataOutputStream(bytes));
      rows.addAll(sink.rows());
      handed.add(bytes.toByteArray());
    }
    List<Exceptions.Found> found = new ArrayList<>();
    TakenElsewhere taken =
        new TakenElsewhere() {
          @Override
          public Instant started() {
            return Instant.EPOCH;
          }

          @Override
          public void each(Consumer<DataInput> part) {
            handed.forEach(
                bytes -> part.accept(new DataInputStream(new ByteArrayInputStream(bytes))));
          }
        };
    RunRecord record =
        enrichment.writeTo(
            new ListSink(),
            new RunContext(Progress.NONE, found::add)
                .among(Destination::open, null, taken, forAll));
    return Run.of(rows, record, found);
  }

  @ParameterizedTest
  @MethodSource("lookups")
  void aReferenceThatDoesNotFitInMemoryGivesTheSame(Lookup lookup) {
    Run one = whole(lookup, 1);
    for (int workers = 1; workers <= 2; workers++) {
      assertThat(whole(enriching(OURS, lookup, workers).memory(1, null).build())).isEqualTo(one);
    }
  }

  /** The references are divided, and each part of them is asked for the keys that belong to it. */
  private static Run exchanged(Lookup lookup) {
    Enrichment enrichment = enrichment(OURS, lookup, 2);
    Exchanging step = enrichment.exchanging().get(0);
    List<Integer> divided =
        IntStream.range(0, step.references().size()).filter(step::divides).boxed().toList();
    Exchange nothing = name -> Exchange.Found.nothing(PARTS, divided);
    RunContext context =
        new RunContext(Progress.NONE, ignored -> {}).among(Destination::open, null, null, nothing);
    try (Spill spill = new Spill(1_000_000, null)) {
      Map<Integer, PartedRows> references = new TreeMap<>();
      Map<Integer, List<byte[]>> values = new TreeMap<>();
      for (int of : divided) {
        PartedRows rows = new PartedRows(spill, PARTS);
        values.put(of, List.of(step.divide(of, step.references().get(of), rows, Progress.NONE, 2)));
        references.put(of, rows);
      }
      PartedRows keys = new PartedRows(spill, PARTS);
      assertThat(
              enrichment.<Boolean>exchange(
                  OURS, step.name(), context, rows -> rows.keys(keys) == null))
          .isTrue();
      List<byte[]> refused = new ArrayList<>();
      List<byte[]> found = new ArrayList<>();
      List<SpillFile> answers = new ArrayList<>();
      List<List<Set<String>>> asked = new ArrayList<>();
      for (int number = 0; number < PARTS; number++) {
        int at = number;
        Map<Integer, Stored> rows = new TreeMap<>();
        references.forEach((of, parted) -> rows.put(of, parted.stored(at)));
        enrichment.exchange(
            null,
            step.name(),
            context,
            lookupRows -> {
              Exchanging.Part part = lookupRows.part(rows, values);
              assertThat(part.unread()).isEmpty();
              refused.add(part.refused());
              assertThat(part.loaded()).isTrue();
              SpillFile into = spill.file();
              part.ask(keys.stored(at), into);
              answers.add(into);
              asked.add(part.asked());
              return found.add(part.found(100));
            });
      }
      List<Set<String>> known =
          step.looksAgain() ? step.known(step.references().get(0), together(asked)) : List.of();
      return inParts(
          enrichment,
          1,
          name ->
              new Exchange.Found(
                  PARTS, divided, Map.of(), refused, answers, null, known, List.of()),
          name ->
              new Exchange.Found(
                  PARTS, divided, Map.of(), List.of(), List.of(), null, List.of(), found));
    }
  }

  private static List<Set<String>> together(List<List<Set<String>>> all) {
    List<Set<String>> together = new ArrayList<>();
    for (List<Set<String>> one : all) {
      for (int part = 0; part < one.size(); part++) {
        if (together.size() == part) {
          together.add(new TreeSet<>());
        }
        together.get(part).addAll(one.get(part));
      }
    }
    return together;
  }

  @ParameterizedTest
  @MethodSource("lookups")
  void aReferenceThatProcessesDivideGivesTheSame(Lookup lookup) {
    Enrichment enrichment = enrichment(OURS, lookup, 1);
    assumeTrue(!enrichment.exchanging().isEmpty() && enrichment.exchanging().get(0).divides(0));
    Run one = whole(lookup, 1);
    assertThat(exchanged(lookup)).isEqualTo(one);
  }

  @ParameterizedTest
  @MethodSource("lookups")
  void rowsFiguresAndExceptionsAreTheSame(Lookup lookup) {
    Run one = whole(lookup, 1);
    assertThat(((LookupFigures) one.steps().get(0)).outcomes().rows()).isEqualTo(107);
    for (Run other : List.of(whole(lookup, 3), inParts(lookup, 1), inParts(lookup, 2))) {
      assertThat(other).isEqualTo(one);
    }
  }
}
