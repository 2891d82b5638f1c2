package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.database.Database;
import org.abletwine.step.Progress;
import org.abletwine.table.Rows;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.Tables;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where a plan reads from and writes to: workbooks, databases, text of every form; parameters. */
class PlacesTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(folder.resolve("t-2026-07.csv"), "no,code,kg\n1,a,5\n2,b,7.50\n3,é,1\n");
    Files.writeString(folder.resolve("r.csv"), "code,name\na,Ann\nb,Bo\n");
  }

  private Path plan(String transactions, String reference, String steps, String outputs)
      throws IOException {
    return Files.writeString(
        folder.resolve("p.plan.yaml"),
        """
        able-twine: 1
        title: Intake of ${month}
        parameters: { month: 2026-07, least: 0, site: }
        transactions: %s
        references: { r: %s }
        steps: [ { lookup: r, key: code, bring: [name] } %s ]
        outputs: %s
        """
            .formatted(transactions, reference, steps, outputs));
  }

  private static final String TICKETS = "{ file: \"t-${month}.csv\", types: { kg: decimal } }";
  private static final Map<String, String> SITE = Map.of("site", "it's");

  private PlannedRun.Result run(Path plan) {
    return PlanFile.load(plan, SITE).run(Progress.NONE);
  }

  private static String text(Table table) {
    StringBuilder text = new StringBuilder();
    try (Rows rows = table.rows()) {
      for (List<String> row = rows.next(); row != null; row = rows.next()) {
        text.append(String.join(",", row)).append(';');
      }
    }
    return text.toString();
  }

  private Table sheet(String file, String name) {
    return Tables.file(
        folder.resolve(file),
        TableOptions.builder().sheet(new TableOptions.Sheet(name, 0, null)).build());
  }

  @Test
  void severalOutputsAreSheetsOfOneWorkbookThatIsReadAgain() throws IOException {
    run(
        plan(
            TICKETS,
            "{ file: r.csv }",
            ", { keep: \"kg > 4\", left-out: { file: \"o-${month}.xlsx\", sheet: left } }",
            "{ enriched: { file: \"o-${month}.xlsx\", sheet: all }, exceptions: { file:"
                + " \"o-${month}.xlsx\", sheet: missing }, rollups: { by: [name], totals: [kg], file:"
                + " { file: \"o-${month}.xlsx\", sheet: \"by name\" } } }"));
    assertThat(text(sheet("o-2026-07.xlsx", "all"))).isEqualTo("1,a,5,Ann;2,b,7.5,Bo;");
    assertThat(text(sheet("o-2026-07.xlsx", "left"))).isEqualTo("3,é,1,null;");
    assertThat(text(sheet("o-2026-07.xlsx", "by name"))).isEqualTo("Ann,5;Bo,7.5;");
    assertThat(text(sheet("o-2026-07.xlsx", "missing"))).startsWith("r,unmatched,");
    Path again =
        plan(
            "{ file: \"o-${month}.xlsx\", sheet: 1 }",
            "{ file: r.csv }",
            ", { compute: { twice: 2 * cast(kg as decimal) } }",
            "{ enriched: again.csv, drop-columns: [name] }");
    Files.writeString(
        again, Files.readString(again).replace("bring: [name]", "bring: [name as n]"));
    run(again);
    assertThat(folder.resolve("again.csv"))
        .hasContent("no,code,kg,n,twice\n1,a,5,Ann,10\n2,b,7.5,Bo,15.0");
  }

  @Test
  void databasesAreReadAndWritten() throws IOException {
    String database = "{ database: { url: \"jdbc:sqlite:x.db\" }, table: enriched, mode: replace }";
    run(plan(TICKETS, "{ file: r.csv }", "", "{ enriched: " + database + " }"));
    Database file = Database.at("jdbc:sqlite:" + folder.resolve("x.db"));
    assertThat(text(file.table("enriched"))).isEqualTo("1,a,5,Ann;2,b,7.5,Bo;3,é,1,null;");
    PlannedRun.Result result =
        run(
            plan(
                TICKETS,
                "{ database: { url: \"jdbc:sqlite:x.db\", query: \"select code, name from enriched"
                    + " where name = ?\", values: [Bo] } }",
                "",
                "{ enriched: o.csv, record: run.json }"));
    assertThat(folder.resolve("o.csv")).hasContent("no,code,kg,name\n1,a,5,\n2,b,7.50,Bo\n3,é,1,");
    assertThat(result.record().parameters())
        .containsExactly(
            Map.entry("month", "2026-07"), Map.entry("least", "0"), Map.entry("site", "it's"));
    assertThat(Files.readString(folder.resolve("run.json")))
        .contains("\"month\" : \"2026-07\"")
        .contains("\"title\" : \"Intake of 2026-07\"");
  }

  @Test
  void aRunThatFailsLeavesADatabaseAsItWas() throws IOException {
    String database = "{ database: { url: \"jdbc:sqlite:x.db\" }, table: e }";
    run(plan(TICKETS, "{ file: r.csv }", "", "{ enriched: " + database + " }"));
    Path wrong =
        plan(
            TICKETS,
            "{ file: r.csv }",
            ", { compute: { x: 1 / (kg - 1) } }",
            "{ enriched: " + database.replace("table: e", "table: e2") + " }");
    assertThatThrownBy(() -> run(wrong)).hasMessageContaining("row 3");
    assertThatThrownBy(
            () -> Database.at("jdbc:sqlite:" + folder.resolve("x.db")).table("e2").schema())
        .hasMessageContaining("has no table \"e2\"");
  }

  @Test
  void textTakesTheFormThatIsStated() throws IOException {
    run(
        plan(
            TICKETS,
            "{ file: r.csv }",
            "",
            "{ enriched: { file: o.txt, delimiter: semicolon, encoding: windows-1252, line-end: crlf } }"));
    assertThat(Files.readString(folder.resolve("o.txt"), Charset.forName("windows-1252")))
        .isEqualTo("no;code;kg;name\r\n1;a;5;Ann\r\n2;b;7.50;Bo\r\n3;é;1;\r\n");
    run(plan(TICKETS, "{ file: r.csv }", "", "{ enriched: { file: o.tsv, mark: yes } }"));
    assertThat(Files.readString(folder.resolve("o.tsv")))
        .isEqualTo("\uFEFFno\tcode\tkg\tname\n1\ta\t5\tAnn\n2\tb\t7.50\tBo\n3\té\t1\t\n");
    String ascii = "{ enriched: { file: a.csv, encoding: us-ascii %s } }";
    assertThatThrownBy(() -> run(plan(TICKETS, "{ file: r.csv }", "", ascii.formatted(""))))
        .hasMessageContaining("a.csv row 3, column code: US-ASCII has no character é (U+00E9)");
    assertThat(folder.resolve("a.csv")).doesNotExist();
    PlannedRun.Result result =
        run(plan(TICKETS, "{ file: r.csv }", "", ascii.formatted(", unknown: \"?\"")));
    assertThat(Files.readString(folder.resolve("a.csv"), StandardCharsets.US_ASCII))
        .contains("3,?,1,");
    assertThat(result.form()).contains("US-ASCII, 1 character replaced");
  }

  /** Numbers known to have decimal places take the form; codes, and what is no number, do not. */
  @Test
  void decimalsOfTextTakeTheFormOfAnExample() throws IOException {
    Files.writeString(
        folder.resolve("d.csv"),
        "no,code,kg\n1,1.50,1234.50\n2,2.50,-7\n3,,\n4,x,\"n/a\"\n5,y,12345678901234567890.5\n");
    for (int workers = 1; workers <= 3; workers += 2) {
      run(
          plan(
              "{ file: d.csv, types: { kg: decimal } }",
              "{ file: r.csv }",
              ", { compute: { half: \"case when no < 4 then kg / 2 end\" } }",
              "{ enriched: { file: o.csv, delimiter: semicolon, decimal: \"1.234,56\" },"
                  + " drop-columns: [name] }"));
      assertThat(folder.resolve("o.csv"))
          .content()
          .isEqualTo(
              "no;code;kg;half\n1;1.50;1.234,50;617,25\n2;2.50;-7;-3,5\n3;;;\n4;x;\"n/a\";\n"
                  + "5;y;12.345.678.901.234.567.890,5;\n");
    }
    assertThatThrownBy(
            () ->
                run(
                    plan(
                        TICKETS,
                        "{ file: r.csv }",
                        "",
                        "{ enriched: { file: o.csv, decimal: many } }")))
        .hasMessageContaining("decimal: \"many\" is no example of a number");
  }

  @Test
  void aParameterIsAValueWithinSql() throws IOException {
    run(
        plan(
            TICKETS,
            "{ file: r.csv, where: \"name <> ${site}\" }",
            ", { compute: { m: \"${month}\", n: \"'of ${month} ' || '${site}'\", l: \"${least} + 1\","
                + " t: \"'$${month}'\" } }",
            "{ enriched: o.csv, drop-columns: [code, kg, name] }"));
    assertThat(folder.resolve("o.csv"))
        .content()
        .startsWith("no,m,n,l,t\n1,2026-07,of 2026-07 it's,1,${month}\n");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ file: r.csv } | , { compute: { a: '\"${month}\"' } } | { enriched: o.csv } | in SQL a parameter is a value",
        "{ file: r.csv } | , { compute: { a: '${mont}' } } | { enriched: o.csv } | did you mean \"month\"?",
        "{ file: r.csv } | '' | { enriched: o.docx } | no table is written to a file of that ending",
        "{ file: r.csv } | '' | { enriched: { file: o.csv, sheet: a } } | text has no sheets",
        "{ file: r.csv } | '' | { enriched: { file: o.xlsx, mark: yes } } | has no delimiter",
        "{ file: r.csv, sheet: One } | '' | { enriched: o.csv } | is no workbook: leave out sheet",
        "{ file: r.csv } | '' | { enriched: { file: o.xlsx, sheet: a }, rollups: { by: [code], totals: [kg], file: { file: o.xlsx, sheet: a } } } | is written twice",
        "{ file: r.csv } | '' | { enriched: { file: o.xlsx, sheet: a }, exceptions: { file: o.xlsx, sheet: b }, rollups: { by: [code], totals: [kg], file: { file: o.xlsx, sheet: A } } } | is written twice; give each output its own sheet",
        "{ file: r.csv } | '' | { enriched: o.csv, rollups: { by: [code], totals: [kg], file: { file: o.xlsx, sheet: 'a/b' } } } | cannot be the name of a sheet",
        "{ file: r.csv } | '' | { enriched: o.xlsx, rollups: { by: [code], totals: [kg], file: o.xlsx } } | is written twice",
        "{ database: { url: 'jdbc:sqlite:r.db' } } | '' | { enriched: o.csv } | state one of table: NAME and query:",
        "{ database: { url: 'jdbc:x://u:hush@h/d', table: a } } | '' | { enriched: o.csv } | holds a user or a password",
        "{ database: { url: 'jdbc:x://h/d', password: hush, table: a } } | '' | { enriched: o.csv } | a plan holds no credentials",
        "{ database: { url: 'jdbc:sqlite:r.db', query: 'select ${month}' } } | '' | { enriched: o.csv } | a query takes no parameters in its text",
        "{ file: r.csv, database: { url: 'jdbc:sqlite:r.db', table: a } } | '' | { enriched: o.csv } | a table is in a file or in a database",
        "{ file: r.csv } | '' | { enriched: { database: { url: 'jdbc:sqlite:r.db' } } } | state the table to write"
      })
  void whatDoesNotGoTogetherIsTold(String reference, String steps, String outputs, String message)
      throws IOException {
    Path plan = plan(TICKETS, reference, steps, outputs);
    List<String> mistakes = PlanFile.check(plan, SITE);
    assertThat(mistakes).anyMatch(mistake -> mistake.contains(message));
    assertThat(String.join("\n", mistakes)).doesNotContain("hush");
  }

  @Test
  void parametersHaveValuesAndNames() throws IOException {
    Path plan = plan(TICKETS, "{ file: r.csv }", "", "{ enriched: o.csv }");
    assertThat(PlanFile.check(plan))
        .anyMatch(
            m ->
                m.contains("parameters, site: the parameter has no value")
                    || m.contains("--set site=VALUE"));
    assertThatThrownBy(() -> PlanFile.load(plan, Map.of("sit", "a")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("--set: the plan has no parameter \"sit\"; did you mean \"site\"?");
    assertThatThrownBy(() -> PlanFile.check(plan, Map.of("site", "a", "month", "2026-08")))
        .hasMessageContaining("there is no file");
    assertThat(PlanFile.check(plan, SITE)).isEmpty();
  }

  /**
   * Whole rows, as they are before the lookup, in their order; the same for any number of workers.
   */
  @Test
  void rowsAreSetApartByTheirOutcome() throws IOException {
    StringBuilder tickets = new StringBuilder("no,code,kg\n");
    StringBuilder unmatched = new StringBuilder("no,code,kg,twice\n");
    StringBuilder others = new StringBuilder("no,code,kg,twice\n");
    StringBuilder kept = new StringBuilder("no,code,kg,twice,name\n");
    String[] codes = {"a", "b", "x", "", "t"};
    for (int i = 0; i < 20_000; i++) {
      String code = codes[i * 7 % 31 % 5];
      String line = i + "," + code + "," + i % 3;
      tickets.append(line).append('\n');
      line += "," + 2 * (i % 3);
      switch (code) {
        case "x" -> unmatched.append(line).append('\n');
        case "", "t" -> others.append(line).append('\n');
        default -> kept.append(line).append(code.equals("a") ? ",Ann\n" : ",Bo\n");
      }
    }
    Files.writeString(folder.resolve("many.csv"), tickets);
    Files.writeString(folder.resolve("r.csv"), "code,name\na,Ann\nb,Bo\nt,One\nt,Two\n");
    Path plan =
        Files.writeString(
            folder.resolve("apart.plan.yaml"),
            """
            able-twine: 1
            transactions: { file: many.csv, types: { kg: integer } }
            references: { r: { file: r.csv } }
            steps:
              - compute: { twice: 2 * kg }
              - lookup: r
                key: code
                bring: [name]
                unmatched: { apart: unmatched.csv }
                ambiguous: { apart: { file: others.csv } }
                blank-key: { apart: others.csv }
            outputs: { enriched: o.csv }
            """);
    for (int workers = 1; workers <= 4; workers++) {
      PlannedRun.Result result = PlanFile.load(plan).workers(workers).run(Progress.NONE);
      assertThat(Files.readString(folder.resolve("o.csv"))).isEqualTo(kept.toString());
      assertThat(Files.readString(folder.resolve("unmatched.csv"))).isEqualTo(unmatched.toString());
      assertThat(Files.readString(folder.resolve("others.csv"))).isEqualTo(others.toString());
      assertThat(result.others())
          .anyMatch(
              line -> line.endsWith("unmatched.csv  (the rows of lookup r that are unmatched)"))
          .anyMatch(line -> line.contains("that are ambiguous or blank-key"));
    }
    assertThatThrownBy(
            () ->
                PlanFile.load(
                    Files.writeString(
                        folder.resolve("apart.plan.yaml"),
                        Files.readString(plan).replace("apart: others.csv", "apart: o.csv"))))
        .hasMessageContaining("is written twice");
  }

  @Test
  void numbersAreReadInTheFormOfAnExample() throws IOException {
    StringBuilder tickets = new StringBuilder("no;amount;code;note\n");
    StringBuilder expected = new StringBuilder("no;amount;code;note;twice\n");
    for (int i = 1; i <= 9_000; i++) {
      String note = i % 3 == 0 ? "\"a;b\"" : "n";
      boolean none = i % 7 == 0;
      tickets.append(i).append(none ? ";n/a;" : ";1." + (100 + i % 900) + ",50;").append("00" + i);
      tickets.append(';').append(note).append('\n');
      long whole = 1000 + 100 + i % 900;
      expected.append(i).append(none ? ";n/a;" : ";" + whole + ".50;").append("00" + i).append(';');
      expected.append(note).append(none ? ";\n" : ";" + (2 * whole + 1) + ".00\n");
    }
    Files.writeString(folder.resolve("de.csv"), tickets);
    Path plan =
        Files.writeString(
            folder.resolve("de.plan.yaml"),
            """
            able-twine: 1
            errors: "null"
            transactions: { file: de.csv, types: { amount: { decimal: "1.234,56" } } }
            references: { r: { file: r.csv } }
            steps: [ { compute: { twice: 2 * amount } } ]
            outputs: { enriched: o.csv }
            """);
    for (int workers = 1; workers <= 3; workers++) {
      PlanFile.load(plan).workers(workers).run(Progress.NONE);
      assertThat(Files.readString(folder.resolve("o.csv"))).isEqualTo(expected.toString());
    }
    Files.writeString(
        folder.resolve("de.csv"), tickets.toString().replace("8000;1.900,50", "8000;1900.50"));
    assertThatThrownBy(() -> PlanFile.load(plan).run(Progress.NONE))
        .hasMessageContaining(
            "de.csv row 8000, column amount: \"1900.50\" is not written as 1.234,56");
  }

  @Test
  void wholeNumbersHaveNoPlaces() throws IOException {
    Files.writeString(folder.resolve("r.csv"), "low,name\n1,a\n2.5,b\n");
    Path plan =
        Files.writeString(
            folder.resolve("i.plan.yaml"),
            """
            able-twine: 1
            transactions: { file: t-2026-07.csv }
            references: { r: { file: r.csv, types: { low: integer } } }
            steps: [ { lookup: r, key: { ours: no, theirs: low, match: at-or-below }, bring: [name] } ]
            outputs: { enriched: o.csv }
            """);
    assertThatThrownBy(() -> PlanFile.load(plan).run(Progress.NONE))
        .hasMessageContaining("\"2.5\" is not a whole number");
  }

  /** Money and per cent: text in text, numbers in their format in workbooks. */
  @Test
  void numbersLeaveInTheFormOfAnExample() throws IOException {
    Files.writeString(
        folder.resolve("m.csv"), "no,a,b,c\n1,1234567.891,0.125,-5\n2,-0.5,-1.5,\n3,,0,1e2\n");
    for (String out : List.of("o.csv", "o.xlsx", "o.ods")) {
      Path plan =
          Files.writeString(
              folder.resolve("m.plan.yaml"),
              """
              able-twine: 1
              transactions: { file: m.csv }
              references: { r: { file: r.csv } }
              steps: [ { compute: { d: no * 1000.5 } } ]
              outputs:
                enriched: %s
                formats:
                  a: { number: "$1,234.56" }
                  b: { percent: 1 }
                  c: { number: "(1.234,50 €)" }
                  d: { number: "1 234" }
              """
                  .formatted(out));
      PlanFile.load(plan).run(Progress.NONE);
    }
    assertThat(folder.resolve("o.csv"))
        .hasContent(
            "no,a,b,c,d\n1,\"$1,234,567.89\",12.5 %,\"(5,00 €)\",1 001\n"
                + "2,-$0.50,-150.0 %,,2 001\n3,,0.0 %,\"100,00 €\",3 002");
    for (String out : List.of("o.xlsx", "o.ods")) {
      assertThat(text(Tables.file(folder.resolve(out))))
          .isEqualTo("1,1234567.89,0.125,-5,1001;2,-0.5,-1.5,null,2001;3,null,0,100,3002;");
    }
  }
}
