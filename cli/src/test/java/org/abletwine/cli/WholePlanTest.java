package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Rules, chains, computing and controls through the command line, on the demo data. */
class WholePlanTest extends OnDemo {
  @Test
  void theDemoIsTheSameWithNothingInMemory() throws IOException {
    List<String> written =
        List.of("enriched.csv", "exceptions.csv", "corrections-draft.csv", "by-region.csv");
    Cli.run("run", file("harvest.plan.yaml"));
    List<byte[]> expected = new ArrayList<>();
    for (String name : written) {
      expected.add(Files.readAllBytes(demo.resolve("out").resolve(name)));
    }
    JsonNode before = new ObjectMapper().readTree(demo.resolve("out/run.json").toFile());
    Cli.Gave gave = Cli.run("run", file("harvest.plan.yaml"), "--memory", "1", "--figures", "all");
    assertThat(gave.status()).as(gave.err()).isZero();
    assertThat(gave.out())
        .contains("growers.csv did not fit in memory: divided into 4 parts")
        .contains("On disk, since it did not fit in memory, which takes longer: growers (")
        .contains("totals by region_name, crop: not all groups fitted in memory: sorted with 1,4");
    for (int i = 0; i < written.size(); i++) {
      assertThat(Files.readAllBytes(demo.resolve("out").resolve(written.get(i))))
          .as(written.get(i))
          .isEqualTo(expected.get(i));
    }
    JsonNode after = new ObjectMapper().readTree(demo.resolve("out/run.json").toFile());
    int divided = 0;
    for (JsonNode lookup : after.path("lookups")) {
      divided += ((ObjectNode) lookup).remove("divided") == null ? 0 : 1;
    }
    assertThat(divided).isEqualTo(9);
    for (JsonNode rollup : after.path("rollups")) {
      assertThat(((ObjectNode) rollup).remove("bytes_on_disk").asLong()).isPositive();
    }
    for (JsonNode record : List.of(before, after)) {
      ((ObjectNode) record).remove(List.of("started", "elapsed_seconds"));
    }
    assertThat(after).isEqualTo(before);
  }

  @Test
  void nothingIsLeftBehindWhenAReferenceOnDiskEndsARun() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "code,kg\na,1\nb,2\n");
    Files.writeString(demo.resolve("r.csv"), "code,name\na,Ash\na,Alder\n");
    Path plan =
        plan(
            "references: { r: { file: r.csv, key: code, duplicates: fail } }",
            "steps: [{ lookup: r, bring: [name], unmatched: { apart: out/apart.csv } }]",
            "outputs: { enriched: out/e.csv }");
    Cli.Gave gave = Cli.run("run", plan.toString(), "--memory", "1");
    assertThat(gave.status()).isEqualTo(1);
    assertThat(gave.err()).contains("r.csv: 1 key stands on several rows");
    try (Stream<Path> files = Files.list(demo.resolve("out"))) {
      assertThat(files.map(file -> file.getFileName().toString()).filter(f -> f.endsWith(".part")))
          .isEmpty();
    }
  }

  @Test
  void anAmountOfMemoryIsToldInBytesOrGreaterUnits() {
    Cli.Gave gave = Cli.run("run", file("harvest.plan.yaml"), "--memory", "much");
    assertThat(gave.status()).isEqualTo(2);
    assertThat(gave.err()).contains("--memory takes a size such as 512m or 4g, not much");
    assertThat(Cli.run("run", file("harvest.plan.yaml"), "--memory", "99999999999999t").status())
        .isEqualTo(2);
    assertThat(Cli.run("run", file("harvest.plan.yaml"), "--memory", "1G", "--quiet").status())
        .isZero();
  }

  @Test
  void theDemoAddsUp() throws IOException {
    Cli.Gave gave = Cli.run("run", file("harvest.plan.yaml"), "--json");
    JsonNode record = new ObjectMapper().readTree(gave.out());
    assertThat(gave.status()).isZero();
    assertThat(record.at("/controls_hold").asBoolean()).isTrue();
    String total = record.at("/control_totals/1/total").asText();
    assertThat(record.at("/rollups/0/grand_total/0").asText()).isEqualTo(total);
    record
        .at("/computed")
        .forEach(
            column -> {
              long because = 0;
              for (JsonNode reason : column.at("/nulls_because")) {
                because += reason.at("/rows").asLong();
              }
              assertThat(because).isEqualTo(column.at("/nulls").asLong());
            });
    assertThat(Files.readString(demo.resolve("out/by-region.csv")))
        .startsWith("region_name,crop,net_kg,payable,per_tonne,rows\n")
        .contains("\nall,,");
  }

  @Test
  void aControlThatDoesNotHoldEndsWithStatusThree() throws IOException {
    Cli.Gave gave = Cli.run("run", file("intake-check.plan.yaml"));
    assertThat(gave.status()).isEqualTo(3);
    assertThat(gave.out())
        .contains("2 of 4 controls do not hold")
        .contains("FAILS  matched sites")
        .contains("sites: 225 rows unmatched")
        .contains("(trace " + file("intake-check.plan.yaml") + " --row N)")
        .contains("row 15")
        .doesNotContain("matched packs");
    assertThat(Cli.run("run", file("intake-check.plan.yaml"), "--figures", "all").out())
        .contains("2 of 4 do not hold")
        .contains("holds  matched packs");
    Cli.Gave quiet = Cli.run("run", file("intake-check.plan.yaml"), "--quiet");
    assertThat(quiet.out().lines()).hasSize(3).first().isEqualTo("2 of 4 controls do not hold");
    assertThat(Cli.run("run", file("harvest.plan.yaml"), "--quiet").out()).isEmpty();
    assertThat(Cli.run("run", file("harvest.plan.yaml"), "--figures", "many").err())
        .contains("--figures: expected main or all, found \"many\"");
    assertThat(demo.resolve("out/intake-check.csv")).isNotEmptyFile();
    assertThat(Files.readAllLines(demo.resolve("out/not-open.csv"))).hasSizeGreaterThan(100);
    assertThat(Cli.run("run", file("intake-check.plan.yaml"), "--lenient").status()).isZero();
  }

  /** What a person must know fits a screen: problems first, each with a way to look closer. */
  @Test
  void theSummaryOfTheDemoFitsAScreen() {
    Cli.Gave gave = Cli.runAt(100, "run", file("harvest.plan.yaml"));
    List<String> lines = gave.out().lines().toList();
    assertThat(lines).hasSizeLessThanOrEqualTo(45).allMatch(line -> line.length() <= 100);
    assertThat(lines.get(1)).isEqualTo("All 10 controls hold");
    assertThat(lines.get(3)).startsWith("Needs a person, most gross_kg first (trace ");
    assertThat(lines.subList(4, 6))
        .anyMatch(
            line ->
                line.matches(
                    " +11,848,862 +sites: 398 rows match only rows that where: leaves out +row 16"));
    assertThat(gave.out()).contains("growers: 58 rows unmatched").contains("corrections draft");
    for (String line :
        Cli.runAt(100, "run", file("harvest.plan.yaml"), "--figures", "all")
            .out()
            .lines()
            .toList()) {
      assertThat(line.length()).as(line).isLessThanOrEqualTo(100);
    }
  }

  @Test
  void aPreviewWritesNothing() {
    Cli.Gave gave = Cli.run("run", file("harvest.plan.yaml"), "--preview", "3");
    assertThat(gave.status()).isZero();
    assertThat(demo.resolve("out/by-region.csv")).doesNotExist();
    assertThat(demo.resolve("out/enriched.csv")).doesNotExist();
  }

  @Test
  void aTraceTellsEachStep() {
    Cli.Gave gave = Cli.run("trace", file("harvest.plan.yaml"), "--where", "ticket_no = '00018'");
    assertThat(gave.status()).isZero();
    assertThat(gave.out())
        .contains("Row 18 as read")
        .contains("drop-leading-zeros: \"401e\"")
        .contains("the only row that fits")
        .contains("unmatched: 1 day below the lowest, 2026-07-01")
        .contains("net_kg =");
    assertThat(Cli.run("trace", file("harvest.plan.yaml"), "--row", "99999").status()).isEqualTo(1);
    assertThat(Cli.run("trace", file("harvest.plan.yaml")).err()).contains("--row N or --where");
    Cli.Gave json = Cli.run("trace", file("harvest.plan.yaml"), "--row", "1", "--json");
    assertThat(json.out()).contains("\"step\" : \"lookup growers\"");
  }

  @Test
  void findShowsRecordsChoicesAndNearMisses() {
    assertThat(Cli.run("find", file("growers.csv"), "grower_no=000001K").out())
        .contains("1 row")
        .contains("Merrow Bank Farm");
    assertThat(
            Cli.run("find", file("grades.csv"), "commodity=wheat", "--key", "commodity,grade")
                .out())
        .contains("grade can still be one of 4 values")
        .contains("\"M1\"");
    assertThat(Cli.run("find", file("grades.csv"), "commodity=weat").out())
        .contains("commodity has no such value; most like it: \"wheat\"");
    assertThat(Cli.run("find", file("sites.csv"), "site_code=KEL", "site_status=closed").out())
        .contains("no row has them together");
    assertThat(Cli.run("find", file("sites.csv")).status()).isEqualTo(2);
    assertThat(Cli.run("find", file("growers.csv")).err())
        .as("growers registered twice leave no unique column")
        .contains("the key of growers.csv is grower_no\n");
    assertThat(Cli.run("find", file("prices.csv"), "commodity=wheat", "grade=F1").out())
        .as("the key is completed with the first column that makes one")
        .contains("4 rows", "effective_from can still be one of 4 values");
    assertThat(Cli.run("find", file("growers.csv"), "grower_no=42v").out())
        .as("what would find it, no step more than needed")
        .contains("no row", "with --normalise ignore-case,drop-leading-zeros it is rows 43, 44");
    assertThat(Cli.run("find", file("growers.csv"), "grower_no=999").out())
        .contains("grower_no has no such value")
        .doesNotContain("--normalise");
    assertThat(Cli.run("find", file("sites.csv"), "site_cod=KEL").err())
        .contains("did you mean \"site_code\"?");
    assertThat(Cli.run("find", file("sites.csv"), "site_code=KEL", "--json").out())
        .contains("\"rows\" : 1");
  }

  @Test
  void findShowsUpToFiveRecordsWholeAndTakesACondition() {
    assertThat(Cli.run("find", file("growers.csv"), "grower_no=000042V").out())
        .containsPattern("row +43 +44\n")
        .containsPattern("district_code +D18 +D07 +differ")
        .containsPattern("name +Brindle Spinney Holding +Brindle Spinney Holding\n");
    String condition = "commodity = 'wheat' and price_per_tonne > 213";
    assertThat(Cli.run("find", file("prices.csv"), "--where", condition).out())
        .contains("prices.csv  " + condition + ": ")
        .contains("price_per_tonne")
        .doesNotContain("the key fits several rows");
    assertThat(Cli.run("find", file("prices.csv"), "--where", "commodity = 'wheat'").out())
        .contains("16 rows", "\n  the first 10 are shown\n");
    assertThat(
            Cli.run("find", file("prices.csv"), "commodity=wheat", "--where", "grade = 'X'").out())
        .contains("no row");
    assertThat(Cli.run("find", file("prices.csv"), "--where", "grad = 'X'").err())
        .contains("no column is called \"grad\"", "did you mean \"grade\"?");
  }

  @Test
  void traceShowsWhatIsComputedFromAndWhereRowsDisagree() {
    assertThat(Cli.run("trace", file("harvest.plan.yaml"), "--row", "18").out())
        .containsPattern("compute net_kg\n +gross_kg +\"\\d+\"\n +tare_kg +\"\\d+\"\n +net_kg = ")
        .containsPattern("price_per_tonne +null\n +payable = +null");
    assertThat(Cli.run("trace", file("harvest.plan.yaml"), "--row", "81").out())
        .containsPattern("they disagree in +deduction_pct");
  }

  @Test
  void bandsShowGapsAndOverlaps() {
    String file = file("moisture-deductions.csv");
    Cli.Gave gave = Cli.run("duplicates", file, "--key", "commodity", "--bands", "from_pct,to_pct");
    assertThat(gave.out())
        .contains("1 overlap, 1 gap, 0 reversed")
        .containsPattern("gap +oats +16.0 +16.5 +9, 10")
        .containsPattern("overlap +canola +9.0 +9.5 +12, 13");
    assertThat(Cli.run("duplicates", file, "--bands", "from_pct", "--json").out())
        .contains("SAME_START");
    assertThat(Cli.run("duplicates", file, "--bands", "a,b").err()).contains("no column \"a\"");
    assertThat(Cli.run("duplicates", file).err()).contains("--key is missing");
  }

  @Test
  void linksAreFollowedAndMustBeManyToOne() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "g\n1\n2\n3\n9\n");
    Files.writeString(demo.resolve("a.csv"), "g,d\n1,x\n2,y\n3,z\n");
    Files.writeString(demo.resolve("b.csv"), "d,n,r\nx,X,p\ny,Y,q\n");
    Files.writeString(demo.resolve("c.csv"), "r,rn\np,P\n");
    String[] lines = {
      "references:",
      "  a: { file: a.csv, key: g, links: { d: b } }",
      "  b: { file: b.csv, key: d, links: { r: c } }",
      "  c: { file: c.csv, key: r }",
      "steps:",
      "  - lookup: a",
      "    bring: [d.n, d.r.rn as region]",
      "outputs: { enriched: o.csv }"
    };
    JsonNode record = run(plan(lines), 0);
    assertThat(demo.resolve("o.csv")).hasContent("g,n,region\n1,X,P\n2,Y,\n3,,\n9,,\n");
    assertThat(record.at("/lookups/1/name").asText()).isEqualTo("a.d");
    assertThat(record.at("/lookups/1/unmatched").asInt()).isEqualTo(1);
    assertThat(record.at("/lookups/1/blank_key").asInt()).isEqualTo(1);
    Files.writeString(demo.resolve("c.csv"), "r,rn\np,P\np,Q\n");
    assertThat(Cli.run("run", plan(lines).toString()).err())
        .contains("c.csv: 1 key stands on several rows", "\"p\"");
    lines[3] = "  c: { file: c.csv, key: r, links: { rn: a } }";
    lines[6] = "    bring: [d.r.rn.d.n]";
    assertThat(Cli.run("check", plan(lines).toString()).out()).contains("go round in a circle");
    lines[6] = "    bring: [g.n]";
    assertThat(Cli.run("check", plan(lines).toString()).out()).contains("has no link for \"g\"");
  }

  @Test
  void eachAggregatesAndOtherwise() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "k\na\nb\nc\n");
    Files.writeString(demo.resolve("r.csv"), "k,v\na,1\na,2.5\nb,7\n");
    Files.writeString(demo.resolve("old.csv"), "k,v\nc,0\n");
    String references = "references: { r: { file: r.csv }, old: { file: old.csv } }";
    String out = "outputs: { enriched: o.csv }";
    run(
        plan(
            references,
            "steps:",
            "  - { lookup: r, key: k, bring: [v], several: each, mark: m,",
            "      otherwise: [{ reference: old, key: k, bring: [v] }] }",
            out),
        0);
    assertThat(demo.resolve("o.csv"))
        .hasContent("k,v,m\na,1,matched\na,2.5,matched\nb,7,matched\nc,0,matched: old\n");
    run(
        plan(
            references,
            "steps:",
            "  - lookup: r",
            "    key: k",
            "    bring: [sum(v) as s, avg(v) as a, max(v) as top, count(*) as n,"
                + " \"listagg(v, '/') as l\"]",
            out),
        0);
    assertThat(demo.resolve("o.csv"))
        .hasContent("k,s,a,top,n,l\na,3.5,1.75,2.5,2,1/2.5\nb,7,7,7,1,7\nc,,,,,\n");
    assertThat(
            Cli.run(
                    "check",
                    plan(
                            references,
                            "steps:",
                            "  - { lookup: r, key: k, bring: [v],",
                            "      otherwise: [{ reference: old, key: k, bring: [v as w] }] }",
                            out)
                        .toString())
                .out())
        .contains("brings \"w\", which the lookup itself does not");
  }

  @Test
  void wrongPlansAreRefusedWithEveryMistake() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "k,x\na,1\n");
    Files.writeString(demo.resolve("r.csv"), "k,v\na,1\n");
    Cli.Gave gave =
        Cli.run(
            "check",
            plan(
                    "measure: y",
                    "references: { r: { file: r.csv } }",
                    "steps:",
                    "  - { lookup: r, key: { ours: x, theirs: v, match: at-or-under }, bring: [v] }",
                    "  - lookup: r",
                    "    name: r2",
                    "    key: { ours: x, theirs: v, match: between }",
                    "    bring: [v as v2]",
                    "  - compute: { z: x + w, q: upper(x) + 1 }",
                    "  - keep: x",
                    "controls: { matched: { rr: 9% }, rows: some, that: [x > 0] }",
                    "outputs: { enriched: o.csv }")
                .toString());
    assertThat(gave.status()).isEqualTo(2);
    assertThat(gave.out())
        .contains("did you mean \"at-or-below\"?")
        .contains("match: between needs two columns")
        .contains("no column is called \"w\"")
        .contains("is text where a number is needed")
        .contains("no lookup is called \"rr\"")
        .contains("expected same, or a number of rows")
        .contains("has no total in it")
        .contains("measure: t.csv has no column \"y\"");
  }

  @Test
  void valuesThatCannotBeOrderedAreCountedAndNamed() throws IOException {
    Files.writeString(demo.resolve("t.csv"), "x\n5\nwet\n99\n-1\n");
    Files.writeString(demo.resolve("r.csv"), "from,to,v\n0,10,low\n10,20,high\n");
    String[] lines = {
      "references: { r: { file: r.csv } }",
      "steps:",
      "  - { lookup: r, key: { ours: x, theirs: [from, to], match: between }, bring: [v], mark: m }",
      "outputs: { enriched: o.csv, exceptions: e.csv }"
    };
    JsonNode record = run(plan(lines), 0);
    assertThat(demo.resolve("o.csv"))
        .hasContent("x,v,m\n5,low,matched\nwet,,blank-key\n99,,unmatched\n-1,,unmatched\n");
    assertThat(record.at("/lookups/0/misses").toString())
        .contains("cannot be compared", "row 2, wet: not a number");
    assertThat(Files.readString(demo.resolve("e.csv")))
        .contains("79 above the highest, 20", "1 below the lowest, 0");
    Files.writeString(demo.resolve("r.csv"), "from,to,v\n0,10,low\n20,10,high\n");
    assertThat(Cli.run("run", plan(lines).toString()).err())
        .contains("row 2: the band runs backwards, from 20 to 10");
    Files.writeString(demo.resolve("r.csv"), "from,to,v\n0,10,low\n10,many,high\n");
    assertThat(Cli.run("run", plan(lines).toString()).err())
        .contains("row 2: \"many\" is not a number");
  }
}
