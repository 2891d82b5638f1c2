package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * References divided among processes: what a run by one process writes and tells, whatever the
 * lookup is stated to do, and whatever is wrong with a reference.
 */
class PlanExchangeTest {
  /** Any number of orders by {@code -Dorders=100}. */
  private static final int ORDERS = Integer.getInteger("orders", 1);

  @TempDir private Path folder;

  @BeforeEach
  void layOut() throws IOException {
    Random random = new Random(11);
    StringBuilder tickets = new StringBuilder("no,code,sort,mark,kg,day\n");
    for (int row = 1; row <= 600; row++) {
      tickets.append(row).append(',');
      tickets.append(random.nextInt(12) == 0 ? "" : "g" + random.nextInt(50)).append(',');
      tickets.append(List.of("wheat", "oats ", "BARLEY", "rye", "").get(random.nextInt(5)));
      tickets.append(",m").append(random.nextInt(4)).append(',');
      tickets.append(random.nextInt(20) == 0 ? "" : 1 + random.nextInt(90)).append(",2026-0");
      tickets.append(1 + random.nextInt(9)).append("-0").append(1 + random.nextInt(9)).append('\n');
    }
    Files.writeString(folder.resolve("tickets.csv"), tickets);
    table("growers", "no,name,office,share", 45, random);
    table("former", "no,name,office,share", 60, random);
    StringBuilder prices = new StringBuilder("sort,mark,since,from_kg,to_kg,price\n");
    for (int row = 0; row < 90; row++) {
      int from = random.nextInt(60);
      prices.append(List.of("wheat", "oats", "barley", "spelt").get(random.nextInt(4)));
      prices.append(",m").append(random.nextInt(6)).append(",2026-0");
      prices.append(1 + random.nextInt(9)).append("-01,").append(from).append(',');
      prices.append(from + 5 + random.nextInt(40)).append(',').append(100 + row / 3).append('\n');
    }
    Files.writeString(folder.resolve("prices.csv"), prices);
  }

  private void table(String name, String head, int keys, Random random) throws IOException {
    StringBuilder text = new StringBuilder(head).append('\n');
    for (int row = 0; row < keys; row++) {
      int times = random.nextInt(4) == 0 ? 2 + random.nextInt(2) : 1;
      for (; times > 0; times--) {
        text.append(random.nextInt(5) == 0 ? "g" : "G").append(row).append(',');
        text.append(name.charAt(0)).append(random.nextInt(3)).append(',');
        text.append(random.nextInt(3) == 0 ? "" : "o" + random.nextInt(3)).append(',');
        text.append(random.nextInt(9)).append('\n');
      }
    }
    Files.writeString(folder.resolve(name + ".csv"), text);
  }

  private Path plan(Path in, String steps) throws IOException {
    return Files.writeString(
        in.resolve("p.plan.yaml"),
        """
        able-twine: 1
        transactions: { file: tickets.csv }
        measure: kg
        references:
          growers: { file: growers.csv }
          former: { file: former.csv }
          prices: { file: prices.csv }
        steps:
        """
            + steps.indent(2)
            + """
            outputs:
              enriched: out/rows.csv
              exceptions: out/exceptions.csv
              record: out/run.json
              rollups: [{ by: [mark], totals: [count(*), kg], file: out/by.csv }]
            """);
  }

  private static final String UPPER = "normalise: [trim, ignore-case]";

  @ParameterizedTest
  @ValueSource(
      strings = {
        "- { lookup: growers, key: [{ ours: code, theirs: 'no', KEY }], bring: [name, share] }",
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  bring: [name, office]\n"
            + "  several: each\n  unmatched: { fill: { name: none } }\n  empty: { fill: { office: x"
            + " } }",
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  several: first\n"
            + "  bring: [name]\n  unmatched: { apart: out/apart.csv }\n  mark: how\n"
            + "  when: kg > 20 and sort is not null",
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  bring:"
            + " [sum(share) as s, count(*) as n, listagg(name) as l]",
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  bring: [name, share]\n"
            + "  otherwise:\n    - reference: former\n      key: [{ ours: code, theirs: 'no', KEY }]\n"
            + "      bring: [name]\n  mark: how",
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  bring: [name, share]\n"
            + "  otherwise:\n    - reference: former\n      key: [{ ours: code, theirs: 'no'"
            + " }]\n      bring: [name]",
        "- { lookup: prices, key: [{ ours: sort, theirs: sort, KEY }, mark], bring: [price] }",
        "- lookup: prices\n  key: [{ ours: sort, theirs: sort, KEY }, { ours: kg, theirs: [from_kg,"
            + " to_kg], match: between }]\n  bring: [price]",
        "- lookup: prices\n  key: [{ ours: sort, theirs: sort, KEY }, { ours: day, theirs: since,"
            + " match: at-or-below }]\n  bring: [price]\n  several: first",
        "- lookup: prices\n  key: [{ ours: sort, theirs: sort, KEY }, { ours: kg, theirs: from_kg,"
            + " match: nearest, within: 3 }]\n  bring: [price]\n  several: each",
        "- { lookup: growers, key: [{ ours: code, theirs: 'no', KEY }], bring: [name] }\n"
            + "- { lookup: prices, key: [{ ours: sort, theirs: sort, KEY }, mark], bring: [price],"
            + " several: each }\n"
            + "- compute: { net: kg * price }\n"
            + "- { lookup: former, name: again, key: [{ ours: code, theirs: 'no' }], bring: [office],"
            + " when: price is not null }",
        "- { lookup: growers, key: [{ ours: code, theirs: 'no', KEY }], bring: [name] }\n"
            + "- { lookup: growers, name: once more, key: [{ ours: code, theirs: 'no', KEY }], bring:"
            + " [office], several: each }",
        "- keep: kg > 10\n- lookup: former\n  key: [{ ours: code, theirs: 'no', KEY }]\n"
            + "  bring: [name, office as seat]\n  unmatched: drop",
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  bring: [name]\n"
            + "  unmatched: fail",
        "- compute: { q: kg / (kg - 17) }\n- lookup: growers\n  key: [{ ours: code, theirs: 'no',"
            + " KEY }]\n  bring: [name]",
        "- compute: { q: kg / (kg - 17) }\n- lookup: growers\n  key: [{ ours: code, theirs: 'no',"
            + " KEY }]\n  bring: [name]\n  blank-key: fail",
      })
  void anyLookupIsTheSame(String steps) throws IOException {
    same(steps.replace("KEY", UPPER));
  }

  @ParameterizedTest
  @ValueSource(strings = {"first", "last", "fullest", "newest-by share", "fail", "identical"})
  void anyRuleForDuplicatesIsTheSame(String rule) throws IOException {
    String text = "{ file: growers.csv, duplicates: " + rule(rule) + " }";
    same(
        "- lookup: growers\n  key: [{ ours: code, theirs: 'no', " + UPPER + " }]\n  bring: [name]",
        Map.of("{ file: growers.csv }", text));
  }

  /** What is wrong with references, and in which of them: what one process would meet first. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "growers",
        "former",
        "growers former",
        "several former",
        "several growers",
        "several",
        "words",
        "words former",
        "tickets",
        "tickets several"
      })
  void whatEndsARunIsTheSame(String wrong) throws IOException {
    for (String name : List.of("growers", "former", "tickets")) {
      if (wrong.contains(name)) {
        Path file = folder.resolve(name + ".csv");
        String text = Files.readString(file);
        int at = text.indexOf('\n', text.length() / 2) + 1;
        Files.writeString(file, text.substring(0, at) + "one,two\n" + text.substring(at));
      }
    }
    String rule = wrong.contains("several") ? ", duplicates: fail }" : " }";
    if (wrong.contains("words")) {
      Path file = folder.resolve("growers.csv");
      Files.writeString(file, Files.readString(file) + "G3,a,,soon\nG3,a,,2026-01-01\n");
      rule = ", duplicates: { newest-by: share } }";
    }
    String met =
        same(
            "- lookup: growers\n  key: [{ ours: code, theirs: 'no', KEY }]\n  bring: [name]\n"
                    .replace("KEY", UPPER)
                + "  otherwise:\n    - reference: former\n      key: [{ ours: code, theirs: 'no', "
                + UPPER
                + " }]\n      bring: [name]\n"
                + "- { lookup: prices, key: [sort, mark], bring: [price], several: first }",
            Map.of("{ file: growers.csv }", "{ file: growers.csv" + rule));
    assertThat(met).isNotEmpty();
  }

  @Test
  void nothingIsToldOfPartsOfKeysThatAreNotLookedAt() throws IOException {
    Path plan =
        plan(folder, "- { lookup: prices, key: [sort, mark], bring: [price], several: first }");
    try (PlanInParts one = PlanInParts.open(InParts.sharing(plan, "r", 1))) {
      assertThat(one.rounds(3))
          .singleElement()
          .satisfies(
              round -> {
                assertThat(round.lookup()).isEqualTo("prices");
                assertThat(round.parts()).isEqualTo(4);
                assertThat(round.divided()).containsExactly(0);
                assertThat(round.again()).isTrue();
              });
      assertThat(one.rounds(9)).first().extracting(PlanExchange.Round::parts).isEqualTo(9);
    }
    change(plan, Map.of("  exceptions: out/exceptions.csv\n", "", "  record: out/run.json\n", ""));
    try (PlanInParts one = PlanInParts.open(InParts.sharing(plan, "r", 1))) {
      assertThat(one.rounds(3)).noneMatch(PlanExchange.Round::again);
    }
  }

  private static String rule(String rule) {
    return rule.startsWith("newest-by") ? "{ newest-by: share }" : rule;
  }

  private void same(String steps) throws IOException {
    same(steps, Map.of());
  }

  private String same(String steps, Map<String, String> changed) throws IOException {
    Path alone = copy("alone");
    String failure = failure(() -> PlanFile.load(plan(alone, steps, changed)).run(Progress.NONE));
    for (int order = 0; order < ORDERS; order++) {
      Path parts = copy("parts" + order);
      Path plan = plan(parts, steps, changed);
      Random random = new Random(order);
      long bytes = 2_000 + 3_000L * order;
      String met = failure(() -> InParts.run(plan, Map.of(), bytes, random, 1));
      assertThat(met).as(steps).isEqualTo(failure);
      assertThat(InParts.outputs(parts.resolve("out")))
          .as(steps)
          .isEqualTo(InParts.outputs(alone.resolve("out")));
    }
    Path again = plan(alone, steps, changed);
    try (PlanInParts opened = PlanInParts.open(InParts.sharing(again, "x", 1))) {
      assertThat(opened.rounds(2)).as("nothing fits").isNotEmpty();
    }
    try (PlanInParts opened = PlanInParts.open(InParts.sharing(again, "x"))) {
      assertThat(opened.rounds(2)).as("all of it fits in the usual memory").isEmpty();
    }
    return failure;
  }

  private Path plan(Path in, String steps, Map<String, String> changed) throws IOException {
    Path plan = plan(in, steps);
    change(plan, changed);
    return plan;
  }

  private static void change(Path plan, Map<String, String> changed) throws IOException {
    String text = Files.readString(plan);
    for (Map.Entry<String, String> one : changed.entrySet()) {
      assertThat(text).contains(one.getKey());
      text = text.replace(one.getKey(), one.getValue());
    }
    Files.writeString(plan, text);
  }

  private interface Run {
    void run() throws IOException;
  }

  private static String failure(Run run) {
    Throwable met = catchThrowable(run::run);
    if (met != null) {
      assertThat(met).isInstanceOf(DataException.class);
    }
    return met == null ? "" : String.valueOf(met.getMessage()).replaceAll("/\\S*/", "");
  }

  private Path copy(String name) throws IOException {
    Path to = Files.createDirectories(folder.resolve(name));
    Files.createDirectories(to.resolve("out"));
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        Files.copy(file, to.resolve(file.getFileName()));
      }
    }
    return to;
  }
}
