package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.demo.Planted;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every planted key trouble, and how the tool shows it: the table in docs/key-troubles.md. */
class KeyTroublesTest {
  @TempDir private Path demo;
  private Planted planted;

  @BeforeEach
  void layOut() throws IOException {
    planted = OneDemo.into(demo);
  }

  private JsonNode json(String... args) throws IOException {
    String[] more = java.util.Arrays.copyOf(args, args.length + 1);
    more[args.length] = "--json";
    Cli.Gave gave = Cli.run(more);
    assertThat(gave.status()).as(gave.err()).isZero();
    return new ObjectMapper().readTree(gave.out());
  }

  private String file(String name) {
    return demo.resolve(name).toString();
  }

  private static long matchedBy(JsonNode record, String lookup, String step) {
    for (JsonNode node : record.at("/lookups")) {
      if (node.at("/name").asText().equals(lookup)) {
        for (JsonNode share : node.at("/matched_by")) {
          if (share.at("/step").asText().equals(step)) {
            return share.at("/rows").asLong();
          }
        }
      }
    }
    return -1;
  }

  @Test
  void theRunShowsWhatEachStepWon() throws IOException {
    JsonNode record = json("run", file("harvest.plan.yaml"));
    assertThat(matchedBy(record, "growers", "trim"))
        .isEqualTo(
            planted.count("grower codes with a space before or after")
                + planted.count("grower codes with a no-break space"));
    assertThat(matchedBy(record, "growers", "ignore-case"))
        .isEqualTo(planted.count("grower codes in lower case"));
    assertThat(matchedBy(record, "growers", "drop-leading-zeros"))
        .isEqualTo(planted.count("grower codes without their leading zeros"));
    assertThat(matchedBy(record, "grades", "ignore-case"))
        .isEqualTo(planted.count("commodities with a capital letter"));
    JsonNode growers = record.at("/lookups/0");
    assertThat(growers.at("/unmatched").asLong())
        .isEqualTo(
            planted.count("grower codes with a wrong check letter")
                + planted.count("grower codes that nobody knows"));
    assertThat(matchedBy(record, "growers", "otherwise former_growers"))
        .isEqualTo(planted.count("grower codes of former growers"));
    assertThat(growers.at("/blank_key").asLong())
        .isEqualTo(planted.count("tickets with no grower"));
    assertThat(growers.at("/duplicates_dropped").asLong())
        .isEqualTo(
            planted.count("growers registered twice, rows alike")
                + planted.count("growers registered twice, rows conflicting"));
    JsonNode sites = record.at("/lookups/3");
    assertThat(sites.at("/would_match_filtered_out").asLong())
        .isEqualTo(sites.at("/unmatched").asLong());
    assertThat(
            record.at("/corrections/0/changed").asLong()
                + record.at("/lookups/8/unmatched").asLong())
        .isEqualTo(planted.count("misspelt varieties"));
    assertThat(Files.readString(demo.resolve("out/exceptions.csv")))
        .contains("growers,blank-key,tickets.csv,", "growers,duplicate left out,growers.csv,");
  }

  @Test
  void overlapProposesTheStepsAndNamesTheirGain() throws IOException {
    JsonNode growers =
        json(
            "overlap",
            file("tickets.csv"),
            file("growers.csv"),
            "--key",
            "grower_code=grower_no",
            "--show",
            "500");
    assertThat(growers.at("/best").findValuesAsText("step"))
        .containsExactly("trim", "drop-leading-zeros", "ignore-case");
    assertThat(growers.at("/blank_rows").asLong())
        .isEqualTo(planted.count("tickets with no grower"));
    JsonNode sites = json("overlap", file("tickets.csv"), file("sites.csv"), "--key", "site_code");
    assertThat(sites.at("/best").findValuesAsText("step"))
        .containsExactly("drop-suffix=/W", "ignore-case");
    assertThat(sites.at("/best/0/rows").asLong())
        .isEqualTo(planted.count("site codes with a suffix, such as KEL/W"));
    Cli.Gave shown =
        Cli.run(
            "overlap", file("tickets.csv"), file("growers.csv"), "--key", "grower_code=grower_no");
    assertThat(shown.out())
        .contains("normalise: [trim, drop-leading-zeros, ignore-case]", "look before you use it");
  }

  @Test
  void duplicatesAreFoundToldApartAndWrittenWithout() throws IOException {
    JsonNode report = json("duplicates", file("growers.csv"), "--key", "grower_no");
    assertThat(report.at("/identical_keys").asLong())
        .isEqualTo(planted.count("growers registered twice, rows alike"));
    assertThat(report.at("/duplicate_keys").asLong() - report.at("/identical_keys").asLong())
        .isEqualTo(planted.count("growers registered twice, rows conflicting"));
    String without = file("out/unique.csv");
    Cli.Gave gave =
        Cli.run(
            "duplicates",
            file("growers.csv"),
            "--key",
            "grower_no",
            "--without",
            without,
            "--keep",
            "newest-by=updated_on",
            "--out",
            file("out/dup.csv"));
    assertThat(gave.err()).contains("Read again: 0 keys on several rows", "24 rows to");
    assertThat(gave.out()).contains("district_code: D18 | D07", "alike");
    assertThat(Cli.run("duplicates", without, "--key", "grower_no").out())
        .contains("every key stands on one row");
    assertThat(
            Cli.run("duplicates", file("growers.csv"), "--key", "grower_no", "--without", without)
                .err())
        .contains("--without needs --keep");
    assertThat(Cli.run("duplicates", file("growers.csv"), "--key", "grower_nr").err())
        .contains("did you mean \"grower_no\"?");
    assertThat(
            Cli.run(
                    "duplicates",
                    file("growers.csv"),
                    "--key",
                    "grower_no",
                    "--without",
                    without,
                    "--keep",
                    "frist")
                .err())
        .contains("did you mean \"first\"?");
    assertThat(
            Cli.run(
                    "duplicates",
                    file("growers.csv"),
                    "--key",
                    "grower_no",
                    "--without",
                    file("growers.csv"),
                    "--keep",
                    "first")
                .status())
        .isEqualTo(2);
  }

  @Test
  void overlapGoesOnFromStepsThatAreGiven() {
    String[] command = {
      "overlap", file("tickets.csv"), file("grades.csv"), "--key", "commodity,grade_mark=grade"
    };
    assertThat(Cli.run(command).out())
        .contains("matched as written", "normalise: [ignore-case]", "All rows match");
    List<String> given = new java.util.ArrayList<>(List.of(command));
    given.addAll(List.of("--normalise", "ignore-case"));
    assertThat(Cli.run(given.toArray(String[]::new)).out())
        .contains("matched after the steps given", "no step would win anything", "All rows match")
        .doesNotContain("normalise: [");
    given.set(given.size() - 1, "ignorecase");
    assertThat(Cli.run(given.toArray(String[]::new)).err())
        .contains("ignorecase")
        .contains("did you mean \"ignore-case\"?");
    Cli.Gave near =
        Cli.run("overlap", file("tickets.csv"), file("varieties.csv"), "--key", "variety");
    assertThat(near.out())
        .contains("Harrow Gold 0.89 clear")
        .contains("Miller's Hope 1.00 clear")
        .doesNotContain("weak");
  }

  /** What the analyst would correct by hand: every misspelt variety finds its own. */
  @Test
  void varietiesAreMatchedByTheirWords() throws IOException {
    Path plan = demo.resolve("words.plan.yaml");
    String text =
        """
        able-twine: 1
        transactions: { file: tickets.csv }
        references: { varieties: { file: varieties.csv } }
        steps:
          - lookup: varieties
            key: { ours: variety, theirs: variety, match: similar, %s }
            bring: [variety as right]
        outputs: { enriched: out/w.csv }
        """;
    Files.writeString(plan, text.formatted("by: words, at-least: 0.75"));
    JsonNode words = json("run", plan.toString());
    assertThat(words.at("/lookups/0/matched").asInt()).isEqualTo(3_000);
    assertThat(Files.readAllLines(demo.resolve("out/w.csv")))
        .filteredOn(line -> line.contains(",Grayling,"))
        .isNotEmpty()
        .allMatch(line -> line.endsWith(",Greyling"));
    Files.writeString(plan, text.formatted("by: sound"));
    assertThat(Cli.run("check", plan.toString()).out()).contains("expected one of letters, words");
  }

  @Test
  void traceTellsNearMissesAndWhichPartIsMissing() throws IOException {
    assertThat(Cli.run("trace", file("harvest.plan.yaml"), "--where", "variety = 'Grayling'").out())
        .contains("near misses     \"Greyling\" 0.78 clear");
    Path plan = demo.resolve("grades.plan.yaml");
    Files.writeString(
        plan,
        """
        able-twine: 1
        transactions: { file: tickets.csv }
        references: { grades: { file: grades.csv, where: "not (commodity = 'oats' and grade = 'F2')" } }
        steps: [ { lookup: grades, key: [commodity, grade_mark = grade], bring: [grade_name] } ]
        outputs: { enriched: out/g.csv }
        """);
    assertThat(Cli.run("trace", plan.toString(), "--where", "commodity = 'Wheat'").out())
        .contains("parts                   commodity not, grade_mark known")
        .contains("\"wheat | F2\" 1.00 clear");
    assertThat(
            Cli.run("trace", plan.toString(), "--where", "commodity = 'oats' and grade_mark = 'F2'")
                .out())
        .contains("each part is known, but no row of grades.csv has them together");
  }

  @Test
  void profileShowsSpacesAndMixedForms() throws IOException {
    JsonNode profile = json("profile", file("tickets.csv"));
    JsonNode code = profile.at("/tables/0/columns/3");
    assertThat(code.at("/nulls").asLong()).isEqualTo(planted.count("tickets with no grower"));
    assertThat(code.at("/stray_spaces").asLong())
        .isEqualTo(
            planted.count("grower codes with a space before or after")
                + planted.count("grower codes with a no-break space"));
    assertThat(Cli.run("profile", file("tickets.csv")).out())
        .contains("could be a key: ticket_no", "only in leading zeros");
  }

  @Test
  void anAcceptedCorrectionMatchesOnTheNextRunAndIsKept() throws IOException {
    Cli.run("run", file("harvest.plan.yaml"));
    Path draft = demo.resolve("out/corrections-draft.csv");
    String proposed = Files.readString(draft);
    assertThat(proposed).startsWith("column,written,meant,likeness,judged,rows,measure,accept\n");
    String line =
        proposed
            .lines()
            .filter(l -> l.startsWith("grower_code,") && l.contains("Z,"))
            .findFirst()
            .orElseThrow();
    Files.writeString(draft, proposed.replace(line, line + "yes"));
    Path plan = demo.resolve("second.plan.yaml");
    Files.writeString(
        plan,
        Files.readString(demo.resolve("harvest.plan.yaml"))
            .replace(
                "  misspelt:",
                "  drafts: { file: out/corrections-draft.csv, where: \"accept = 'yes' and column = 'grower_code'\" }\n  misspelt:")
            .replace(
                "  - lookup: growers\n",
                "  - { correct: grower_code, using: drafts }\n  - lookup: growers\n"));
    JsonNode second = json("run", plan.toString());
    long rows = Long.parseLong(line.split(",")[5]);
    assertThat(second.at("/corrections/1/changed").asLong()).isEqualTo(rows);
    assertThat(second.at("/lookups/0/unmatched").asLong())
        .isEqualTo(
            json("run", file("harvest.plan.yaml")).at("/lookups/0/unmatched").asLong() - rows);
    assertThat(Files.readString(draft)).contains(line + "yes");
  }

  @Test
  void wrongRulesAreRefusedByCheckAndRunAlike() throws IOException {
    Path plan = demo.resolve("wrong.plan.yaml");
    Files.writeString(
        plan,
        """
        able-twine: 1
        transactions: { file: tickets.csv }
        references:
          growers: { file: growers.csv, key: grower_no, duplicates: { newest-by: updated }, where: "name" }
          misspelt: { file: variety-corrections.csv }
        steps:
          - { correct: variety, using: misspelt, written: wrote }
          - lookup: growers
            key: grower_code = grower_no
            normalise: [trimm, { pad-zeros: six }, { replace: { pattern: "(", with: x } }]
        outputs: { enriched: out/e.csv }
        """);
    Cli.Gave check = Cli.run("check", plan.toString());
    assertThat(check.out())
        .contains(
            "no column \"updated\"",
            "`name` (at character 1) is not a condition; compare it with something",
            "no column \"wrote\"",
            "did you mean \"trim\"?",
            "takes a whole number",
            "does not compile");
    Cli.Gave run = Cli.run("run", plan.toString());
    assertThat(run.status()).isEqualTo(2);
    assertThat(run.err()).contains("no column \"updated\"", "does not compile");
  }
}
