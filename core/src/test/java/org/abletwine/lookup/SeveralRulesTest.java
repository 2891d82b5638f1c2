package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Progress;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Several rules in one key: bands, and one rule that chooses among the rows they let through. */
class SeveralRulesTest {
  private static final List<String> OURS = List.of("p", "kg", "day", "x");
  private static final List<String> THEIRS =
      List.of("p", "kg_from", "kg_to", "day_from", "day_to", "x", "value");

  private static @Nullable String number(Random random, int most) {
    return random.nextInt(12) == 0 ? null : Integer.toString(random.nextInt(most));
  }

  /** Two ends in order; either may be open. */
  private static @Nullable String[] band(Random random, int most) {
    int from = random.nextInt(most);
    int to = from + random.nextInt(most / 2);
    return new @Nullable String[] {
      random.nextInt(8) == 0 ? null : "" + from, random.nextInt(8) == 0 ? null : "" + to
    };
  }

  private static boolean within(
      @Nullable String value, @Nullable String from, @Nullable String to) {
    if (value == null) {
      return false;
    }
    int at = Integer.parseInt(value);
    return (from == null || Integer.parseInt(from) <= at)
        && (to == null || at < Integer.parseInt(to));
  }

  private static boolean chosen(
      MatchRule.Kind rule, String value, String theirs, List<String> among) {
    return switch (rule) {
      case AT_OR_BELOW -> {
        int best = Integer.MIN_VALUE;
        for (String one : among) {
          int number = Integer.parseInt(one);
          best = number <= Integer.parseInt(value) ? Math.max(best, number) : best;
        }
        yield Integer.parseInt(theirs) == best;
      }
      case CONTAINS -> value.contains(theirs);
      default -> true;
    };
  }

  @ParameterizedTest
  @EnumSource(
      value = MatchRule.Kind.class,
      names = {"EQUAL", "BETWEEN", "AT_OR_BELOW", "CONTAINS"})
  void agreesWithTryingEachRow(MatchRule.Kind third) {
    for (int seed = 1; seed <= 30; seed++) {
      Random random = new Random(seed * 7L + third.ordinal());
      boolean partitions = random.nextBoolean();
      List<@Nullable String[]> ourRows = new ArrayList<>();
      for (int row = 0; row < 200; row++) {
        ourRows.add(
            new @Nullable String[] {
              "p" + random.nextInt(3), number(random, 20), number(random, 20), number(random, 120)
            });
      }
      List<@Nullable String[]> theirRows = new ArrayList<>();
      for (int row = random.nextInt(60); row >= 0; row--) {
        @Nullable String[] kg = band(random, 20);
        @Nullable String[] day = band(random, 20);
        String x = number(random, 30);
        theirRows.add(
            new @Nullable String[] {
              "p" + random.nextInt(3), kg[0], kg[1], day[0], day[1], x, "v" + random.nextInt(5)
            });
      }
      Lookup lookup =
          Lookup.in(new MemoryTable("theirs", THEIRS, theirRows, 9))
              .bring("value")
              .key(KeyPart.between("kg", "kg_from", "kg_to"));
      lookup = partitions ? lookup.key("p") : lookup;
      boolean ruled = third == MatchRule.Kind.AT_OR_BELOW || third == MatchRule.Kind.CONTAINS;
      // The rule that chooses may stand before a band: it looks after all of them.
      lookup = ruled ? lookup.key(KeyPart.matching("x", third, "x")) : lookup;
      lookup = lookup.key(KeyPart.between("day", "day_from", "day_to"));
      lookup = third == MatchRule.Kind.EQUAL ? lookup.key("x") : lookup;
      ListSink sink = new ListSink();
      Enrichment.of(new MemoryTable("ours", OURS, ourRows, 13))
          .lookup(lookup.markAs("outcome"))
          .build()
          .writeTo(sink);
      boolean three = ruled || third == MatchRule.Kind.EQUAL;
      for (int row = 0; row < ourRows.size(); row++) {
        String message = third + " seed " + seed + " row " + row;
        String expected = expected(ourRows.get(row), theirRows, partitions, third, three);
        String outcome = sink.cell(row, "outcome");
        String found = outcome + (outcome.equals("matched") ? " " + sink.cell(row, "value") : "");
        assertThat(found).as(message).isEqualTo(expected);
      }
    }
  }

  private static String expected(
      @Nullable String[] ours,
      List<@Nullable String[]> theirs,
      boolean partitions,
      MatchRule.Kind third,
      boolean three) {
    String x = ours[3];
    if (ours[1] == null || ours[2] == null || three && x == null) {
      return "blank-key";
    }
    List<@Nullable String[]> through = new ArrayList<>();
    for (@Nullable String[] row : theirs) {
      boolean same = !partitions || String.valueOf(ours[0]).equals(row[0]);
      boolean usable = !three || row[5] != null;
      if (same && usable && within(ours[1], row[1], row[2]) && within(ours[2], row[3], row[4])) {
        through.add(row);
      }
    }
    List<String> among = through.stream().map(row -> String.valueOf(row[5])).toList();
    List<String> values =
        through.stream()
            .filter(
                row ->
                    !three
                        || (third == MatchRule.Kind.EQUAL
                            ? String.valueOf(x).equals(row[5])
                            : chosen(third, String.valueOf(x), String.valueOf(row[5]), among)))
            .map(row -> String.valueOf(row[6]))
            .distinct()
            .toList();
    return values.isEmpty()
        ? "unmatched"
        : values.size() > 1 ? "ambiguous" : "matched " + values.get(0);
  }

  private final MemoryTable rates =
      MemoryTable.of(
          "rates.csv",
          "crop,from_kg,to_kg,since,rate",
          "oats,0,100,2026-01-01,5",
          "oats,0,100,2026-06-01,6",
          "oats,100,,2026-01-01,3",
          "oats,200,,2026-08-01,2",
          "rye,0,50,2026-01-01,9");

  private Lookup byWeightAndDay() {
    return Lookup.in(rates)
        .named("rates")
        .key("crop")
        .key(KeyPart.matching("day", MatchRule.Kind.AT_OR_BELOW, "since"))
        .key(KeyPart.between("kg", "from_kg", "to_kg"))
        .bring("rate");
  }

  @Test
  void theRateInForceOnTheDayForTheWeightIsOneLookup() {
    MemoryTable loads =
        MemoryTable.of(
            "loads.csv",
            "crop,kg,day",
            "oats,99.9,2026-05-31",
            "oats,99.9,2026-06-01",
            "oats,100,2026-09-01",
            "oats,250,2026-07-31",
            "oats,250,2026-08-01",
            "rye,50,2026-08-01",
            "oats,10,2025-12-31",
            "oats,heavy,2026-08-01",
            "oats,10,soon",
            "oats,,2026-08-01",
            "hemp,1,2026-08-01");
    ListSink sink = new ListSink();
    Map<Long, String> told = new LinkedHashMap<>();
    LookupFigures figures =
        Enrichment.of(loads)
            .lookup(byWeightAndDay().markAs("outcome"))
            .build()
            .writeTo(
                sink,
                new RunContext(
                    Progress.NONE,
                    found -> told.put(found.row(), found.kind() + ": " + found.detail())))
            .lookups()
            .get(0);
    assertThat(sink.column("rate"))
        .containsExactly("5", "6", "3", "3", "2", null, null, null, null, null, null);
    assertThat(told)
        .containsEntry(6L, "unmatched: kg 0 above the highest, 50")
        .containsEntry(7L, "unmatched: day 1 day below the lowest, 2026-01-01")
        .containsEntry(8L, "blank-key: kg not a number")
        .containsEntry(9L, "blank-key: day not a date")
        .containsEntry(11L, "unmatched: ");
    assertThat(
            figures.blankParts().stream()
                .map(share -> share.name() + " " + share.rows())
                .collect(Collectors.joining(", ")))
        .isEqualTo("crop 0, day 1, kg 2");
  }

  @Test
  void oneRecordAtATimeGivesTheSame() {
    LoadedLookup loaded = byWeightAndDay().load();
    assertThat(loaded.find("oats", "2026-07-31", "250").attributes()).containsEntry("rate", "3");
    assertThat(loaded.find("oats", "2026-08-01", "250").attributes()).containsEntry("rate", "2");
    assertThat(loaded.find("oats", "2026-08-01", "heavy").outcome()).isEqualTo(Outcome.BLANK_KEY);
    assertThat(loaded.find("oats", "2025-01-01", "250").outcome()).isEqualTo(Outcome.UNMATCHED);
  }

  @Test
  void twoRulesThatChooseAreRefused() {
    Lookup both = byWeightAndDay().key(KeyPart.matching("x", MatchRule.Kind.NEAREST, "rate"));
    assertThatThrownBy(both::load)
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("any number of bands (between) and one other rule");
  }
}
