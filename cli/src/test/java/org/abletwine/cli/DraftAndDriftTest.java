package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Drafting a plan, telling it in words, reporting and comparing runs, on the demo data. */
class DraftAndDriftTest {
  private static final List<String> REFERENCES =
      List.of(
          "growers.csv",
          "former_growers.csv",
          "districts.csv",
          "regions.csv",
          "sites.csv",
          "grades.csv",
          "prices.csv",
          "moisture-deductions.csv",
          "containers.csv",
          "varieties.csv",
          "variety-corrections.csv",
          "remark-patterns.csv");

  @TempDir private Path demo;

  @BeforeEach
  void layOut() throws IOException {
    OneDemo.into(demo);
  }

  private String file(String name) {
    return demo.resolve(name).toString();
  }

  private static Cli.Gave ran(int status, String... args) {
    Cli.Gave gave = Cli.run(args);
    assertThat(gave.status()).as(gave.err() + gave.out()).isEqualTo(status);
    return gave;
  }

  private String[] draft(String... more) {
    List<String> args = new ArrayList<>(List.of("draft", file("tickets.csv")));
    REFERENCES.forEach(reference -> args.add(file(reference)));
    args.addAll(List.of(more));
    return args.toArray(String[]::new);
  }

  @Test
  void theDraftHasTheLookupsOfTheDemosPlanButForWhatOnlyAnAnalystKnows() throws IOException {
    Cli.Gave gave = ran(0, draft("--out", file("drafted.plan.yaml")));
    assertThat(gave.out()).contains("(10 lookups for 3,000 rows)");
    String text = Files.readString(demo.resolve("drafted.plan.yaml"));
    assertThat(text)
        .contains("- correct: variety", "using: variety_corrections", "where: \"accept = 'yes'\"")
        .contains("key: grower_code = grower_no", "duplicates: { newest-by: updated_on }")
        .contains("{ reference: former_growers, key: grower_code = grower_no")
        .contains("key: district_code", "key: region_code", "key: variety", "key: pack")
        .contains("normalise: [trim, drop-suffix: \"/W\", ignore-case]")
        .contains("key: [commodity, grade_mark = grade]")
        .contains("{ ours: delivered_on, theirs: effective_from, match: at-or-below }")
        .contains("{ ours: moisture_pct, theirs: [from_pct, to_pct], match: between }")
        .contains("key: { ours: remark, theirs: pattern, match: wildcard }")
        .contains("Of 3,000 rows 2,899 (96.6 %) match, 58 (1.9 %) do not, 43 (1.4 %) have no key.")
        .contains("whatever site_status says (open, closed)");
    ran(0, "check", file("drafted.plan.yaml"));
    ran(0, "run", file("drafted.plan.yaml"));
    assertThat(demo.resolve("out/report.html")).exists();
    assertThat(ran(1, draft("--out", file("drafted.plan.yaml"))).err())
        .contains("is there already; name a new file");
  }

  @Test
  void sheetsOfAWorkbookAreReferencesToo() throws IOException {
    String text =
        ran(
                0,
                "draft",
                file("tickets.csv"),
                file("masters.xlsx") + ":Growers",
                file("masters.xlsx") + ":Districts")
            .out();
    assertThat(text)
        .contains(", sheet: Growers, duplicates: { newest-by: updated_on } }")
        .contains("- lookup: Districts", "key: district_code");
    assertThat(ran(2, "draft", file("tickets.csv"), file("masters.xlsx")).err())
        .contains("has several sheets");
    assertThat(ran(1, "draft", "-", file("growers.csv")).err()).contains("save it as a file");
  }

  @Test
  void theDraftIsPrintedUnlessItIsSaved() {
    assertThat(ran(0, draft()).out()).startsWith("able-twine: 1\ntitle: tickets\n");
    assertThat(ran(1, "draft", file("regions.csv"), file("containers.csv")).err())
        .contains("no reference joins");
    assertThat(ran(2, "draft", file("tickets.csv")).err()).contains("REFERENCE");
  }

  /** The demo's table made by hand has twenty slips: all are named, and nothing else. */
  @Test
  void everySlipOfATableMadeByHandIsNamedAndNoOther() throws IOException {
    Cli.Gave gave =
        ran(
            0,
            draft(
                "--like",
                file("tickets-by-hand.csv"),
                "--out",
                file("like.plan.yaml"),
                "--differences",
                file("out/differences.csv")));
    assertThat(gave.out())
        .contains("11 of 11 columns traced; of 6,600 cells 20 differ, and 8 more follow from these")
        .contains("2,400 transactions are not in it");
    List<String> slips =
        Files.readAllLines(demo.resolve("out/differences.csv")).stream()
            .filter(line -> line.endsWith(",no"))
            .toList();
    assertThat(slips).hasSize(20);
    assertThat(slips).filteredOn(slip -> slip.contains("a stale value, of 2026-")).hasSize(5);
    assertThat(slips).filteredOn(slip -> slip.contains("a band edge: ")).hasSize(3);
    assertThat(slips).filteredOn(slip -> slip.contains("a dropped zero")).hasSize(4);
    assertThat(slips).filteredOn(slip -> slip.contains("the first of several rows")).hasSize(3);
    assertThat(slips).filteredOn(slip -> slip.contains("left blank")).hasSize(2);
    assertThat(slips).filteredOn(slip -> slip.contains("typed over")).hasSize(3);
    assertThat(Files.readString(demo.resolve("like.plan.yaml")))
        .contains("- compute: { net_kg: gross_kg - tare_kg }")
        .contains("round(net_kg * price_per_tonne * (1 - deduction_pct / 100) / 1000, 2)")
        .contains("fill: Unlisted")
        .contains("price_per_tonne: price");
    ran(0, "check", file("like.plan.yaml"));
    ran(0, "run", file("like.plan.yaml"));
    assertThat(Files.readAllLines(demo.resolve("out/enriched.csv")).get(0))
        .isEqualTo(Files.readAllLines(demo.resolve("tickets-by-hand.csv")).get(0));
  }

  @Test
  void aPlanIsToldInWords() throws IOException {
    String words = ran(0, "check", file("harvest.plan.yaml"), "--words").out();
    assertThat(words)
        .contains("Each row of tickets.csv comes out once, in its order")
        .contains("The row of growers.csv is found whose grower_no is our grower_code; spaces")
        .contains("with the greatest effective_from not above our delivered_on")
        .contains("(lower end in, upper end out)")
        .contains("Computed as gross_kg - tare_kg.")
        .contains("100 % of the rows match in grades");
    JsonNode json =
        new ObjectMapper()
            .readTree(ran(0, "check", file("harvest.plan.yaml"), "--words", "--json").out());
    assertThat(json.get("words")).hasSizeGreaterThan(20);
    Files.writeString(demo.resolve("wrong.plan.yaml"), "able-twine: 1\n");
    assertThat(ran(2, "check", file("wrong.plan.yaml"), "--words").out()).contains("line 1");
  }

  @Test
  void theReportOfTheDemoIsOnePageOfAtMostAMegabyteAndAHalf() throws IOException {
    assertThat(ran(0, "run", file("harvest.plan.yaml")).out()).contains("(the report)");
    Path page = demo.resolve("out/report.html");
    assertThat(Files.size(page)).isBetween(200_000L, 1_500_000L);
    assertThat(Files.readString(page))
        .contains("All 10 controls hold")
        .contains("What is at stake is measured by gross_kg")
        .contains("Of 3,000 rows 2,899 (96.6 %) matched, 58 (1.9 %) did not and 43 (1.4 %) had");
    ran(0, "run", file("harvest.plan.yaml"), "--report", file("out/other.html"));
    assertThat(demo.resolve("out/other.html")).exists();
    for (String input : List.of("tickets.csv", "growers.csv", "harvest.plan.yaml")) {
      assertThat(ran(2, "run", file("harvest.plan.yaml"), "--report", file(input)).err())
          .contains("is also an input");
    }
    assertThat(ran(2, "run", file("harvest.plan.yaml"), "--report", file("out/run.json")).err())
        .contains("is written twice");
  }

  @Test
  void twoMonthsAreCompared() throws IOException {
    ran(0, "run", file("month-end.plan.yaml"));
    String august =
        ran(
                0,
                "run",
                file("month-end.plan.yaml"),
                "--set",
                "month=2026-08",
                "--since",
                file("out/intake-2026-07.json"))
            .out();
    assertThat(august)
        .contains("Since the run of", "parameter month: 2026-07 before, 2026-08 now")
        .contains("the same, byte for byte: growers, districts, retests", "the plan is the same");
    String old = file("out/intake-2026-07.json");
    String now = file("out/intake-2026-08.json");
    Cli.Gave drift = ran(0, "drift", old, now);
    assertThat(drift.out()).contains("new unmatched keys").contains("+48.6 %");
    Cli.Gave beyond = ran(3, "drift", old, now, "--allow", "rows=40", "--allow", "nulls.value=1");
    assertThat(beyond.out())
        .contains("1 change is beyond what is allowed")
        .contains("allowed rows=40");
    ran(0, "drift", old, now, "--allow", "rows=50%");
    JsonNode json =
        new ObjectMapper().readTree(ran(3, "drift", old, now, "--json", "--allow", "rows=1").out());
    assertThat(json.get("holds").asBoolean()).isFalse();
    assertThat(json.get("changes").get(0).get("beyond").asText()).isEqualTo("rows=1");
    assertThat(ran(2, "drift", old, now, "--allow", "row=1").err())
        .contains("did you mean \"rows\"?");
    assertThat(ran(1, "drift", old, file("tickets.csv")).err()).contains("line 1");
    assertThat(ran(1, "drift", old, file("none.json")).err()).contains("there is no file");
  }
}
