package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.step.Progress;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A plan in sentences: each setting that changes what comes out is in one of them. */
class PlanWordsTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(
        folder.resolve("t.csv"), "no,code,kg,remark\nT1,A,5,wet\nT2,B,,dry\nT3,,2,\n");
    Files.writeString(folder.resolve("r.csv"), "code,name,from_kg,to_kg,tags\nA,Ash,0,5,\"a,b\"\n");
  }

  private List<PlanSentence> words(String reference, String... steps) {
    String text =
        "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { r: { file: r.csv"
            + reference
            + " } }\nsteps:\n  - "
            + String.join("\n  - ", steps)
            + "\noutputs: { enriched: o.csv }\n";
    PlannedRun run = PlanFile.of(folder.resolve("p.plan.yaml"), text);
    return run.words(null);
  }

  private String lookup(String reference, String settings) {
    return words(reference, "{ lookup: r, " + settings + " }").get(1).text();
  }

  @Test
  void everyWayOfMatchingHasItsWords() {
    assertThat(lookup("", "key: code, bring: name"))
        .isEqualTo(
            "The row of r.csv is found with our code; spaces around it do not matter. Fetched from"
                + " it: name.");
    String rule = "key: { ours: kg, theirs: from_kg, match: %s }, bring: name";
    assertThat(lookup("", String.format(rule, "at-or-below, within: 3")))
        .contains("with the greatest from_kg not above our kg, at most 3 away");
    assertThat(lookup("", String.format(rule, "at-or-above")))
        .contains("with the least from_kg not below our kg");
    assertThat(lookup("", String.format(rule, "nearest")))
        .contains("with the from_kg nearest to our kg");
    String band =
        "key: { ours: kg, theirs: [from_kg, to_kg], match: between, ends: %s }, bring: name";
    assertThat(lookup("", String.format(band, "lower")))
        .contains("whose from_kg to to_kg holds our kg (lower end in, upper end out)");
    assertThat(lookup("", String.format(band, "both"))).contains("(lower end in, upper end in)");
    String text = "key: { ours: remark, theirs: name, match: %s }, bring: code as c";
    assertThat(lookup("", String.format(text, "contains")))
        .contains("whose name our remark contains");
    assertThat(lookup("", String.format(text, "starts-with")))
        .contains("whose name our remark starts with");
    assertThat(lookup("", String.format(text, "wildcard")))
        .contains("our remark fits (* stands for anything)");
    assertThat(lookup("", String.format(text, "regex"))).contains("fits as a regular expression");
    assertThat(lookup("", String.format(text, "similar, at-least: 0.8")))
        .contains("with the name most similar to our remark (at least 0.8)");
    assertThat(lookup("", "key: { ours: remark, theirs: tags, match: listed }, bring: name"))
        .contains("whose list in tags has our remark in it");
  }

  @Test
  void normaliseStepsAreToldAsWhatDoesNotMatter() {
    assertThat(
            lookup(
                "",
                "key: code, normalise: [trim, ignore-case, drop-leading-zeros, drop-suffix: /W],"
                    + " bring: name"))
        .contains("; spaces around it, case, leading zeros and \"/W\" at its end do not matter");
    assertThat(lookup("", "key: code, normalise: [ignore-case], bring: name"))
        .contains("; case does not matter");
    assertThat(lookup("", "key: code, normalise: none, bring: name"))
        .contains("exactly as written");
    assertThat(lookup("", "key: code, normalise: [first: 3, as-number], bring: name"))
        .contains("; compared by its first 3 characters and as a number");
  }

  @Test
  void whatElseALookupDoesIsTold() {
    assertThat(
            lookup(
                ", duplicates: { newest-by: to_kg }, unreadable: leave-out, where: \"to_kg > 1\"",
                "key: code, bring: name, when: \"kg > 1\", several: first, mark: m,"
                    + " unmatched: drop, blank-key: expected, ambiguous: fail,"
                    + " empty: { fill: { name: none } }"))
        .contains("For rows of which kg > 1 is true, the row of r.csv")
        .contains("; only rows with to_kg > 1 count")
        .contains("; rows are left out of which a cell that puts them in order cannot be read")
        .contains("; of rows with one key the one with the greatest to_kg counts")
        .contains("Where a key fits several rows, the first is taken.")
        .contains("Where none is found, the row is left out.")
        .contains("Where the key is blank, that is expected and needs nobody.")
        .contains("Where several are found that disagree, the run ends.")
        .contains("Where the reference has a null, name becomes \"none\".")
        .contains("What became of each row is noted in m.");
  }

  @Test
  void otherStepsAreTold() {
    List<PlanSentence> words =
        words(
            "",
            "{ lookup: r, key: code, bring: name }",
            "{ coalesce: label, from: [name, code], fill: none, source: s }",
            "compute: { twice: kg * 2 }",
            "{ keep: \"kg > 1\", left-out: left.csv }");
    assertThat(words.subList(2, 5))
        .extracting(PlanSentence::text)
        .containsExactly(
            "The first of name and code that is not null, else \"none\"; s says which.",
            "Computed as kg * 2.",
            "Only rows of which kg > 1 is true stay; the others are written to left.csv.");
  }

  @Test
  void afterARunEachSentenceHasItsFigures() {
    String text =
        "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { r: { file: r.csv } }\n"
            + "steps: [{ lookup: r, key: code, bring: name }, { compute: { twice: kg * 2 } },"
            + " { keep: \"kg > 2\" }]\n"
            + "controls: { matched: { r: 90% } }\noutputs: { enriched: o.csv }\n";
    PlannedRun run = PlanFile.of(folder.resolve("p.plan.yaml"), text);
    List<PlanSentence> words = run.words(run.count(Progress.NONE));
    assertThat(words)
        .extracting(PlanSentence::figures)
        .containsExactly(
            "3 rows in, 1 row out.",
            "Of 3 rows 1 (33.3 %) matched, 1 (33.3 %) did not and 1 (33.3 %) had no key.",
            "Null in 1 (33.3 %) rows, because of kg: empty (1).",
            "2 (66.7 %) rows were left out, 1 of them because something in it is null.",
            "The control does not hold.");
  }
}
