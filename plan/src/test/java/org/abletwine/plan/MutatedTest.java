package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.abletwine.step.Progress;
import org.abletwine.table.AbleTwineException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.common.FlowStyle;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.nodes.Tag;

/**
 * Tables and plans with some bytes, or some settings, changed at random: whatever comes of them, it
 * is a result or a message, soon. Any number of them by {@code -Dmutations=1000000}.
 */
class MutatedTest {
  private static final int COUNT = Integer.getInteger("mutations", 300);
  private static final int SEED = Integer.getInteger("mutations.seed", 1);
  private static final String[] BYTES = {
    "\"",
    "\"\"",
    ",",
    "\n",
    "\r",
    "\r\n",
    "\0",
    "\u00e9",
    "\ud83c\udf3e",
    "'",
    ";",
    "\t",
    " ",
    "\ufeff",
    "=",
    "0",
    "-",
    "\u001b"
  };

  static final String PLAN =
      """
      able-twine: 1
      title: All there is
      parameters: { month: 2026-07 }
      errors: "null"
      current-date: 2026-07-01
      measure: kg
      transactions: { file: t.csv, delimiter: comma, nulls: [NA], ragged: pad, types: { kg: integer, amount: { decimal: "1.234,56" } } }
      references:
        r: { file: r.csv, key: code, where: "keep = 'y'", duplicates: { newest-by: day } }
        p: { file: p.csv, types: { day: { date: yyyy-MM-dd } }, unreadable: leave-out }
        c: { file: c.csv }
      steps:
        - correct: text
          using: c
          written: written
          meant: meant
          part: true
        - lookup: r
          key: [code]
          normalise: [trim, ignore-case, { pad-zeros: 3 }, { replace: { pattern: x+, with: y } }]
          bring: [name, day as since]
          several: { newest-by: day }
          unmatched: { fill: { name: none } }
          ambiguous: { apart: apart.csv }
          empty: { fill: { since: never } }
          mark: outcome
          otherwise: [{ reference: p, key: code = code, bring: [name], several: first }]
        - lookup: p
          name: bands
          key:
            - code
            - { ours: kg, theirs: [lo, hi], match: between, ends: both, normalise: trim }
            - { ours: day, theirs: day, match: nearest, within: 30 }
          bring: [sum(price) as price, count(*) as offers]
        - coalesce: one
          from: [name, text]
          fill: nothing
          source: where_from
        - compute: { total: kg * price, label: upper(text) || '-' || code }
        - keep: kg > 0 or kg is null
          left-out: { file: left.csv, delimiter: semicolon, line-end: crlf, mark: yes }
      controls: { matched: { r: 10% }, rows: same, totals: [kg], unique: [r], nulls: { name: 90% }, that: [sum(kg) >= 0] }
      outputs:
        enriched: o.csv
        exceptions: e.csv
        corrections: d.csv
        record: run.json
        drop-columns: [day]
        order-columns: [code, kg]
        rename: { text: words }
        formats: { total: { decimals: 2 }, price: { number: "$1,234.56" }, kg: { percent: 1 } }
        formulas: guard
        rollups: [{ by: [code], totals: [kg, avg(kg), count(*)], grand-total: true, file: { file: up.csv, encoding: utf-16, unknown: "?" } }]
      """;

  /** Tables that are not there, for what only reads the plan. */
  private static final String PLACES =
      """
          w: { file: w.xlsx, sheet: One, header-row: 2, range: "A2:B9" }
          d: { database: { url: "jdbc:sqlite:d.db", user: { env: U }, password: { file: w }, table: t } }
          q: { database: { url: "jdbc:sqlite:d.db", query: select 1 where 1 = ?, values: [1] } }
          c: {""";

  @TempDir private Path folder;

  /** Neighbouring seeds give neighbouring first numbers, unless they are spread first. */
  private static Random random(long seed) {
    return new Random(seed * 0x9E3779B97F4A7C15L);
  }

  private Path tables(Random random, boolean mutated) throws IOException {
    Path here = Files.createTempDirectory(folder, "m");
    String[][] tables = {
      {"t.csv", "code,kg,day,text\n001,5,2026-07-01,oats\n2,7,2026-07-02,\"a \"\"b\"\"\"\n,NA,,\n"},
      {"r.csv", "code,name,day,keep\n001,Ann,2026-01-01,y\n001,Bo,2026-02-01,y\n2,Cy,,n\n"},
      {"p.csv", "code,lo,hi,day,price,name\n001,0,9,2026-07-01,2.5,x\n2,,8,2026-06-01,3,y\n"},
      {"c.csv", "written,meant\noats,rye\na,b\n"}
    };
    int which = random.nextInt(tables.length);
    for (int i = 0; i < tables.length; i++) {
      byte[] bytes = tables[i][1].getBytes(StandardCharsets.UTF_8);
      Files.write(here.resolve(tables[i][0]), mutated && i == which ? bytes(bytes, random) : bytes);
    }
    return here;
  }

  private static byte[] bytes(byte[] from, Random random) {
    byte[] bytes = from;
    for (int n = 1 + random.nextInt(4); n > 0; n--) {
      int at = random.nextInt(bytes.length + 1);
      int drop = Math.min(bytes.length - at, random.nextInt(3) == 0 ? random.nextInt(9) : 0);
      byte[] put =
          random.nextInt(4) == 0
              ? new byte[] {(byte) random.nextInt(256)}
              : BYTES[random.nextInt(BYTES.length)].getBytes(StandardCharsets.UTF_8);
      byte[] next = Arrays.copyOf(bytes, bytes.length - drop + put.length);
      System.arraycopy(put, 0, next, at, put.length);
      System.arraycopy(bytes, at + drop, next, at + put.length, bytes.length - at - drop);
      bytes = next;
    }
    return bytes;
  }

  /** Runs a plan; returns whether it ended with its outputs. */
  private static boolean run(Path plan, String about) throws IOException {
    try {
      List<String> mistakes = PlanFile.check(plan);
      if (mistakes.isEmpty()) {
        PlanFile.load(plan).run(Progress.NONE);
        return Files.exists(plan.resolveSibling("o.csv"));
      }
    } catch (AbleTwineException e) {
      assertThat(e.getMessage()).as(about).isNotBlank();

    } catch (RuntimeException | Error e) {
      throw new AssertionError(about, e);
    }
    try (var files = Files.list(plan.getParent())) {
      assertThat(files.map(f -> "" + f.getFileName()).filter(f -> f.endsWith(".part")))
          .as(about)
          .isEmpty();
    }
    return false;
  }

  @Test
  @Timeout(3_600)
  void mutatedTablesGiveAResultOrAMessage() throws IOException {
    int results = 0;
    for (int seed = SEED; seed < SEED + COUNT; seed++) {
      Path here = tables(random(seed), true);
      Path plan = Files.writeString(here.resolve("p.plan.yaml"), PLAN);
      results += run(plan, "tables of seed " + seed) ? 1 : 0;
      clear(here);
    }
    assertThat(results).as("some still run").isBetween(COUNT / 20, COUNT - 1);
  }

  @Test
  @Timeout(3_600)
  void mutatedPlansGiveAResultOrAMessage() throws IOException {
    for (int seed = SEED; seed < SEED + COUNT; seed++) {
      Random random = random(-seed);
      Path here = tables(random, false);
      byte[] text = bytes(PLAN.getBytes(StandardCharsets.UTF_8), random);
      Path plan = Files.write(here.resolve("p.plan.yaml"), text);
      run(plan, "plan of seed " + seed);
      clear(here);
    }
  }

  private static void clear(Path here) throws IOException {
    try (var files = Files.walk(here)) {
      files.sorted(java.util.Comparator.reverseOrder()).forEach(f -> f.toFile().delete());
    }
  }

  /** What the reader takes, the schema takes, and the other way round. */
  @Test
  @Timeout(3_600)
  void readerAndSchemaAgreeOnTheFormOfPlans() {
    int taken = 0;
    for (int seed = SEED; seed < SEED + COUNT; seed++) {
      Random random = random(seed);
      Node root = mutated(compose(PLAN.replace("    c: {", PLACES)), random);
      Mistakes mistakes = new Mistakes("p");
      PlanShape.check(root, mistakes);
      PlanNode plain = new PlanNode(root, "", mistakes, Parameters.NONE);
      Parameters parameters = Parameters.read(plain.child("parameters"), Map.of());
      new PlanReader(Path.of("x"), java.time.LocalDate.EPOCH, mistakes)
          .read(new PlanNode(root, "", mistakes, parameters));
      List<String> problems = SchemaProblems.problems(root);
      boolean wellFormed = mistakes.list().stream().allMatch(MutatedTest::ofMeaning);
      assertThat(problems.isEmpty())
          .as("seed %s: the reader says %s, the schema %s", seed, mistakes.list(), problems)
          .isEqualTo(wellFormed);
      taken += wellFormed ? 1 : 0;
    }
    assertThat(taken).as("both are drawn").isBetween(COUNT / 20, COUNT - COUNT / 20);
  }

  /** Whether a mistake is one of settings that do not go together, each well-formed. */
  private static boolean ofMeaning(String mistake) {
    return mistake.contains("no reference is called")
        || mistake.contains("goes with match:")
        || mistake.contains("cannot read the pattern")
        || mistake.contains("no table is written to a file of that ending")
        || mistake.contains("expected an address such as")
        || mistake.contains("state one of table:")
        || mistake.contains("values belong to")
        || mistake.contains("is no example of a number")
        || mistake.contains("the parameter has no value")
        || mistake.contains("text has no sheets")
        || mistake.contains("no encoding is called");
  }

  private static Node compose(String text) {
    return new Compose(LoadSettings.builder().build()).composeString(text).orElseThrow();
  }

  /** One node of a plan changed: renamed, left out, wrapped, or given another value. */
  private static Node mutated(Node root, Random random) {
    List<Node> inner = new ArrayList<>();
    collect(root, inner);
    Node node = inner.get(random.nextInt(inner.size()));
    if (node instanceof MappingNode mapping) {
      List<NodeTuple> tuples = new ArrayList<>(mapping.getValue());
      int at = random.nextInt(tuples.size());
      NodeTuple tuple = tuples.get(at);
      switch (random.nextInt(3)) {
        case 0 -> tuples.remove(at);
        case 1 ->
            tuples.set(
                at,
                new NodeTuple(
                    scalar(((ScalarNode) tuple.getKeyNode()).getValue() + "x", Tag.STR),
                    tuple.getValueNode()));
        default -> tuples.set(at, new NodeTuple(tuple.getKeyNode(), other(tuple, random)));
      }
      mapping.setValue(tuples);
    } else if (node instanceof SequenceNode sequence) {
      int at = random.nextInt(sequence.getValue().size());
      Node item = sequence.getValue().get(at);
      sequence.getValue().set(at, other(new NodeTuple(item, item), random));
    }
    return root;
  }

  private static Node other(NodeTuple tuple, Random random) {
    return switch (random.nextInt(6)) {
      case 0 -> scalar("7", Tag.INT);
      case 1 -> scalar("null", Tag.NULL);
      case 2 -> scalar("true", Tag.BOOL);
      case 3 -> new SequenceNode(Tag.SEQ, new ArrayList<>(), FlowStyle.FLOW);
      case 4 ->
          new SequenceNode(Tag.SEQ, new ArrayList<>(List.of(tuple.getValueNode())), FlowStyle.FLOW);
      default -> new MappingNode(Tag.MAP, new ArrayList<>(), FlowStyle.FLOW);
    };
  }

  private static Node scalar(String value, Tag tag) {
    return new ScalarNode(tag, value, ScalarStyle.PLAIN);
  }

  private static void collect(Node node, List<Node> into) {
    if (node instanceof MappingNode mapping && !mapping.getValue().isEmpty()) {
      into.add(node);
      mapping.getValue().forEach(tuple -> collect(tuple.getValueNode(), into));
    } else if (node instanceof SequenceNode sequence && !sequence.getValue().isEmpty()) {
      into.add(node);
      sequence.getValue().forEach(item -> collect(item, into));
    }
  }
}
