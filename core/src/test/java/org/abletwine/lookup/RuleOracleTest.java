package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import java.util.stream.IntStream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.match.MatchRule;
import org.abletwine.match.MatchRule.Ends;
import org.abletwine.match.MatchRule.Kind;
import org.abletwine.match.OwnRule;
import org.apache.commons.text.similarity.JaroWinklerSimilarity;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Every rule against trying each reference row in turn, on random tables. */
class RuleOracleTest {
  private static final int SEEDS = 25;

  @ParameterizedTest
  @EnumSource(value = Kind.class, names = "EQUAL", mode = EnumSource.Mode.EXCLUDE)
  void agreesWithTryingEachRow(Kind kind) {
    for (int seed = 1; seed <= SEEDS; seed++) {
      Random random = new Random(seed * 31L + kind.ordinal());
      boolean numbers = kind.ordered() && (kind == Kind.NEAREST || random.nextInt(4) > 0);
      boolean partitions = random.nextBoolean();
      MatchRule rule = rule(kind, numbers, random);
      MemoryTable ours = table("ours", random, 300, numbers, rule, true);
      MemoryTable theirs = table("theirs", random, 1 + random.nextInt(40), numbers, rule, false);
      Several several =
          List.of(Several.flag(), Several.first(), Several.last()).get(random.nextInt(3));
      Lookup lookup =
          Lookup.in(theirs).bring("value as fetched").several(several).markAs("outcome");
      lookup = partitions ? lookup.key("p") : lookup;
      lookup = lookup.key(new KeyPart("a", "a", kind == Kind.BETWEEN ? "b" : null, null, rule));
      ListSink sink = new ListSink();
      Enrichment.of(ours).lookup(lookup).build().writeTo(sink);
      for (int row = 0; row < ours.rowCount(); row++) {
        List<Integer> rows = fitting(ours, row, theirs, partitions, rule, numbers);
        Outcome outcome = outcome(ours, row, theirs, partitions, rows, several);
        String message = kind + " seed " + seed + " value " + ours.cell(row, 1) + " " + rule;
        assertThat(sink.cell(row, "outcome")).as(message).isEqualTo(outcome.label());
        if (outcome == Outcome.MATCHED) {
          int taken = several.rule() == Several.Rule.LAST ? rows.size() - 1 : 0;
          assertThat(sink.cell(row, "fetched"))
              .as(message)
              .isEqualTo(theirs.cell(rows.get(taken), 3));
        }
      }
    }
  }

  /** A rule of one's own: of texts of one length, how many letters are where they are in ours. */
  private record LettersInPlace(boolean byLength) implements OwnRule {
    @Override
    public String name() {
      return "test:letters-in-place";
    }

    @Override
    public double likeness(String ours, String theirs) {
      if (ours.length() != theirs.length()) {
        return 0;
      }
      return IntStream.range(0, ours.length())
          .filter(at -> ours.charAt(at) == theirs.charAt(at))
          .count();
    }

    @Override
    public String common(String value) {
      return byLength ? Integer.toString(value.length()) : "";
    }
  }

  private static MatchRule rule(Kind kind, boolean numbers, Random random) {
    return new MatchRule(
        kind,
        kind.distant() && numbers && random.nextBoolean() ? new BigDecimal("1.25") : null,
        Ends.values()[random.nextInt(4)],
        kind.pattern() && random.nextInt(3) == 0,
        0.85,
        MatchRule.By.LETTERS,
        random.nextBoolean() ? "," : "--",
        kind == Kind.OWN ? new LettersInPlace(random.nextBoolean()) : null);
  }

  private static MemoryTable table(
      String name, Random random, int rows, boolean numbers, MatchRule rule, boolean ours) {
    List<@Nullable String[]> cells = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      String a = value(random, numbers, rule, ours);
      String b = value(random, numbers, rule, ours);
      if (numbers && a != null && b != null && new BigDecimal(a).compareTo(new BigDecimal(b)) > 0
          || !numbers && a != null && b != null && a.compareTo(b) > 0) {
        String swap = a;
        a = b;
        b = swap;
      }
      String p = random.nextInt(12) == 0 ? null : "p" + random.nextInt(3);
      cells.add(new @Nullable String[] {p, a, b, "v" + random.nextInt(4)});
    }
    return new MemoryTable(name, List.of("p", "a", "b", "value"), cells, 64);
  }

  private static @Nullable String value(
      Random random, boolean numbers, MatchRule rule, boolean ours) {
    if (random.nextInt(10) == 0) {
      return null;
    }
    if (numbers) {
      String whole = Integer.toString(random.nextInt(14) - 4);
      // Ours have more decimal places than theirs, to fall between neighbours.
      return switch (random.nextInt(ours ? 5 : 3)) {
        case 0 -> whole;
        case 1 -> whole + ".5";
        case 2 -> whole + ".50";
        case 3 -> whole + ".25";
        default -> whole + ".001";
      };
    }
    StringBuilder word = new StringBuilder();
    if (rule.kind() == Kind.LISTED) {
      for (int i = ours ? 1 : random.nextInt(5); i > 0; i--) {
        word.append(List.of("a", "ab", " b ", "é", "").get(random.nextInt(ours ? 4 : 5)));
        word.append(i > 1 ? rule.separator() : "");
      }
      return word.length() == 0 ? null : word.toString();
    }
    int length = 1 + random.nextInt(ours == rule.oursIsPattern() ? 3 : 7);
    boolean pattern = ours == rule.oursIsPattern() && rule.kind().pattern();
    for (int i = 0; i < length; i++) {
      boolean wild = pattern && rule.kind() == Kind.WILDCARD && random.nextInt(3) == 0;
      word.append(wild ? "*?".charAt(random.nextInt(2)) : "abé".charAt(random.nextInt(3)));
      if (pattern && rule.kind() == Kind.REGEX) {
        word.append(List.of("", "", "+", "*", ".", "|", "?").get(random.nextInt(7)));
      }
    }
    return word.toString();
  }

  private static Outcome outcome(
      MemoryTable ours,
      int row,
      MemoryTable theirs,
      boolean partitions,
      List<Integer> rows,
      Several several) {
    if (ours.cell(row, 1) == null || partitions && ours.cell(row, 0) == null) {
      return Outcome.BLANK_KEY;
    }
    if (rows.isEmpty()) {
      return Outcome.UNMATCHED;
    }
    boolean agree =
        rows.stream().allMatch(r -> Objects.equals(theirs.cell(r, 3), theirs.cell(rows.get(0), 3)));
    return agree || several.rule() != Several.Rule.FLAG ? Outcome.MATCHED : Outcome.AMBIGUOUS;
  }

  /** The oracle: all rows, one after another, compared in the plainest way. */
  private static List<Integer> fitting(
      MemoryTable ours,
      int row,
      MemoryTable theirs,
      boolean partitions,
      MatchRule rule,
      boolean numbers) {
    List<Integer> inPartition = new ArrayList<>();
    String value = ours.cell(row, 1);
    for (int r = 0; r < theirs.rowCount() && value != null; r++) {
      boolean same =
          ours.cell(row, 0) != null && Objects.equals(theirs.cell(r, 0), ours.cell(row, 0));
      if ((!partitions || same) && (theirs.cell(r, 1) != null || rule.kind() == Kind.BETWEEN)) {
        inPartition.add(r);
      }
    }
    List<Integer> rows = new ArrayList<>();
    for (int r : inPartition) {
      if (fits(value, theirs, r, inPartition, rule, numbers)) {
        rows.add(r);
      }
    }
    return rows;
  }

  private static boolean fits(
      @Nullable String value,
      MemoryTable theirs,
      int r,
      List<Integer> all,
      MatchRule rule,
      boolean numbers) {
    String one = theirs.cell(r, 1);
    if (value == null || one == null && rule.kind() != Kind.BETWEEN) {
      return false;
    }
    String text = rule.oursIsPattern() ? one : value;
    String pattern = rule.oursIsPattern() ? value : one;
    return switch (rule.kind()) {
      case AT_OR_BELOW ->
          near(one, value, rule)
              && compare(one, value, numbers) <= 0
              && all.stream()
                  .noneMatch(
                      o ->
                          compare(theirs.cell(o, 1), value, numbers) <= 0
                              && compare(theirs.cell(o, 1), one, numbers) > 0);
      case AT_OR_ABOVE ->
          near(one, value, rule)
              && compare(one, value, numbers) >= 0
              && all.stream()
                  .noneMatch(
                      o ->
                          compare(theirs.cell(o, 1), value, numbers) >= 0
                              && compare(theirs.cell(o, 1), one, numbers) < 0);
      case NEAREST -> {
        BigDecimal distance = distance(one, value);
        yield near(one, value, rule)
            && all.stream()
                .noneMatch(o -> distance(theirs.cell(o, 1), value).compareTo(distance) < 0);
      }
      case BETWEEN -> {
        boolean lowerIn = rule.ends() == Ends.LOWER || rule.ends() == Ends.BOTH;
        boolean upperIn = rule.ends() == Ends.UPPER || rule.ends() == Ends.BOTH;
        String to = theirs.cell(r, 2);
        boolean above = one == null || compare(one, value, numbers) < (lowerIn ? 1 : 0);
        boolean below = to == null || compare(value, to, numbers) < (upperIn ? 1 : 0);
        yield above && below;
      }
      case STARTS_WITH -> text.startsWith(pattern);
      case CONTAINS -> text.contains(pattern);
      case WILDCARD -> text.matches(pattern.replace("*", ".*").replace("?", "."));
      case REGEX -> java.util.regex.Pattern.compile(pattern).matcher(text).find();
      case LISTED ->
          List.of(one.split(java.util.regex.Pattern.quote(rule.separator()), -1)).stream()
              .anyMatch(item -> item.strip().equals(value.strip()));
      case SIMILAR -> {
        double here = similarity(one, value);
        yield here >= rule.atLeast()
            && all.stream().noneMatch(o -> similarity(theirs.cell(o, 1), value) > here);
      }
      case OWN -> {
        double here = inPlace(one, value);
        yield here > 0 && all.stream().noneMatch(o -> inPlace(theirs.cell(o, 1), value) > here);
      }
      case EQUAL -> one.equals(value);
    };
  }

  private static int inPlace(@Nullable String one, String other) {
    int same = 0;
    for (int at = 0; one != null && at < one.length(); at++) {
      same += one.length() == other.length() && one.charAt(at) == other.charAt(at) ? 1 : 0;
    }
    return same;
  }

  private static double similarity(@Nullable String one, String other) {
    return one == null ? 0 : new JaroWinklerSimilarity().apply(other, one);
  }

  private static boolean near(@Nullable String one, String other, MatchRule rule) {
    return rule.within() == null || distance(one, other).compareTo(rule.within()) <= 0;
  }

  private static BigDecimal distance(@Nullable String one, String other) {
    return new BigDecimal(String.valueOf(one)).subtract(new BigDecimal(other)).abs();
  }

  private static int compare(@Nullable String one, String other, boolean numbers) {
    String text = String.valueOf(one);
    return numbers ? new BigDecimal(text).compareTo(new BigDecimal(other)) : text.compareTo(other);
  }
}
