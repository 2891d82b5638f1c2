package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.management.ThreadMXBean;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A loaded lookup answers as the same lookup does in a run: loaded, shipped, and shared. */
class LoadedLookupTest {
  private static MemoryTable table(String name, Random random, int rows) {
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      String k = random.nextInt(9) == 0 ? null : "" + "abc".charAt(random.nextInt(3));
      String n = random.nextInt(9) == 0 ? null : "" + random.nextInt(12);
      String p =
          random.nextInt(9) == 0 ? null : List.of("o*", "?y*", "*", "r?e").get(random.nextInt(4));
      String v = random.nextInt(6) == 0 ? null : "" + random.nextInt(3);
      cells.add(new @Nullable String[] {k, n, p, v, "" + random.nextInt(2)});
    }
    return new MemoryTable(name, List.of("k", "n", "p", "v", "w"), cells, 5);
  }

  private static Lookup keyed(Lookup lookup, Random random) {
    return switch (random.nextInt(4)) {
      case 0 -> lookup.key("k");
      case 1 -> lookup.key("k").key(KeyPart.matching("n", MatchRule.Kind.AT_OR_BELOW, "n"));
      case 2 -> lookup.key(KeyPart.matching("t", MatchRule.Kind.WILDCARD, "p"));
      default -> lookup.key("k").key(KeyPart.matching("n", MatchRule.Kind.NEAREST, "n"));
    };
  }

  private static Lookup lookup(Random random) {
    List<Several> rules =
        List.of(Several.flag(), Several.first(), Several.last(), Several.newestBy("n"));
    boolean aggregates = random.nextInt(3) == 0;
    Lookup main = keyed(Lookup.in(table("main", random, 1 + random.nextInt(20))), random);
    main = aggregates ? main.bring("sum(v) as v", "count(*) as w") : main.bring("v", "w");
    main = aggregates ? main : main.several(rules.get(random.nextInt(4)));
    if (random.nextBoolean()) {
      main = main.whenUnmatched(Fill.fill("v", "none")).whenEmpty(Fill.fill("v", "empty"));
    }
    for (int i = random.nextInt(3); i > 0; i--) {
      Lookup other = keyed(Lookup.in(table("other" + i, random, random.nextInt(12))), random);
      main = main.otherwise(other.bring("w").several(rules.get(random.nextInt(4))));
    }
    return main.markAs("outcome");
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  @Tag("oracle")
  void itAnswersAsInARun(long seed) throws Exception {
    Random random = new Random(seed);
    for (int round = 0; round < 40; round++) {
      Lookup lookup = lookup(random);
      List<@Nullable String[]> rows = new ArrayList<>();
      for (int row = 0; row < 40; row++) {
        rows.add(
            new @Nullable String[] {
              random.nextInt(9) == 0 ? null : "" + "abcd".charAt(random.nextInt(4)),
              random.nextInt(9) == 0 ? null : List.of("3", "7.5", "x", "-1").get(random.nextInt(4)),
              random.nextInt(9) == 0 ? null : List.of("oats", "rye", "rxe").get(random.nextInt(3))
            });
      }
      MemoryTable ours = new MemoryTable("ours", List.of("k", "n", "t"), rows, 7);
      ListSink sink = new ListSink();
      Enrichment.of(ours).lookup(lookup).build().writeTo(sink);
      LoadedLookup loaded = lookup.load();
      LoadedLookup shipped = shipped(loaded);
      for (int row = 0; row < 40; row++) {
        Map<String, @Nullable String> record = new HashMap<>();
        for (int column = 0; column < 3; column++) {
          record.put(List.of("k", "n", "t").get(column), rows.get(row)[column]);
        }
        for (LoadedLookup one : List.of(loaded, shipped)) {
          LoadedLookup.Result result = one.apply(record);
          String outcome = String.valueOf(sink.cell(row, "outcome"));
          assertThat(outcome).as(lookup + " of " + record).startsWith(result.outcome().label());
          if (outcome.contains(": ")) {
            assertThat(result.reference()).isEqualTo(outcome.substring(outcome.indexOf(": ") + 2));
          }
          assertThat(result.get("v")).as(lookup + " of " + record).isEqualTo(sink.cell(row, "v"));
          assertThat(result.get("w")).isEqualTo(sink.cell(row, "w"));
        }
      }
    }
  }

  private static LoadedLookup shipped(LoadedLookup loaded)
      throws IOException, ClassNotFoundException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ObjectOutputStream out = new ObjectOutputStream(bytes)) {
      out.writeObject(loaded);
    }
    try (ObjectInputStream in =
        new ObjectInputStream(new ByteArrayInputStream(bytes.toByteArray()))) {
      return (LoadedLookup) in.readObject();
    }
  }

  /** Aggregates over patterns are put together when a set is first met, by whichever thread. */
  @Test
  void manyThreadsMeetTheSameSetsAtOnce() throws Exception {
    List<@Nullable String[]> patterns = new ArrayList<>();
    for (int row = 0; row < 200; row++) {
      patterns.add(new String[] {"*" + row % 50 + "*", "1"});
    }
    MemoryTable table = new MemoryTable("patterns", List.of("p", "v"), patterns, 9);
    LoadedLookup loaded =
        Lookup.in(table)
            .key(KeyPart.matching("t", MatchRule.Kind.WILDCARD, "p"))
            .bring("sum(v) as v")
            .load();
    Map<String, String> alone = new HashMap<>();
    LoadedLookup other = shipped(loaded);
    for (int text = 0; text < 3_000; text++) {
      alone.put("" + text, other.find("" + text).get("v"));
    }
    ExecutorService threads = Executors.newFixedThreadPool(8);
    try {
      List<Future<?>> runs = new ArrayList<>();
      for (int thread = 0; thread < 8; thread++) {
        runs.add(
            threads.submit(
                () ->
                    alone.forEach(
                        (text, sum) ->
                            assertThat(loaded.find(text).get("v")).as(text).isEqualTo(sum))));
      }
      for (Future<?> run : runs) {
        run.get();
      }
    } finally {
      threads.shutdownNow();
    }
  }

  @Test
  void whatMayGiveSeveralRowsIsNotLoaded() {
    MemoryTable table = MemoryTable.of("t", "k,v", "a,1", "a,2");
    Lookup each = Lookup.in(table).key("k").bring("v").several(Several.each());
    assertThatThrownBy(each::load)
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("one record at a time");
    Lookup main = Lookup.in(table).named("main").key("k").bring("v");
    assertThatThrownBy(main.otherwise(each)::load).isInstanceOf(SettingException.class);
    LoadedLookup other = main.otherwise(Lookup.in(table).key("j", "k").bring("v")).load();
    assertThatThrownBy(() -> other.find("a"))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("column \"j\"");
  }

  /** Beyond the result, its two texts, and the array of the call there is nothing. */
  @Tag("oracle")
  @Test
  void findingAllocatesTheResultAndNothingElse() {
    List<@Nullable String[]> rows = new ArrayList<>();
    for (int row = 0; row < 1_000; row++) {
      rows.add(new @Nullable String[] {"G" + row, "Grower " + row, "D" + row % 7});
    }
    LoadedLookup growers =
        Lookup.in(new MemoryTable("growers", List.of("code", "name", "district"), rows, 100))
            .key("grower", "code")
            .normalise(Normalise.trim())
            .bring("name", "district")
            .load();
    ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
    int finds = 20_000;
    long seen = 0;
    long before = 0;
    for (int i = -finds; i < finds; i++) {
      before = i == 0 ? threads.getCurrentThreadAllocatedBytes() : before;
      seen += growers.find(rows.get(Math.floorMod(i, 1_000))[0]).referenceRow();
    }
    long bytes = threads.getCurrentThreadAllocatedBytes() - before;
    assertThat(seen).isEqualTo(2L * finds / 1_000 * 500_500);
    assertThat((double) bytes / finds).isLessThan(300);
  }

  @Test
  void aResultIsAMapOfItsOwn() {
    MemoryTable growers = MemoryTable.of("growers", "code,name,district", "A,Ann,", "B,Ben,D2");
    LoadedLookup loaded = Lookup.in(growers).key("grower", "code").bring("name", "district").load();
    LoadedLookup.Result ann = loaded.find("A");
    LoadedLookup.Result ben = loaded.apply(Map.of("grower", "B"));
    Map<String, @Nullable String> expected = new HashMap<>();
    expected.put("name", "Ann");
    expected.put("district", null);
    assertThat(ann.attributes()).isEqualTo(expected).hasToString("{name=Ann, district=null}");
    assertThat(ann.attributes()).containsKey("district").doesNotContainKey("code");
    assertThat(ann.attributes().get("code")).isNull();
    assertThat(ben.attributes().values()).containsExactly("Ben", "D2");
    assertThatThrownBy(() -> ann.attributes().put("name", "x"))
        .isInstanceOf(UnsupportedOperationException.class);
  }
}
