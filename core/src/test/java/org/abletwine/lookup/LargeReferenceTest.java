package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.enrich.TracedRow;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Exceptions;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.spill.Spill;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A reference that does not fit in memory gives what one that does gives: the same rows, figures,
 * exceptions and failures, for every setting of a lookup and any number of workers.
 */
class LargeReferenceTest {
  private static final long ENOUGH = Long.MAX_VALUE / 2;

  @TempDir private Path folder;

  private final Random random = new Random(20261126);
  private MemoryTable tickets = MemoryTable.of("tickets", "no");
  private MemoryTable growers = MemoryTable.of("growers", "code");
  private MemoryTable former = MemoryTable.of("former", "code,name");

  private void tables(int rows, int keys) {
    List<String> ours = new ArrayList<>();
    List<String> theirs = new ArrayList<>();
    List<String> others = new ArrayList<>();
    for (int i = 0; i < rows; i++) {
      ours.add(i + "," + code(keys) + "," + random.nextInt(3) + "," + random.nextInt(900));
    }
    for (int i = 0; i < keys; i++) {
      theirs.add(
          code(keys)
              + ","
              + random.nextInt(3)
              + ",n"
              + random.nextInt(3)
              + ","
              + (random.nextInt(9) == 0 ? "" : random.nextInt(50))
              + ","
              + (random.nextInt(5) == 0 ? "closed" : "open"));
      others.add(code(keys * 2) + ",f" + random.nextInt(4));
    }
    tickets = MemoryTable.of("tickets", "no,grower,part,kg", ours.toArray(String[]::new));
    growers = MemoryTable.of("growers", "code,part,name,size,state", theirs.toArray(String[]::new));
    former = MemoryTable.of("former", "code,name", others.toArray(String[]::new));
  }

  private String code(int keys) {
    int code = random.nextInt(keys + keys / 3);
    return switch (random.nextInt(8)) {
      case 0 -> " g" + code;
      case 1 -> "G" + code;
      case 2 -> code % 5 == 0 ? "" : "g" + code;
      default -> "g" + code;
    };
  }

  /** What came of a run. */
  private record Came(
      List<List<String>> rows, List<?> figures, List<Exceptions.Found> told, String failure) {}

  private Came ran(List<Lookup> lookups, long memory, int workers) {
    ListSink sink = new ListSink();
    List<Exceptions.Found> told = new ArrayList<>();
    Enrichment.Builder builder =
        Enrichment.of(tickets)
            .measure("kg")
            .carry(List.of("no"))
            .exceptions(told::add)
            .workers(workers)
            .memory(memory, folder);
    for (Lookup lookup : lookups) {
      builder.lookup(lookup);
    }
    builder.step(new Compute("end", "kg + 1", Evaluation.STRICT));
    try {
      RunRecord run = builder.build().writeTo(sink);
      for (LookupFigures one : run.lookups()) {
        assertThat(one.spilled() != null).as(one.name()).isEqualTo(memory == 1);
      }
      List<LookupFigures> figures = run.lookups().stream().map(LookupFigures::inMemory).toList();
      return new Came(new ArrayList<>(sink.rows()), figures, told, "");
    } catch (DataException e) {
      return new Came(List.of(), List.of(), List.of(), String.valueOf(e.getMessage()));
    }
  }

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

  private void same(String what, UnaryOperator<Lookup> setting) {
    same(what, () -> List.of(setting.apply(plain())));
  }

  private void same(String what, java.util.function.Supplier<List<Lookup>> lookups) {
    for (int size : new int[] {3, 150}) {
      tables(size * 2, size);
      Came expected = ran(lookups.get(), ENOUGH, 1);
      for (int workers = 1; workers <= 3; workers += 2) {
        Came came = ran(lookups.get(), 1, workers);
        assertThat(came.failure()).as(what).isEqualTo(expected.failure());
        assertThat(came.rows()).as(what).isEqualTo(expected.rows());
        assertThat(came.figures()).as(what).isEqualTo(expected.figures());
        assertThat(came.told()).as(what).isEqualTo(expected.told());
      }
    }
  }

  private Lookup plain() {
    return Lookup.in(growers)
        .key("grower", "code")
        .normalise(Normalise.trim(), Normalise.ignoreCase())
        .bring("name", "size");
  }

  @Test
  @Tag("oracle")
  void everySettingGivesWhatItGivesInMemory() {
    same("plain", lookup -> lookup);
    same("mark", lookup -> lookup.markAs("how"));
    same("drop", lookup -> lookup.when(Outcome.UNMATCHED, Treatment.drop()));
    same(
        "drop ambiguous", lookup -> lookup.when(Outcome.AMBIGUOUS, Treatment.drop()).markAs("how"));
    same("expected", lookup -> lookup.when(Outcome.UNMATCHED, Treatment.expected()));
    same("fill", lookup -> lookup.whenUnmatched(Fill.fill("name", "unlisted")));
    same("empty", lookup -> lookup.whenEmpty(Fill.fill("size", "0")));
    same("where", lookup -> lookup.where("state = 'open'"));
    same("when", lookup -> lookup.when("kg > 450", Evaluation.STRICT));
    for (Several several : new Several[] {Several.first(), Several.last(), Several.each()}) {
      same("several " + several, lookup -> lookup.several(several).markAs("how"));
    }
    same("newest", lookup -> lookup.several(Several.newestBy("size")));
  }

  @Test
  void rulesForDuplicatesAndAggregatesGiveWhatTheyGiveInMemory() {
    for (Duplicates.Rule rule :
        List.of(Duplicates.Rule.FIRST, Duplicates.Rule.LAST, Duplicates.Rule.FULLEST)) {
      same("duplicates " + rule, lookup -> lookup.duplicates(new Duplicates(rule, null)));
    }
    same("duplicates newest", lookup -> lookup.duplicates(Duplicates.newestBy("size")));
    same(
        "aggregates",
        () ->
            List.of(
                Lookup.in(growers)
                    .key("grower", "code")
                    .bring(
                        "count(*) as n",
                        "sum(size) as total",
                        "max(name) as last",
                        "count(distinct name) as names",
                        "listagg(name, '+') as all_names")));
  }

  @Test
  @Tag("oracle")
  void severalPartsFurtherReferencesAndChainsGiveWhatTheyGiveInMemory() {
    same(
        "two parts",
        () -> List.of(Lookup.in(growers).key("grower", "code").key("part", "part").bring("name")));
    same(
        "chain of repeated rows",
        () ->
            List.of(
                plain().several(Several.each()),
                Lookup.in(growers)
                    .named("by name")
                    .key("name", "name")
                    .bring("state as its_state")
                    .several(Several.each())
                    .when(Outcome.UNMATCHED, Treatment.drop()),
                Lookup.in(growers)
                    .named("again")
                    .key("grower", "code")
                    .key("name", "name")
                    .bring("size as again_size")));
  }

  /** Prices by grade, and ours with values of several forms, some that no price is near. */
  private void prices(int rows, int places, boolean days) {
    List<String> ours = new ArrayList<>();
    List<String> theirs = new ArrayList<>();
    for (int i = 0; i < rows * 2; i++) {
      ours.add(i + ",A" + random.nextInt(7) + "," + value(places, days) + "," + random.nextInt(90));
    }
    for (int i = 0; i < rows; i++) {
      String from = value(random.nextInt(places + 1), days);
      String to = random.nextInt(5) == 0 ? "" : from.isEmpty() ? value(0, days) : from + "9";
      theirs.add(
          "A"
              + random.nextInt(9)
              + ","
              + from
              + ","
              + to
              + ",p"
              + random.nextInt(5)
              + ","
              + (random.nextInt(6) == 0 ? "old" : "new"));
    }
    tickets = MemoryTable.of("tickets", "no,grade,at,kg", ours.toArray(String[]::new));
    growers = MemoryTable.of("prices", "grade,from,to,price,state", theirs.toArray(String[]::new));
  }

  private String value(int places, boolean days) {
    if (random.nextInt(12) == 0) {
      return "";
    }
    if (days) {
      return String.format("2026-%02d-%02d", 1 + random.nextInt(12), 1 + random.nextInt(28));
    }
    String whole = Integer.toString(random.nextInt(60));
    return places == 0 ? whole : whole + "." + "123".substring(0, places);
  }

  private void sameRuled(String what, int places, boolean days, KeyPart part, boolean where) {
    for (Several several : List.of(Several.flag(), Several.each())) {
      for (int rows : new int[] {4, 150}) {
        prices(rows, places, days);
        Lookup plain =
            Lookup.in(growers).key("grade").key(part).bring("price").several(several).markAs("how");
        List<Lookup> lookups = List.of(where ? plain.where("state = 'new'") : plain);
        Came expected = ran(lookups, ENOUGH, 1);
        for (int workers = 1; workers <= 3; workers += 2) {
          assertThat(ran(lookups, 1, workers)).as(what).isEqualTo(expected);
        }
      }
    }
  }

  @Test
  @Tag("oracle")
  void rulesBesideAnEqualPartGiveWhatTheyGiveInMemory() {
    for (MatchRule.Kind kind :
        List.of(MatchRule.Kind.AT_OR_BELOW, MatchRule.Kind.AT_OR_ABOVE, MatchRule.Kind.NEAREST)) {
      KeyPart part = KeyPart.matching("at", kind, "from");
      sameRuled(kind + " numbers", 2, false, part, false);
      sameRuled(kind + " days", 0, true, part, true);
    }
    for (MatchRule.Kind kind :
        List.of(MatchRule.Kind.STARTS_WITH, MatchRule.Kind.CONTAINS, MatchRule.Kind.SIMILAR)) {
      sameRuled("" + kind, 1, false, KeyPart.matching("at", kind, "from"), true);
    }
  }

  @Test
  void bandsBesideAnEqualPartGiveWhatTheyGiveInMemory() {
    for (int rows : new int[] {10, 200}) {
      List<String> ours = new ArrayList<>();
      List<String> theirs = new ArrayList<>();
      for (int i = 0; i < rows * 2; i++) {
        ours.add(i + ",A" + random.nextInt(5) + "," + value(i % 3, false) + ",1");
      }
      for (int i = 0; i < rows; i++) {
        int from = random.nextInt(50);
        theirs.add(
            "A"
                + random.nextInt(6)
                + ","
                + from
                + (i % 4 == 0 ? ".25" : "")
                + ","
                + (from + 1 + random.nextInt(9))
                + ",c"
                + random.nextInt(4)
                + ",new");
      }
      tickets = MemoryTable.of("tickets", "no,grade,at,kg", ours.toArray(String[]::new));
      growers =
          MemoryTable.of("prices", "grade,from,to,price,state", theirs.toArray(String[]::new));
      List<Lookup> lookups =
          List.of(
              Lookup.in(growers)
                  .key("grade")
                  .key(KeyPart.between("at", "from", "to"))
                  .bring("price"));
      Came expected = ran(lookups, ENOUGH, 1);
      assertThat(ran(lookups, 1, 2)).isEqualTo(expected);
    }
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
