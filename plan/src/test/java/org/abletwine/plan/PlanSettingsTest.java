package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Every setting of a plan, run, and what comes out. */
class PlanSettingsTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    write(
        "t.csv",
        "id,code,day,kg",
        "1,A,2026-07-01,500",
        "2,b ,2026-07-09,20",
        "3,,2026-08-01,7",
        "4,Z,,");
    write("r.csv", "code,name,site,till", "A,Ash,s1,2026", "B,Birch,,2025", "B,Beech,s2,2024");
    write("s.csv", "site,town", "s1,Fenby", "s2,Moor");
    write("bands.csv", "from,to,rate", ",10,1", "10,100,2", "100,,3");
    write("fix.csv", "written,meant,accept", "Z,A,yes", "A,B,no");
  }

  private void write(String name, String... lines) throws IOException {
    Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private Path plan(String text) throws IOException {
    return Files.writeString(folder.resolve("p.plan.yaml"), "able-twine: 1\n" + text);
  }

  private String run(String text) throws IOException {
    Path plan = plan(text);
    assertThat(PlanFile.check(plan)).isEmpty();
    PlanFile.load(plan).run(Progress.NONE);
    Path out = folder.resolve("o.csv");
    return Files.exists(out) ? Files.readString(out) : "";
  }

  private static final String TABLES =
      """
      transactions: { file: t.csv }
      references:
        r: { file: r.csv, key: code }
        s: { file: s.csv, key: site }
        bands: { file: bands.csv }
        fix: { file: fix.csv, where: "accept = 'yes'" }
      outputs: { enriched: o.csv, drop-columns: [day] }
      """;

  private static Arguments step(String steps, String... lines) {
    return Arguments.of(steps, String.join("\n", lines) + "\n");
  }

  static Stream<Arguments> steps() {
    return Stream.of(
        step(
            "[{ lookup: r, bring: [name] }]",
            "id,code,kg,name",
            "1,A,500,Ash",
            "2,b ,20,",
            "3,,7,",
            "4,Z,,"),
        step(
            "[{ lookup: r, normalise: [trim, ignore-case], bring: [name], several: first, mark: m }]",
            "id,code,kg,name,m",
            "1,A,500,Ash,matched",
            "2,b ,20,Birch,matched",
            "3,,7,,blank-key",
            "4,Z,,,unmatched"),
        step(
            "[{ lookup: r, normalise: [trim, ignore-case], bring: [name], several: { newest-by:"
                + " till } }]",
            "id,code,kg,name",
            "1,A,500,Ash",
            "2,b ,20,Birch",
            "3,,7,",
            "4,Z,,"),
        step(
            "[{ lookup: r, normalise: [trim, ignore-case], bring: [name as who], several: each,"
                + " unmatched: drop, blank-key: { fill: { who: nobody } } }]",
            "id,code,kg,who",
            "1,A,500,Ash",
            "2,b ,20,Birch",
            "2,b ,20,Beech",
            "3,,7,nobody"),
        step(
            "[{ lookup: r, normalise: [trim, ignore-case], bring: ['max(site) as site', 'count(*) as n'], empty: {"
                + " fill: { site: none } } }]",
            "id,code,kg,site,n",
            "1,A,500,s1,1",
            "2,b ,20,s2,2",
            "3,,7,,",
            "4,Z,,,"),
        step(
            "[{ correct: code, using: fix }, { lookup: r, bring: [name, site] }, { lookup: s, bring:"
                + " [town] }]",
            "id,code,kg,name,site,town",
            "1,A,500,Ash,s1,Fenby",
            "2,b ,20,,,",
            "3,,7,,,",
            "4,A,,Ash,s1,Fenby"),
        step(
            "[{ lookup: bands, key: { ours: kg, theirs: [from, to], match: between }, bring: [rate]"
                + " }, { compute: { fee: kg * rate, big: kg > 10 } }]",
            "id,code,kg,rate,fee,big",
            "1,A,500,3,1500,true",
            "2,b ,20,2,40,true",
            "3,,7,1,7,false",
            "4,Z,,,,"),
        step(
            "[{ lookup: r, key: id = code, bring: [name], otherwise: [{ reference: r, key: code,"
                + " bring: [name] }] }, { keep: name is not null, left-out: out.csv }]",
            "id,code,kg,name",
            "1,A,500,Ash"),
        step(
            "[{ coalesce: c, from: [code, kg], fill: none, source: f }]",
            "id,code,kg,c,f",
            "1,A,500,A,code",
            "2,b ,20,b ,code",
            "3,,7,7,kg",
            "4,Z,,Z,code"));
  }

  @ParameterizedTest
  @MethodSource("steps")
  void stepsDoWhatTheySay(String steps, String expected) throws IOException {
    assertThat(run("steps: " + steps + "\n" + TABLES)).isEqualTo(expected);
  }

  @Test
  void rowsLeftOutByKeepAreWritten() throws IOException {
    run("steps: [{ keep: kg > 10, left-out: out.csv }]\n" + TABLES);
    assertThat(Files.readAllLines(folder.resolve("out.csv")))
        .containsExactly("id,code,day,kg", "3,,2026-08-01,7", "4,Z,,");
  }

  @Test
  void duplicatesOfAReferenceFollowItsRule() throws IOException {
    for (String[] rule :
        new String[][] {
          {"first", "Birch"},
          {"last", "Beech"},
          {"{ newest-by: till }", "Birch"},
          {"fullest", "Beech"}
        }) {
      String text =
          "transactions: { file: t.csv }\n"
              + ("references: { r: { file: r.csv, key: code, duplicates: " + rule[0] + " } }\n")
              + "steps: [{ lookup: r, normalise: [trim, ignore-case], bring: [name] }]\n"
              + "outputs: { enriched: o.csv }\n";
      assertThat(run(text)).as(rule[0]).contains("2,b ,2026-07-09,20," + rule[1] + "\n");
    }
    Path plan =
        plan(
            "transactions: { file: t.csv }\n"
                + "references: { r: { file: r.csv, key: code, duplicates: fail } }\n"
                + "steps: [{ lookup: r, bring: [name] }]\noutputs: { enriched: never.csv }\n");
    assertThatThrownBy(() -> PlanFile.load(plan).run(Progress.NONE))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("\"B\" on rows 2, 3");
    assertThat(folder.resolve("never.csv")).doesNotExist();
  }

  @Test
  void linksAreFollowedAndMustBeManyToOne() throws IOException {
    String text =
        """
        transactions: { file: t.csv }
        references:
          r: { file: r.csv, key: code, links: { site: s } }
          s: { file: s.csv, key: site }
        steps: [{ lookup: r, bring: [name, site.town], several: first }]
        outputs: { enriched: o.csv, drop-columns: [day, kg] }
        """;
    assertThat(run(text)).startsWith("id,code,name,town\n1,A,Ash,Fenby\n");
    write("s.csv", "site,town", "s1,Fenby", "s1,Tarn");
    assertThatThrownBy(() -> PlanFile.load(plan(text)).run(Progress.NONE))
        .hasMessageContaining("s1");
    assertThat(
            PlanFile.check(
                plan(
                    text.replace(
                            "s: { file: s.csv, key: site }",
                            "s: { file: s.csv, key: site, links: { town: r } }")
                        .replace("site.town", "site.town.name"))))
        .anyMatch(mistake -> mistake.contains("circle"));
  }

  @Test
  void tablesAreReadAsStated() throws IOException {
    Files.write(
        folder.resolve("odd.txt"),
        "x;'Köln; west';n/a\ny;'it''s';\n".getBytes(Charset.forName("windows-1252")));
    String text =
        """
        transactions:
          { file: odd.txt, delimiter: semicolon, quote: "'", header: false, encoding: windows-1252,
            nulls: [n/a], types: { column 3: number } }
        steps: [{ compute: { seen: 'coalesce("column 3", 0)' } }]
        outputs: { enriched: o.csv, rename: { column 2: place } }
        """;
    assertThat(run(text))
        .isEqualTo("column 1;place;column 3;seen\nx;'Köln; west';n/a;0\ny;'it''s';;0\n");
    write("ragged.csv", "a,b,c", "1,2", "3");
    assertThat(
            run(
                "transactions: { file: ragged.csv, ragged: pad }\n"
                    + "steps: [{ compute: { n: a } }]\noutputs: { enriched: o.csv }\n"))
        .isEqualTo("a,b,c,n\n1,2,,1\n3,,,3\n");
  }

  @Test
  void declaredPatternsOrderAndComputeDates() throws IOException {
    write("d.csv", "id,on", "1,09.07.2026", "2,30.06.2026");
    write("p.csv", "since,price", "01.07.2026,5", "01.01.2026,4");
    String text =
        """
        transactions: { file: d.csv, types: { on: { date: dd.MM.yyyy } } }
        references: { p: { file: p.csv, types: { since: { date: dd.MM.yyyy } } } }
        steps:
          - lookup: p
            key: { ours: on, theirs: since, match: at-or-below }
            bring: [price]
          - compute: { due: "on + interval '14' day", late: "on > date '2026-07-01'" }
        outputs: { enriched: o.csv, formats: { due: { date: dd.MM.yyyy } } }
        """;
    assertThat(run(text))
        .isEqualTo(
            "id,on,price,due,late\n1,09.07.2026,5,23.07.2026,true\n2,30.06.2026,4,14.07.2026,false\n");
  }

  @Test
  void theCurrentDateIsWhatThePlanStates() throws IOException {
    assertThat(
            run(
                "steps: [{ compute: { today: current_date } }]\ncurrent-date: 2026-09-01\n"
                    + TABLES))
        .contains("1,A,500,2026-09-01\n");
  }

  @Test
  void aMeasureGoesBesideEachOutcome() throws IOException {
    run(
        "steps: [{ lookup: r, bring: [name] }]\nmeasure: kg\n"
            + TABLES.replace("outputs: {", "outputs: { record: run.json,"));
    assertThat(Files.readString(folder.resolve("run.json")))
        .contains("\"measure_by_outcome\" : [ 500, 20, 0, 7, 0 ]");
  }

  /** A spreadsheet runs what begins like a formula; numbers, and all else, leave as they came. */
  @Test
  void formulasAreGuardedWhereThatIsAskedFor() throws IOException {
    write("f.csv", "id,note", "1,=cmd()", "2,-5", "3,\"+x\"", "4,@a", "5,\"plain\"", "6,", "7,--1");
    String plan =
        "transactions: { file: f.csv }\nreferences: { s: { file: s.csv, key: site } }\n"
            + "steps: [{ lookup: s, key: id = site, bring: [town] }]\noutputs: { enriched: o.csv%s }\n";
    assertThat(run(plan.formatted("")))
        .isEqualTo("id,note,town\n1,=cmd(),\n2,-5,\n3,\"+x\",\n4,@a,\n5,\"plain\",\n6,,\n7,--1,\n");
    assertThat(run(plan.formatted(", record: r.json, formulas: guard")))
        .isEqualTo("id,note,town\n1,'=cmd(),\n2,-5,\n3,'+x,\n4,'@a,\n5,\"plain\",\n6,,\n7,'--1,\n");
    assertThat(Files.readString(folder.resolve("r.json")))
        .contains("\"cells\" : 4", "row 1: =cmd()");
  }
}
