package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInput;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Exchange;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.TakenElsewhere;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Destination;
import org.abletwine.table.Table;
import org.abletwine.table.batch.ManyTables;
import org.abletwine.table.batch.Stretch;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * A lookup with any settings gives the same rows, figures and exceptions for one worker, for
 * several, and for parts of the rows that other processes have taken and carried here.
 */
class WaysAgreeTest {
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
        keyed()
            .normalise(
                org.abletwine.key.Normalise.trim(), org.abletwine.key.Normalise.ignoreCase()),
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
        ruled.key("k").key(KeyPart.atOrBelow("m", "n")),
        ruled.key(KeyPart.atOrAbove("m", "n")).several(Several.last()),
        ruled.key(KeyPart.nearest("m", "n")),
        ruled.key(KeyPart.between("m", "n", "to")).several(Several.each()),
        ruled.key(KeyPart.contains("s", "t")).several(Several.longest()),
        ruled.key(KeyPart.contains("s", "t")),
        Lookup.in(THEIRS).key("k").bring("count(*) as c", "sum(w) as sum", "max(v) as top"),
        Lookup.in(THEIRS).key("k").bring("v").named("by k"));
  }

  private record Run(
      List<List<@Nullable String>> rows, LookupFigures figures, List<Exceptions.Found> found) {}

  private static Enrichment enrichment(Table ours, Lookup lookup, int workers) {
    return Enrichment.of(ours).lookup(lookup).measure("kg").workers(workers).build();
  }

  private static Run whole(Lookup lookup, int workers) {
    ListSink sink = new ListSink();
    List<Exceptions.Found> found = new ArrayList<>();
    RunRecord record =
        enrichment(OURS, lookup, workers).writeTo(sink, new RunContext(Progress.NONE, found::add));
    return new Run(sink.rows(), record.lookups().get(0), found);
  }

  /** Three processes take a table each, and a fourth puts together what they have handed on. */
  private static Run inParts(Lookup lookup, int workers) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    List<byte[]> handed = new ArrayList<>();
    Enrichment enrichment = enrichment(OURS, lookup, workers);
    for (Stretch.Range range : Stretch.rows(OURS.stretches(1).stream().map(OURS::look).toList())) {
      ListSink sink = new ListSink();
      ByteArrayOutputStream bytes = new ByteArrayOutputStream();
      RunContext context = new RunContext(Progress.NONE, ignored -> {});
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
                .among(Destination::open, null, taken, Exchange.NONE));
    return new Run(rows, record.lookups().get(0), found);
  }

  @ParameterizedTest
  @MethodSource("lookups")
  void rowsFiguresAndExceptionsAreTheSame(Lookup lookup) {
    Run one = whole(lookup, 1);
    assertThat(one.figures().outcomes().rows()).isEqualTo(107);
    for (Run other : List.of(whole(lookup, 3), inParts(lookup, 1), inParts(lookup, 2))) {
      assertThat(other.rows()).isEqualTo(one.rows());
      assertThat(other.figures()).isEqualTo(one.figures());
      assertThat(other.found()).isEqualTo(one.found());
    }
  }
}
