package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.enrich.TracedRow;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Evaluation;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.spill.Spill;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * References on disk: what is compared and found over all parts, what ends a run, and the files
 * that are written.
 */
class LargeReferenceEdgesTest extends LargeReferences {
  /**
   * Those beyond as many as are looked for would otherwise be told as missing, which they are not.
   */
  @Test
  void ofTooManyPartsOfKeysNothingIsTold() {
    tables(3, 3);
    Lookup two = Lookup.in(growers).key("grower", "code").key("part", "part");
    AskedParts parts = new AskedParts(two, 2);
    parts.of(OneRow.of("g1", "1"), 0, new int[] {0, 1});
    parts.of(OneRow.of("g2", "1"), 0, new int[] {0, 1});
    assertThat(parts.asked()).containsExactly(Set.of("g1", "g2"), Set.of("1"));
    assertThat(parts.found(whole()).tells()).isTrue();
    parts.of(OneRow.of("g3", "1"), 0, new int[] {0, 1});
    assertThat(parts.asked()).isNull();
    assertThat(parts.found(whole()).tells()).isFalse();
  }

  private LargeReference whole() {
    return new LargeReference(
        growers, List.of(growers), 0, new LargeReference.Values(List.of(), List.of()));
  }

  @Test
  void whatOnePartHoldsIsComparedAsInAll() {
    // One grade has whole numbers only, another only words: alone, they would be compared
    // otherwise.
    tickets =
        MemoryTable.of(
            "tickets",
            "no,grade,at,kg",
            "1,A,7,1",
            "2,B,7.25,1",
            "3,C,9,1",
            "4,D,100,1",
            "5,D,x,1");
    growers =
        MemoryTable.of(
            "prices",
            "grade,from,price",
            "A,3,a",
            "A,5.5,b",
            "B,7.125,c",
            "C,10,d",
            "C,8,e",
            "D,99,f",
            "D,9,g");
    for (MatchRule.Kind kind : List.of(MatchRule.Kind.AT_OR_BELOW, MatchRule.Kind.NEAREST)) {
      List<Lookup> lookups =
          List.of(
              Lookup.in(growers)
                  .key("grade")
                  .key(KeyPart.matching("at", kind, "from"))
                  .bring("price"));
      assertThat(ran(lookups, 1, 2)).isEqualTo(ran(lookups, ENOUGH, 1));
    }
  }

  @Test
  void theRowThatCannotBeOrderedIsTheOneThatIsToldOfInMemory() {
    for (int trial = 0; trial < 10; trial++) {
      List<String> theirs = new ArrayList<>();
      for (int i = 0; i < 40; i++) {
        String from = random.nextInt(12) == 0 ? "soon" + i : Integer.toString(random.nextInt(50));
        String to = random.nextInt(15) == 0 ? "1" : "70";
        theirs.add("A" + random.nextInt(9) + "," + from + "," + to + ",p");
      }
      tickets = MemoryTable.of("tickets", "no,grade,at,kg", "1,A1,7,1");
      growers = MemoryTable.of("prices", "grade,from,to,price", theirs.toArray(String[]::new));
      for (KeyPart part :
          List.of(
              KeyPart.matching("at", MatchRule.Kind.AT_OR_BELOW, "from"),
              KeyPart.between("at", "from", "to"))) {
        List<Lookup> lookups = List.of(Lookup.in(growers).key("grade").key(part).bring("price"));
        assertThat(ran(lookups, 1, 2)).isEqualTo(ran(lookups, ENOUGH, 1));
      }
      List<Lookup> sums = List.of(Lookup.in(growers).key("grade").bring("sum(from) as total"));
      assertThat(ran(sums, 1, 2)).isEqualTo(ran(sums, ENOUGH, 1));
    }
  }

  @Test
  @Tag("oracle")
  void whatNewestByCannotPutInOrderEndsTheRunThoughEachPartHasAnOrder() {
    boolean[] met = new boolean[2];
    for (int trial = 0; trial < 60; trial++) {
      List<String> theirs = new ArrayList<>();
      int soon = random.nextInt(3) == 0 ? 20 : 1_000;
      int kinds = random.nextInt(3); // all numbers, each key of one kind, or any row of any
      for (int i = 0; i < 60; i++) {
        int key = random.nextInt(25);
        boolean day = kinds > 0 && (kinds == 1 ? key > 20 : random.nextInt(30) == 0);
        String size = random.nextInt(soon) == 0 ? "soon" + i : day ? "2026-07-0" + i % 9 : "" + i;
        theirs.add("A" + key + ",p" + i + "," + (random.nextInt(5) == 0 ? "" : size));
      }
      tickets = MemoryTable.of("tickets", "no,grade,kg", "1,A1,7", "2,A2,8", "3,A21,8", "4,A9,9");
      growers = MemoryTable.of("prices", "grade,price,size", theirs.toArray(String[]::new));
      if (trial % 4 == 0) {
        growers = growers.typed("size", ColumnType.Kind.NUMBER);
      }
      Lookup lookup = Lookup.in(growers).key("grade").bring("price");
      for (Lookup one :
          List.of(
              lookup.several(Several.newestBy("size")),
              lookup.duplicates(Duplicates.newestBy("size")))) {
        Came expected = ran(List.of(one), ENOUGH, 1);
        assertThat(ran(List.of(one), 1, 2)).as("trial " + trial).isEqualTo(expected);
        met[expected.failure().isEmpty() ? 0 : 1] = true;
      }
    }
    assertThat(met).containsOnly(true);
  }

  @Test
  void aKeyWithoutAnEqualPartStaysInMemory() {
    prices(50, 1, false);
    RunRecord run =
        Enrichment.of(tickets)
            .lookup(
                Lookup.in(growers)
                    .key(KeyPart.matching("at", MatchRule.Kind.AT_OR_BELOW, "from"))
                    .bring("price"))
            .memory(1, folder)
            .build()
            .writeTo(new ListSink());
    assertThat(run.lookups().get(0).spilled()).isNull();
  }

  @Test
  @Tag("oracle")
  void furtherReferencesByTheSameKeyAreDividedTooAndOthersStayInMemory() {
    List<UnaryOperator<Lookup>> further =
        List.of(
            other -> other.key("grower", "code"),
            other -> other.key("grower", "code").several(Several.each()),
            other -> other.key("grower", "code").where("name <> 'f1'"),
            other -> other.key("grower", "code").duplicates(Duplicates.last()),
            other -> other.key("grower", "code").normalise(Normalise.ignoreCase()),
            other -> other.key("no", "code"));
    for (UnaryOperator<Lookup> setting : further) {
      same(
          "otherwise",
          () ->
              List.of(
                  plain()
                      .otherwise(
                          setting.apply(
                              Lookup.in(former)
                                  .normalise(Normalise.trim(), Normalise.ignoreCase())
                                  .bring("name")))
                      .markAs("how")));
    }
  }

  @Test
  @Tag("oracle")
  void aFurtherReferenceThatDoesNotFitDividesTheFirstToo() {
    tables(300, 20);
    List<String> many = new ArrayList<>();
    for (int i = 0; i < 30_000; i++) {
      many.add("g" + random.nextInt(20_000) + ",f" + random.nextInt(4));
    }
    former = MemoryTable.of("former", "code,name", many.toArray(String[]::new));
    List<Lookup> lookups =
        List.of(
            plain()
                .otherwise(
                    Lookup.in(former)
                        .key("grower", "code")
                        .normalise(Normalise.trim(), Normalise.ignoreCase())
                        .bring("name"))
                .markAs("how"));
    Enrichment.Builder builder = Enrichment.of(tickets);
    lookups.forEach(builder::lookup);
    ListSink expected = new ListSink();
    RunRecord whole = builder.memory(ENOUGH, folder).build().writeTo(expected);
    int divided = 0;
    for (long memory : new long[] {1, 300_000, 1_500_000, 100_000_000}) {
      ListSink sink = new ListSink();
      RunRecord run = builder.memory(memory, folder).build().writeTo(sink);
      assertThat(sink.rows()).as("" + memory).isEqualTo(expected.rows());
      assertThat(run.lookups().get(0).inMemory()).isEqualTo(whole.lookups().get(0));
      divided += run.lookups().get(0).spilled() == null ? 0 : 1;
    }
    assertThat(divided).isEqualTo(3);
  }

  @Test
  void whatEndsARunEndsItInTheSameWay() {
    for (Function<Lookup, Lookup> setting :
        List.<Function<Lookup, Lookup>>of(
            lookup -> lookup.duplicates(Duplicates.fail()),
            lookup -> lookup.duplicates(Duplicates.identical()),
            lookup -> lookup.when(Outcome.UNMATCHED, Treatment.fail()),
            lookup -> lookup.when(Outcome.AMBIGUOUS, Treatment.fail()),
            lookup -> lookup.when(Outcome.BLANK_KEY, Treatment.fail()))) {
      tables(200, 100);
      Came expected = ran(List.of(setting.apply(plain())), ENOUGH, 1);
      assertThat(expected.failure()).containsPattern("and the plan says|its rule is duplicates");
      assertThat(ran(List.of(setting.apply(plain())), 1, 2).failure())
          .isEqualTo(expected.failure());
    }
  }

  @Test
  @Tag("oracle")
  void theFirstRowThatEndsARunEndsItWhicheverStepItIs() {
    for (int bad = 0; bad < 6; bad++) {
      for (int worse = 0; worse < 6; worse++) {
        // One row cannot be computed before the lookup, another is not found by it.
        String[] rows = new String[6];
        for (int row = 0; row < rows.length; row++) {
          rows[row] = (row == worse ? "none" : "a") + "," + (row == bad ? "x" : "1");
        }
        tickets = MemoryTable.of("tickets", "grower,kg", rows);
        growers = MemoryTable.of("growers", "code,name", "a,Ash", "b,Birch");
        String[] failures = new String[2];
        for (int memory = 0; memory < 2; memory++) {
          Enrichment enrichment =
              Enrichment.of(tickets)
                  .step(new Compute("more", "kg + 1", Evaluation.STRICT))
                  .lookup(
                      Lookup.in(growers)
                          .key("grower", "code")
                          .bring("name")
                          .when(Outcome.UNMATCHED, Treatment.fail()))
                  .memory(memory == 0 ? ENOUGH : 1, folder)
                  .build();
          failures[memory] = failure(enrichment);
        }
        assertThat(failures[1]).as(bad + " " + worse).isEqualTo(failures[0]);
        assertThat(failures[1]).startsWith("row " + (1 + Math.min(bad, worse)));
      }
    }
  }

  private static String failure(Enrichment enrichment) {
    try {
      enrichment.writeTo(new ListSink());
    } catch (DataException e) {
      return String.valueOf(e.getMessage());
    }
    return "";
  }

  @Test
  void nobodyButTheOwnerMayReadWhatIsOnDisk() throws IOException {
    try (Spill spill = new Spill(1, folder)) {
      spill.file();
      try (Stream<Path> files = Files.list(folder)) {
        Path file = files.findFirst().orElseThrow();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
            .isEqualTo("rw-------");
      }
    }
  }

  @Test
  void roomOnDiskIsLookedAtBefore() {
    try (Spill spill = new Spill(1, folder)) {
      assertThatThrownBy(() -> spill.requireRoom(Long.MAX_VALUE, "growers"))
          .isInstanceOf(DataException.class)
          .hasMessageStartingWith("growers does not fit in the 0 MB that references may take")
          .hasMessageContaining("make room there, name another folder, or give more memory");
    }
  }

  @Test
  @Tag("oracle")
  void aTraceTellsWhatItTellsInMemoryButForNearMisses() {
    tables(60, 40);
    Lookup two =
        Lookup.in(growers)
            .named("two")
            .key("grower", "code")
            .key("part", "part")
            .bring("state")
            .when(Outcome.UNMATCHED, Treatment.drop());
    Enrichment.Builder builder =
        Enrichment.of(tickets).lookup(plain().several(Several.each()).markAs("how")).lookup(two);
    int notLookedFor = 0;
    for (int row = 1; row <= 60; row++) {
      List<String> expected = lines(builder.memory(ENOUGH, folder).build().trace(row));
      TracedRow divided = builder.memory(1, folder).build().trace(row);
      assertThat(lines(divided)).isEqualTo(expected);
      notLookedFor += divided.toString().contains("not looked for") ? 1 : 0;
    }
    assertThat(notLookedFor).as("rows whose reference was on disk").isPositive();
  }

  private static List<String> lines(TracedRow row) {
    List<String> lines = new ArrayList<>();
    for (TracedRow.StepTrace step : row.steps()) {
      step.lines().stream()
          .filter(line -> !line.label().equals("near misses"))
          .forEach(line -> lines.add(step.step() + ": " + line));
    }
    return lines;
  }

  @Test
  void nothingIsLeftInTheFolder() throws IOException {
    tables(200, 100);
    ran(List.of(plain()), 1, 2);
    ran(List.of(plain().when(Outcome.UNMATCHED, Treatment.fail())), 1, 2);
    try (Stream<Path> left = Files.list(folder)) {
      assertThat(left).isEmpty();
    }
  }

  @Test
  void aFolderThatCannotBeWrittenToIsTold() {
    tables(20, 10);
    assertThatThrownBy(
            () ->
                Enrichment.of(tickets)
                    .lookup(plain())
                    .memory(1, folder.resolve("none"))
                    .build()
                    .writeTo(new ListSink()))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("cannot keep what does not fit in memory in the folder");
  }
}
