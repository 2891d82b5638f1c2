package org.abletwine.plan.random;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/** Draws a plan and its tables. Everything follows from the seed. */
final class RandomPlan {
  private static final List<String> CODES =
      List.of("A1", "a1", " A1", "B2", "007", "7", "C3 ", "b2");
  private static final List<String> WORDS =
      List.of("oats", "Rye", "rye 12", "xx", "a\"b1", "a\"b2", "say \"x\"", "é", "Aab", "12", "]x");
  private static final List<String> NUMBERS =
      List.of("0", "1", "2", "2.5", "2.50", "3", "5", "-1", "10", "2.25", "4.001");
  private static final List<String> TIMES =
      List.of(
          "2026-07-01",
          "2026-07-02",
          "2026-07-02T10:00:00",
          "2026-07-02T10:00:00.25",
          "2026-07-02T10:00:00.5",
          "2026-07-02T10:00:00.75",
          "2026-07-02T10:00:01",
          "2026-07-02T10:00:00.123456789",
          "2026-08-15");
  private static final Map<String, List<String>> PATTERNS =
      Map.of(
          "starts-with", List.of("a", "Rye", "x", "12"),
          "contains", List.of("y", "\"b", "2", "a"),
          "wildcard", List.of("*", "r*", "?ye*", "a\"b?", "*1*", "xx", "R?e"),
          "regex",
              List.of(
                  "\\D+",
                  "[[:alpha:]]+b",
                  "[^]x]",
                  "\\101ab",
                  "y|o",
                  "x{2}",
                  "(ab|a)+",
                  "r.e",
                  "^[[:digit:]]+$",
                  "b[12]"));

  final Random random;

  /** What stands between cells of the output; a comma does between those of the tables. */
  final char delimiter;

  final Grid tickets = new Grid("tickets", "id", "k1", "k2", "n", "m", "d", "t");
  final List<Grid> references = new ArrayList<>();
  final List<Act> acts = new ArrayList<>();
  final boolean errorsAreNull;
  final @Nullable String rollupBy;
  private final List<String> columns;
  private final List<String> numeric = new ArrayList<>(List.of("n", "m"));
  private int names;

  RandomPlan(long seed, int mostRows) {
    random = new Random(seed * 0x9E3779B97F4A7C15L);
    delimiter = ",,;|".charAt(Math.floorMod(seed, 4));
    columns = new ArrayList<>(tickets.columns);
    errorsAreNull = random.nextInt(4) == 0;
    int rows = random.nextInt(12) == 0 ? random.nextInt(mostRows) : random.nextInt(40);
    for (int row = 1; row <= rows; row++) {
      tickets.add(
          "" + row,
          orNull(CODES),
          orNull(List.of("x", "y", "", "X")),
          number(),
          number(),
          orNull(TIMES),
          orNull(WORDS));
    }
    int steps = 1 + random.nextInt(5);
    for (int step = 0; step < steps; step++) {
      acts.add(act());
    }
    rollupBy = random.nextInt(3) == 0 ? columns.get(1 + random.nextInt(columns.size() - 1)) : null;
  }

  private <T> T of(List<T> all) {
    return all.get(random.nextInt(all.size()));
  }

  private @Nullable String orNull(List<String> all) {
    return random.nextInt(9) == 0 ? null : of(all);
  }

  private @Nullable String number() {
    return errorsAreNull && random.nextInt(15) == 0 ? "n/a" : orNull(NUMBERS);
  }

  private boolean chance(int oneIn) {
    return random.nextInt(oneIn) == 0;
  }

  private Act act() {
    return switch (random.nextInt(9)) {
      case 0 -> correction();
      case 1 -> compute();
      case 2 -> keep();
      case 3 -> coalesce();
      case 4 -> compute();
      default -> lookup();
    };
  }

  private String fresh(String stem) {
    return stem + ++names;
  }

  private Act coalesce() {
    String column = fresh("c");
    List<String> from = List.of(of(columns), of(columns));
    columns.add(column);
    return new Act.Coalesce(column, from, chance(2) ? null : "none");
  }

  private Act.Keep keep() {
    String number = of(numeric);
    return switch (random.nextInt(4)) {
      case 0 -> new Act.Keep("k2 = 'x'", row -> is(row.get("k2"), "x"));
      case 1 -> new Act.Keep("t is not null", row -> row.get("t") != null);
      case 2 -> new Act.Keep("t like '%\"b_' or k1 is null", Act::likeOrNull);
      default -> new Act.Keep(number + " is null or " + number + " < 3", Act.below(number, 3));
    };
  }

  private static boolean is(@Nullable String value, String wanted) {
    return wanted.equals(value);
  }

  private Act compute() {
    String column = fresh("x");
    String a = of(numeric);
    String b = of(numeric);
    Act act =
        switch (random.nextInt(7)) {
          case 0 -> new Act.Compute(column, a + " + " + b, Act.arithmetic(a, '+', b));
          case 1 -> new Act.Compute(column, a + " * " + b, Act.arithmetic(a, '*', b));
          case 2 -> new Act.Compute(column, "0 - " + a, Act.arithmetic(null, '-', a));
          case 3 ->
              new Act.Compute(
                  column, "case when " + a + " > 2 then " + b + " else 1 end", Act.cases(a, b));
          case 4 -> new Act.Compute(column, "coalesce(" + a + ", " + b + ") * 2", Act.twice(a, b));
          case 5 -> new Act.Compute(column, "upper(t) || '-' || k2", Act::joined);
          default -> new Act.Compute(column, "d - '2026-07-01'", Act::days);
        };
    columns.add(column);
    if (!act.inPlan(0).contains("upper")) {
      numeric.add(column);
    }
    return act;
  }

  private Act correction() {
    boolean part = chance(2);
    Grid table = new Grid(fresh("r"), "written", "meant", "keep");
    Map<String, String> lines = new LinkedHashMap<>();
    for (int i = random.nextInt(4) + 1; i > 0; i--) {
      String written = part ? of(List.of("a", "b", "x", "r", "1")) : of(WORDS);
      lines.putIfAbsent(
          written, part ? of(List.of("b", "aa", "", "y")) : of(List.of("corn", "pea")));
    }
    lines.forEach((written, meant) -> table.add(written, meant, "y"));
    references.add(table);
    return new Act.Correct(part ? "t" : of(List.of("t", "t", "k1")), table, lines, part);
  }

  private Grid reference() {
    Grid table = new Grid(fresh("r"), "a", "b", "lo", "hi", "s", "e", "p", "l", "v", "w", "keep");
    int rows = chance(9) ? 0 : 1 + random.nextInt(chance(4) ? 60 : 12);
    String kind = of(List.copyOf(PATTERNS.keySet()));
    boolean reversed = chance(12);
    for (int row = 0; row < rows; row++) {
      String keep = chance(3) ? "n" : "y";
      boolean swap = reversed && keep.equals("n") || chance(3_000);
      String[] band = inOrder(NUMBERS, swap);
      String[] span = inOrder(TIMES, swap);
      table.add(
          orNull(CODES),
          orNull(List.of("x", "y", "X")),
          chance(12) ? null : band[0],
          chance(12) ? null : band[1],
          chance(12) ? null : span[0],
          chance(12) ? null : span[1],
          orNull(PATTERNS.getOrDefault(kind, List.of())),
          list(),
          orNull(List.of("1", "2", "2.5", "3")),
          orNull(List.of("w1", "w2", "q\"t", "é")),
          keep);
    }
    table.kind = kind;
    references.add(table);
    return table;
  }

  private @Nullable String list() {
    StringBuilder list = new StringBuilder(chance(12) ? "" : of(WORDS));
    for (int i = random.nextInt(3); i > 0; i--) {
      list.append(", ").append(chance(6) ? "" : of(WORDS));
    }
    return list.length() == 0 ? null : list.toString();
  }

  /** Two values, the lower first; sometimes the same twice. */
  private String[] inOrder(List<String> all, boolean swap) {
    String one = of(all);
    String other = chance(5) ? one : of(all);
    Fit compare = new Fit("", "", null, "nearest", "", null, List.of(), all == TIMES);
    boolean ordered = compare.inOrder(one, other);
    return ordered != swap ? new String[] {one, other} : new String[] {other, one};
  }

  private Act lookup() {
    Act.Keep when = chance(4) ? keep() : null;
    Look look = look(null, fresh("look"));
    String mark = chance(2) ? fresh("mark") : null;
    Map<String, String> treatments = new LinkedHashMap<>();
    for (String outcome : List.of("unmatched", "ambiguous", "blank-key")) {
      if (chance(3)) {
        treatments.put(outcome, chance(3) ? "drop" : "fill");
      }
    }
    look.bring()
        .forEach(
            (as, source) -> {
              columns.add(as);
              if (source.contains("v")) {
                numeric.add(as);
              }
            });
    if (mark != null) {
      columns.add(mark);
    }
    return new Act.Lookup(look, mark, treatments, chance(3), when);
  }

  private Look look(@Nullable Look main, String name) {
    Grid table = main != null && chance(3) ? main.table() : reference();
    List<Fit> key = new ArrayList<>();
    if (chance(2)) {
      key.add(equal("k1", "a"));
    }
    if (chance(3)) {
      key.add(equal("k2", "b"));
    }
    if (key.isEmpty() || chance(2)) {
      key.add(ruled(table));
    }
    boolean aggregates = main == null && chance(5);
    Map<String, String> bring = new LinkedHashMap<>();
    if (main != null) {
      bring.putAll(main.bring());
      if (bring.size() > 1 && chance(2)) {
        bring.remove(List.copyOf(bring.keySet()).get(0));
      }
      bring.replaceAll((as, source) -> source.indexOf('(') > 0 ? "v" : source);
    } else {
      bring.put(
          fresh("v"), aggregates ? of(List.of("sum(v)", "count(*)", "count(distinct v)")) : "v");
      if (chance(2)) {
        bring.put(fresh("w"), "w");
      }
    }
    List<Look> otherwise = new ArrayList<>();
    Look look =
        new Look(
            name,
            table,
            chance(2),
            aggregates || !chance(4) ? "" : of(List.of("first", "last", "fullest", "fail")),
            key,
            bring,
            aggregates ? "flag" : of(List.of("flag", "flag", "first", "last", "each")),
            otherwise);
    if (main == null && chance(3)) {
      otherwise.add(look(look, fresh("other")));
    }
    return look;
  }

  private Fit equal(String ours, String theirs) {
    List<String> steps =
        of(
            List.of(
                List.of("none"),
                List.of("trim"),
                List.of("trim", "ignore-case"),
                List.of("trim", "ignore-case", "drop-leading-zeros")));
    return new Fit(ours, theirs, null, "equal", "", null, steps, false);
  }

  private Fit ruled(Grid table) {
    List<String> trim = List.of("trim");
    List<String> folding = List.of("trim", "ignore-case");
    boolean times = chance(2);
    String ours = times ? "d" : "n";
    String low = times ? "s" : "lo";
    String kind =
        of(
            List.of(
                "at-or-below",
                "at-or-above",
                "nearest",
                "between",
                "between",
                "pattern",
                "listed"));
    return switch (kind) {
      case "listed" -> new Fit("t", "l", null, kind, "", null, of(List.of(trim, folding)), false);
      case "pattern" -> {
        yield new Fit("t", "p", null, table.kind, "", null, chance(2) ? trim : folding, false);
      }
      case "between" -> {
        String ends = of(List.of("lower", "both", "upper", "neither"));
        yield new Fit(ours, low, times ? "e" : "hi", kind, ends, null, trim, times);
      }
      case "nearest", "at-or-below", "at-or-above" -> {
        String within = of(List.of("", "0.5", "0.00001", "1"));
        yield new Fit(ours, low, null, kind, "", within.isEmpty() ? null : within, trim, times);
      }
      default -> throw new IllegalStateException(kind);
    };
  }

  /** The plan as a file has it. */
  String text() {
    StringBuilder text = new StringBuilder("able-twine: 1\ntitle: random\n");
    text.append(errorsAreNull ? "errors: \"null\"\n" : "");
    text.append("transactions: { file: tickets.csv }\nreferences:\n");
    List<String> stated = new ArrayList<>();
    List<String> steps = new ArrayList<>();
    for (Act act : acts) {
      act.state(stated);
      steps.add(act.inPlan(2));
    }
    if (stated.isEmpty()) {
      stated.add("  none: { file: none.csv }\n");
    }
    stated.forEach(text::append);
    text.append("steps:\n");
    steps.forEach(text::append);
    text.append(
        "outputs:\n  enriched: { file: out.csv, delimiter: '"
            + delimiter
            + "' }\n  exceptions: exceptions.csv\n  record: run.json\n");
    if (rollupBy != null) {
      text.append("  rollups: [{ by: [" + rollupBy + "], totals: [count(*) as rows, id], ");
      text.append("file: rollup.csv }]\n");
    }
    return text.toString();
  }
}
