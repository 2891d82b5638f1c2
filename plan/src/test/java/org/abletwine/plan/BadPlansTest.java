package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What is wrong with a plan is told with its place, what was expected and the nearest name. */
class BadPlansTest {
  private static final String HEAD =
      "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { r: { file: r.csv, key: code } }\n";

  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(folder.resolve("t.csv"), "id,code,day,kg\n1,A,2026-07-01,5\n");
    Files.writeString(folder.resolve("r.csv"), "code,name,lo,hi,day\nA,x,1,2,2026-01-01\n");
  }

  private static Arguments refused(String rest, String... mistakes) {
    return Arguments.of(rest, List.of(mistakes));
  }

  /** The rest of a plan, from its line 4 on, and the mistakes in it. */
  static Stream<Arguments> plans() {
    return Stream.of(
        refused(
            "steps: [ { lookup: r, bring: [nmae] } ]",
            "line 4, column 20: lookup r, bring: r.csv has no column \"nmae\"; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name, name] } ]",
            "line 4, column 20: lookup r, bring: \"name\" stands twice; give one another name: name as OTHER"),
        refused(
            "steps:\n- { lookup: r, key: idd = cod, bring: [nmae, lo as day], empty: { fill: { hi: 0 } } }\n- { compute: { x: kgs + day, z: nmae || x } }",
            "line 5, column 13: lookup r, bring: r.csv has no column \"nmae\"; did you mean \"name\"?",
            "line 5, column 13: lookup r, key: r.csv has no column \"cod\"; did you mean \"code\"?",
            "line 5, column 13: lookup r, empty: fill names \"hi\", which the lookup does not bring; the names are nmae, day",
            "line 5, column 13: lookup r, key: t.csv has no column \"idd\", nor has a step before added one; did you mean \"id\"?",
            "line 5, column 13: lookup r: there is a column \"day\" already, from t.csv; bring it under another name: lo as r_day",
            "line 6, column 19: compute x: no column is called \"kgs\" (at character 1); did you mean \"kg\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name as kg] } ]",
            "line 4, column 20: lookup r: there is a column \"kg\" already, from t.csv; bring it under another name: name as r_kg"),
        refused(
            "steps: [ { lookup: r, key: [code, id = ], bring: [name] } ]",
            "line 4, column 35: steps, key: key: cannot read `id =`: a column name is missing"),
        refused(
            "steps: [ { lookup: r, key: { ours: [code, id], theirs: code }, bring: [name] } ]",
            "line 4, column 36: steps, key, ours: expected a word or text"),
        refused(
            "steps: [ { lookup: r, key: { ours: kg, theirs: [lo, hi], match: betwen }, bring: [name] } ]",
            "line 4, column 65: steps, key, match: expected one of equal, at-or-below, at-or-above, nearest, between, starts-with, contains, wildcard, regex, listed, similar, found \"betwen\"; did you mean \"between\"?"),
        refused(
            "steps: [ { lookup: r, key: { ours: kg, theirs: lo, match: between }, bring: [name] } ]",
            "line 4, column 20: lookup r, key: match: between needs two columns of theirs, the lower end and the upper end"),
        refused(
            "steps: [ { lookup: r, key: { ours: kg, theirs: lo, match: nearest, within: far }, bring: [name] } ]",
            "line 4, column 76: steps, key, within: expected a number, 0 or more, found \"far\""),
        refused(
            "steps: [ { lookup: r, key: { ours: kg, theirs: lo, match: similar, at-least: 2 }, bring: [name] } ]",
            "line 4, column 78: steps, key, at-least: expected a number, from 0 to 1, found \"2\""),
        refused(
            "steps: [ { lookup: r, key: { ours: kg, theirs: lo, match: at-or-below, ends: both }, bring: [name] } ]",
            "line 4, column 78: steps, key, ends: goes with match: between only; leave it out or change match"),
        refused(
            "steps: [ { lookup: r, key: { ours: kg, theirs: lo, match: regex, pattern: mine }, bring: [name] } ]",
            "line 4, column 75: steps, key, pattern: expected one of ours, theirs, found \"mine\"; the names are ours, theirs"),
        refused(
            "steps: [ { lookup: r, key: [ { ours: kg, theirs: lo, match: at-or-below }, { ours: day, theirs: day, match: at-or-below } ], bring: [name] } ]",
            "line 4, column 20: lookup r, key: \"kg at-or-below lo\" and \"day at-or-below day\" both match by a rule; one lookup takes any number of bands (between) and one other rule beside any equal parts, so bring the first by a lookup of its own and use what it brings as key of the second"),
        refused(
            "steps: [ { lookup: r, several: newest-by, bring: [name] } ]",
            "line 4, column 32: steps, several: newest-by needs a column: several: { newest-by: COLUMN }"),
        refused(
            "steps: [ { lookup: r, several: { newest-by: updated }, bring: [name] } ]",
            "line 4, column 20: lookup r, several: r.csv has no column \"updated\"; the names are code, name, lo, hi, day"),
        refused(
            "steps: [ { lookup: r, several: longest, bring: [name] } ]",
            "line 4, column 20: lookup r: several: longest chooses between patterns of theirs, and no key part has them; use flag, first, last, newest-by or each"),
        refused(
            "steps: [ { lookup: r, bring: ['sun(lo) as s'] } ]",
            "line 4, column 31: steps, bring: bring: `sun(lo) as s`: no aggregate is called \"sun\"; did you mean \"sum\"?"),
        refused(
            "steps: [ { lookup: r, bring: ['sum(lo)'] } ]",
            "line 4, column 31: steps, bring: bring: `sum(lo)` needs a name; write sum(lo) as NAME"),
        refused(
            "steps: [ { lookup: r, unmatched: drp, bring: [name] } ]",
            "line 4, column 34: steps, unmatched: expected one of leave, expected, drop, fail, found \"drp\"; did you mean \"drop\"?"),
        refused(
            "steps: [ { lookup: r, unmatched: { fill: { nam: x } }, bring: [name] } ]",
            "line 4, column 20: lookup r, unmatched: fill names \"nam\", which the lookup does not bring; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, empty: drop, bring: [name] } ]",
            "line 4, column 30: steps, empty: expected one of leave, found \"drop\"; the names are leave"),
        refused(
            "steps: [ { lookup: r, mark: kg, bring: [name] } ]",
            "line 4, column 20: lookup r: there is a column \"kg\" already, from t.csv; choose another name for mark"),
        refused(
            "steps: [ { lookup: r, normalise: [pad-zeros], bring: [name] } ]",
            "line 4, column 35: steps, normalise: normalise: pad-zeros needs an argument, such as pad-zeros: 6"),
        refused(
            "steps: [ { lookup: r, normalise: [ { replace: { pattern: '(', with: x } } ], bring: [name] } ]",
            "line 4, column 36: steps, normalise: replace: the pattern ( does not compile: missing closing ) at character 1 (()"),
        refused(
            "steps: [ { lookup: r, otherwise: [ { reference: q, key: code } ], bring: [name] } ]",
            "line 4, column 49: no reference is called \"q\"; the names are r"),
        refused(
            "steps: [ { lookup: r, otherwise: [ { reference: r, key: id = code, bring: [lo] } ], bring: [name] } ]",
            "line 4, column 20: lookup r, otherwise r: brings \"lo\", which the lookup itself does not; the names are name"),
        refused(
            "steps: [ { lookup: r, bring: [name] }, { lookup: r, bring: [lo] } ]",
            "line 4, column 50: two lookups are called \"r\"; give one another name: NAME"),
        refused(
            "steps: [ { lookup: r, bring: [code.name] } ]",
            "line 4, column 20: lookup r, bring: r has no link for \"code\"; state it at the reference as links: { code: REFERENCE }"),
        refused(
            "steps: [ { coalesce: c, from: [kg, kgs] } ]",
            "line 4, column 10: coalesce c, from: t.csv has no column \"kgs\", nor has a step before added one; did you mean \"kg\"?"),
        refused(
            "steps: [ { coalesce: c } ]",
            "line 4, column 10: steps: state coalesce: NAME and from: [COLUMN, COLUMN]"),
        refused(
            "steps: [ { compute: { x: kgs + 1 } } ]",
            "line 4, column 26: compute x: no column is called \"kgs\" (at character 1); did you mean \"kg\"?"),
        refused(
            "steps: [ { compute: { x: 'kg +' } } ]",
            "line 4, column 26: compute x: cannot read `kg +`: it goes wrong at character 4"),
        refused(
            "steps: [ { compute: { x: sqrot(kg) } } ]",
            "line 4, column 26: compute x: `sqrot(kg)` (at character 1) is not a known function; the names are abs, ceiling, char_length, coalesce, date_text, extract, first_of_month, floor, greatest, last_of_month, least, lower and 11 more, in `sqrot(kg)`"),
        refused(
            "steps: [ { compute: { kg: kg + 1 } } ]",
            "line 4, column 27: compute kg: there is a column \"kg\" already, from t.csv; choose another name for the result"),
        refused(
            "steps: [ { compute: { x: current_date } } ]",
            "line 4, column 26: compute x: CURRENT_DATE makes a run unrepeatable unless the plan states it; add current-date: 2026-11-23, or current-date: today, in `current_date`"),
        refused(
            "steps: [ { keep: kg } ]",
            "line 4, column 18: keep: `kg` (at character 1) is not a condition; compare it with something, such as kg = 'yes', in `kg`"),
        refused(
            "steps: [ { keep: kg + 1 } ]",
            "line 4, column 18: keep: `kg + 1` (at character 1) is a number where a condition is needed, in `kg + 1`"),
        refused(
            "steps: [ { correct: kgs, using: r, written: code, meant: name } ]",
            "line 4, column 33: correct: t.csv has no column \"kgs\", nor has a step before added one; did you mean \"kg\"?"),
        refused(
            "steps: [ { correct: kg, using: r } ]",
            "line 4, column 32: correct kg: r.csv has no column \"written\"; the names are code, name, lo, hi, day"),
        refused(
            "steps: [ { lookup: r, bring: [name], keep: kg > 1 } ]",
            "line 4, column 12: steps: no setting is called \"lookup\" here; the names are keep, left-out",
            "line 4, column 23: steps: no setting is called \"bring\" here; the names are keep, left-out"),
        refused(
            "steps: [ { lokup: r } ]",
            "line 4, column 10: steps: not a step; a step starts with lookup: REFERENCE, correct: COLUMN, coalesce: COLUMN, compute: or keep: CONDITION",
            "line 4, column 12: steps: no setting is called \"lokup\" here; did you mean \"lookup\"?"),
        refused(
            "steps: []",
            "line 4, column 8: steps: the list is empty; state at least one, or leave steps out"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { matched: { q: 90% } }",
            "line 5, column 11: controls, matched: no lookup is called \"q\"; the names are r"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { matched: { r: lots } }",
            "line 5, column 27: controls, matched, r: expected a share such as 98%; found \"lots\""),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { unique: [q] }",
            "line 5, column 11: controls, unique: no lookup fetches from a reference called \"q\"; the names are r"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { rows: many }",
            "line 5, column 19: controls, rows: expected same, or a number of rows; found \"many\""),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { totals: [kgs] }",
            "line 5, column 11: controls: t.csv has no column \"kgs\", nor has a step before added one; did you mean \"kg\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { nulls: { nam: 1% } }",
            "line 5, column 11: controls: t.csv has no column \"nam\", nor has a step before added one; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { that: 'kg > 0' }",
            "line 5, column 11: controls, that: `kg > 0` has no total in it; write for example sum(payable) > 0, or use keep for a condition on each row"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncontrols: { that: 'sum(kgs) > 0' }",
            "line 5, column 11: controls, that: t.csv has no column \"kgs\", nor has a step before added one; did you mean \"kg\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\nmeasure: kgs",
            "measure: t.csv has no column \"kgs\"; did you mean \"kg\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\nerrors: ignore",
            "line 5, column 9: errors: expected fail or null"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\ncurrent-date: yesterday",
            "line 5, column 15: current-date: expected a date such as 2026-07-20, or today; found \"yesterday\""),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { rollups: [ { by: [nam], totals: [kg] } ] }",
            "line 5, column 23: rollups, by: t.csv has no column \"nam\", nor has a step before added one; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { rollups: [ { by: [name] } ] }",
            "line 5, column 23: outputs, rollups: state a rollup as { by: [COLUMN], totals: [COLUMN], file: FILE.csv }"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { rollups: [ { by: [name], totals: ['listagg(kg, 1)'] } ] }",
            "line 5, column 23: rollups: listagg is not a total; use it in bring"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { rename: { nam: x } }",
            "line 5, column 10: rename: t.csv has no column \"nam\", nor has a step before added one; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { rename: { name: kg } }",
            "line 5, column 10: rename: two columns would be called \"kg\"; choose another name for one"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { drop-columns: [nam] }",
            "line 5, column 10: drop-columns: t.csv has no column \"nam\", nor has a step before added one; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { order-columns: [nam] }",
            "line 5, column 10: order-columns: t.csv has no column \"nam\", nor has a step before added one; did you mean \"name\"?"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { enriched: o.csv, exceptions: o.csv }",
            "line 5, column 10: outputs: o.csv is written twice; give each output its own file"),
        refused(
            "steps: [ { lookup: r, bring: [name] } ]\noutputs: { record: r.csv }",
            "line 5, column 10: outputs: r.csv is also an input; source tables are never changed, so write elsewhere"));
  }

  @Test
  void linksThatLeadNowhereAreToldWhetherFollowedOrNot() throws IOException {
    String head = HEAD.replace("key: code }", "key: code, links: { nam: r, name: q, lo: r } }");
    Path plan =
        Files.writeString(
            folder.resolve("p.plan.yaml"), head + "steps: [ { lookup: r, bring: [name.x] } ]\n");
    assertThat(PlanFile.check(plan))
        .extracting(message -> message.replace(folder + "/", ""))
        .containsExactly(
            "p.plan.yaml line 3, column 26: reference r, links: r.csv has no column \"nam\"; did you mean \"name\"?",
            "p.plan.yaml line 3, column 26: reference r, links: no reference is called \"q\"; the names are r");
  }

  @ParameterizedTest
  @MethodSource("plans")
  void mistakesAreToldByCheckAndStopARun(String rest, List<String> mistakes) throws IOException {
    Path plan = Files.writeString(folder.resolve("p.plan.yaml"), HEAD + rest + "\n");
    assertThat(PlanFile.check(plan))
        .extracting(
            message -> message.replace(folder + "/", "").replaceFirst("^p.plan.yaml:? ", ""))
        .isEqualTo(mistakes);
    assertThatThrownBy(() -> PlanFile.load(plan)).isInstanceOf(SettingException.class);
    assertThat(folder.resolve("o.csv")).doesNotExist();
  }
}
