package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.step.Progress;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Reference rows whose ordered cell cannot be read: the same as without these rows. */
class UnreadableRowsTest {
  private static final String[] BAD = {"undefined", "2026-02-30", "n/a", "2026-7-1"};

  private record Tables(MemoryTable ours, MemoryTable all, MemoryTable readable, int bad) {}

  private static Tables tables(Random random, boolean bands) {
    List<String> ours = new ArrayList<>();
    List<String> all = new ArrayList<>();
    List<String> readable = new ArrayList<>();
    int bad = 0;
    for (int i = 0; i < 300; i++) {
      ours.add("c" + random.nextInt(6) + "," + day(random));
    }
    for (int i = 0; i < 120; i++) {
      String from = day(random);
      String to = day(random);
      boolean swap = from.compareTo(to) > 0;
      String low = swap ? to : from;
      String high = swap ? from : to;
      boolean unreadable = random.nextInt(6) == 0;
      if (unreadable && random.nextBoolean() && bands) {
        high = BAD[random.nextInt(BAD.length)];
      } else if (unreadable) {
        low = BAD[random.nextInt(BAD.length)];
      }
      String row = "c" + random.nextInt(5) + "," + low + "," + high + ",v" + random.nextInt(40);
      all.add(row);
      if (unreadable) {
        bad++;
      } else {
        readable.add(row);
      }
    }
    String head = "code,low,high,value";
    return new Tables(
        MemoryTable.of("t", "code,day", ours.toArray(String[]::new)),
        MemoryTable.of("r", head, all.toArray(String[]::new)),
        MemoryTable.of("r", head, readable.toArray(String[]::new)),
        bad);
  }

  private static String day(Random random) {
    return "2026-0" + (1 + random.nextInt(9)) + "-" + (10 + random.nextInt(18));
  }

  private static KeyPart part(Kind kind) {
    return kind == Kind.BETWEEN
        ? KeyPart.between("day", "low", "high")
        : KeyPart.matching("day", kind, "low");
  }

  @ParameterizedTest
  @EnumSource(
      value = Kind.class,
      names = {"AT_OR_BELOW", "AT_OR_ABOVE", "NEAREST", "BETWEEN"})
  @Tag("oracle")
  void areAsIfTheyWereNotThere(Kind kind) {
    Random random = new Random(kind.ordinal());
    for (int trial = 0; trial < 40; trial++) {
      Tables tables = tables(random, kind == Kind.BETWEEN);
      boolean beside = trial % 2 == 0;
      for (Several several : List.of(Several.first(), Several.flag())) {
        ListSink with = new ListSink();
        ListSink without = new ListSink();
        List<String> told = new ArrayList<>();
        LookupFigures figures =
            run(lookup(tables.all, kind, beside, several).unreadable(true), tables, with, told);
        LookupFigures expected =
            run(lookup(tables.readable, kind, beside, several), tables, without, new ArrayList<>());
        assertThat(with.column("value")).isEqualTo(without.column("value"));
        assertThat(with.column("outcome")).isEqualTo(without.column("outcome"));
        assertThat(figures.outcomes()).isEqualTo(expected.outcomes());
        assertThat(figures.reference().unreadable()).isEqualTo(tables.bad);
        assertThat(told.stream().filter(kindOf -> kindOf.equals("unreadable left out")))
            .hasSize(tables.bad);
      }
    }
  }

  private static Lookup lookup(MemoryTable reference, Kind kind, boolean beside, Several several) {
    Lookup lookup = Lookup.in(reference).named("r");
    lookup = beside ? lookup.key("code") : lookup;
    return lookup.key(part(kind)).bring("value").several(several).markAs("outcome");
  }

  private static LookupFigures run(Lookup lookup, Tables tables, ListSink sink, List<String> told) {
    return Enrichment.of(tables.ours)
        .lookup(lookup)
        .workers(2)
        .build()
        .writeTo(sink, new RunContext(Progress.NONE, found -> told.add(found.kind())))
        .lookups()
        .get(0);
  }

  @Test
  void unlessStatedTheyEndTheRunAndTheMessageNamesTheSetting() {
    MemoryTable reference =
        MemoryTable.of("prices.csv", "low,value", "2026-01-01,1", "2026-02-01,2", "undefined,3");
    Lookup lookup = Lookup.in(reference).key(part(Kind.AT_OR_BELOW)).bring("value");
    MemoryTable ours = MemoryTable.of("t", "day", "2026-01-15");
    assertThatThrownBy(() -> Enrichment.of(ours).lookup(lookup).build().writeTo(new ListSink()))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 3: \"undefined\" is not a date")
        .hasMessageContaining("unreadable: leave-out");
    ListSink sink = new ListSink();
    Enrichment.of(ours).lookup(lookup.unreadable(true)).build().writeTo(sink);
    assertThat(sink.column("value")).containsExactly("1");
  }

  /** Of a column that says which row is the newest, for keys with and without a rule. */
  @ParameterizedTest
  @EnumSource(
      value = Kind.class,
      names = {"EQUAL", "AT_OR_BELOW", "BETWEEN"})
  @Tag("oracle")
  void whereTheNewestIsLookedForAreAsIfTheyWereNotThere(Kind kind) {
    Random random = new Random(7 + kind.ordinal());
    int undecided = 0;
    for (int trial = 0; trial < 60; trial++) {
      Tables tables = newestTables(random);
      Duplicates duplicates = trial % 3 == 0 ? Duplicates.keep() : Duplicates.newestBy("upd");
      Several several = trial % 3 == 1 ? Several.first() : Several.newestBy("upd");
      ListSink with = new ListSink();
      ListSink without = new ListSink();
      List<String> told = new ArrayList<>();
      UnaryOperator<Lookup> settle = lookup -> lookup.duplicates(duplicates).several(several);
      LookupFigures figures =
          run(settle.apply(newest(tables.all, kind)).unreadable(true), tables, with, told);
      LookupFigures expected =
          run(settle.apply(newest(tables.readable, kind)), tables, without, new ArrayList<>());
      assertThat(with.column("value")).isEqualTo(without.column("value"));
      assertThat(with.column("outcome")).isEqualTo(without.column("outcome"));
      assertThat(figures.outcomes()).isEqualTo(expected.outcomes());
      assertThat(figures.reference().blankKeys()).isEqualTo(expected.reference().blankKeys());
      assertThat(figures.reference().unreadable()).isEqualTo(tables.bad);
      assertThat(told.stream().filter("unreadable left out"::equals)).hasSize(tables.bad);
      try {
        run(settle.apply(newest(tables.all, kind)), tables, new ListSink(), new ArrayList<>());
      } catch (DataException e) {
        undecided++;
        assertThat(e).hasMessageContaining("leave such rows out with unreadable: leave-out");
      }
    }
    assertThat(undecided).as("trials in which such a row matters").isGreaterThan(20);
  }

  private static Tables newestTables(Random random) {
    List<String> ours = new ArrayList<>();
    for (int i = 0; i < 200; i++) {
      ours.add("c" + random.nextInt(30) + "," + day(random));
    }
    List<String> all = new ArrayList<>();
    List<String> readable = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      String low = day(random);
      String key = random.nextInt(12) == 0 ? "" : "c" + random.nextInt(25);
      boolean bad = random.nextInt(7) == 0;
      String updated =
          bad ? BAD[random.nextInt(BAD.length)] : random.nextInt(5) == 0 ? "" : day(random);
      String row = key + "," + low + ",2026-12-31," + updated + ",v" + random.nextInt(400);
      all.add(row);
      if (!bad) {
        readable.add(row);
      }
    }
    String head = "code,low,high,upd,value";
    return new Tables(
        MemoryTable.of("t", "code,day", ours.toArray(String[]::new)),
        MemoryTable.of("r", head, all.toArray(String[]::new)).typed("upd", ColumnType.Kind.DATE),
        MemoryTable.of("r", head, readable.toArray(String[]::new))
            .typed("upd", ColumnType.Kind.DATE),
        all.size() - readable.size());
  }

  private static Lookup newest(MemoryTable reference, Kind kind) {
    Lookup lookup = Lookup.in(reference).named("r").key("code");
    lookup = kind == Kind.EQUAL ? lookup : lookup.key(part(kind));
    return lookup.bring("value").markAs("outcome");
  }

  /** Without a declared type nobody can say which rows are the unreadable ones. */
  @Test
  void withoutATypeTheMessageSaysToDeclareOne() {
    MemoryTable reference =
        MemoryTable.of("r", "code,upd,value", "a,2026-01-01,1", "a,soon,2", "a,7,3");
    Lookup lookup =
        Lookup.in(reference)
            .key("code")
            .bring("value")
            .duplicates(Duplicates.newestBy("upd"))
            .unreadable(true);
    MemoryTable ours = MemoryTable.of("t", "code", "a");
    assertThatThrownBy(() -> Enrichment.of(ours).lookup(lookup).build().writeTo(new ListSink()))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("declare the column's type")
        .hasMessageContaining("with which unreadable: leave-out leaves such rows out");
  }

  /** Two lookups that differ in nothing else do not share what was loaded. */
  @Test
  void aLookupThatLeavesThemOutAndOneThatDoesNotAreKeptApart() {
    MemoryTable reference = MemoryTable.of("p", "low,value", "1,a", "2,b", "x,c");
    Lookup strict = Lookup.in(reference).key(part(Kind.AT_OR_BELOW)).bring("value as v");
    Enrichment both =
        Enrichment.of(MemoryTable.of("t", "day", "5"))
            .lookup(
                Lookup.in(reference)
                    .named("lenient")
                    .key(part(Kind.AT_OR_BELOW))
                    .bring("value")
                    .unreadable(true))
            .lookup(strict)
            .build();
    assertThatThrownBy(() -> both.writeTo(new ListSink())).isInstanceOf(DataException.class);
  }
}
