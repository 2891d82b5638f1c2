package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.MemoryTable;
import org.abletwine.match.MatchRule;
import org.abletwine.step.Evaluation;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * A reference that does not fit in memory gives what one that does gives: the same rows, figures,
 * exceptions and failures, for every setting of a lookup and any number of workers.
 */
class LargeReferenceTest extends LargeReferences {
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
}
