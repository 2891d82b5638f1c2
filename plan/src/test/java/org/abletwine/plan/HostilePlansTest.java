package org.abletwine.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.abletwine.step.Progress;
import org.abletwine.table.AbleTwineException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Plans made to do harm, or by a slip of the hand: each ends soon, with a message. */
@Timeout(20)
class HostilePlansTest {
  private static final String HEAD =
      "able-twine: 1\ntransactions: { file: t.csv }\nreferences: { r: { file: r.csv, key: code } }\n";
  private static final String LOOK = "steps: [ { lookup: r, bring: [name] } ]\n";

  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(folder.resolve("t.csv"), "code,n,text\na,1,x\nb,2,y\n");
    Files.writeString(folder.resolve("r.csv"), "code,name\na,Ann\n");
  }

  private Path plan(String text) throws IOException {
    return Files.writeString(folder.resolve("p.plan.yaml"), text);
  }

  private static Arguments step(String step, String message) {
    return Arguments.of(HEAD + "steps:\n" + step + "\noutputs: { enriched: o.csv }\n", message);
  }

  private static Arguments compute(String expression, String message) {
    return step("  - compute: { x: " + expression + " }", message);
  }

  static Stream<Arguments> mistakes() {
    String deep = "[".repeat(3_000) + "]".repeat(3_000);
    StringBuilder bomb = new StringBuilder("a0: &a0 [x,x,x,x,x,x,x,x,x,x]\n");
    for (int i = 1; i < 9; i++) {
      bomb.append("a" + i + ": &a" + i + " [" + ("*a" + (i - 1) + ",").repeat(9) + "x]\n");
    }
    return Stream.of(
        Arguments.of("able-twine: 1\ntitle: " + deep + "\n", "50 settings stand one within"),
        Arguments.of(
            "{a: ".repeat(3_000) + "1" + "}".repeat(3_000), "50 settings stand one within"),
        Arguments.of("title: " + "x".repeat(20_000_000) + "\n", "more than 1048576"),
        Arguments.of(bomb.toString(), "aliases"),
        Arguments.of("steps: &s [ *s ]\n", "an alias leads round in a circle"),
        Arguments.of(
            HEAD + "steps:\n  - &l { lookup: r, bring: [name], otherwise: [ *l ] }\n",
            "an alias leads round in a circle"),
        Arguments.of("able-twine: 1\ntitle: !run rm\n", "a plan has no tags"),
        Arguments.of("able-twine: 1\ntitle: !!java.io.File [x]\n", "a plan has no tags"),
        Arguments.of("able-twine: 1\n? [a, b]\n: c\n", "Non scalar key"),
        Arguments.of(HEAD + "steps: []\n", "steps: the list is empty"),
        Arguments.of(HEAD.replace("t.csv", "\"t\\0.csv\"") + LOOK, "cannot be the name of a file"),
        Arguments.of(
            HEAD + LOOK + "outputs: { enriched: \"o\\0.csv\" }\n", "cannot be the name of"),
        Arguments.of(HEAD + LOOK + "outputs: { enriched: o.xls }\n", "no table is written to"),
        Arguments.of(
            HEAD + LOOK + "outputs: { enriched: p.plan.yaml }\n", "no table is written to"),
        Arguments.of(HEAD + LOOK + "outputs: { enriched: t.csv }\n", "is also an input"),
        Arguments.of(HEAD + LOOK, "the plan writes nothing"),
        compute("\"'a\"", "a single quote is not closed"),
        compute("'a \\ 1'", "goes wrong at character 3"),
        compute("''", "there is nothing in it"),
        compute("\"n +\\u2028 1\"", "U+2028 is no space"),
        compute("n + interval '9999999999' day", "up to seven digits"),
        compute("cast(n as decimal(99999999))", "beyond 1000"),
        compute("1e999999999", "exponent of up to 1000"),
        compute("n / 1e-999999", "exponent of up to 1000"),
        compute("(".repeat(3_000) + "n" + ")".repeat(3_000), "100 brackets"),
        compute("n" + " + n".repeat(3_000), "200 operations"),
        compute("not ".repeat(2_000) + "n = 1", "200 operations"),
        step("  - keep: \"text like '%' escape '\"", "a single quote is not closed"),
        step(
            "  - { lookup: r, bring: [name], normalise: [ { replace: { pattern: a, with: $9 } } ] }",
            "the pattern has no groups"),
        step(
            "  - { lookup: r, bring: [name], normalise: [ { replace: { pattern: \""
                + "(a)".repeat(20_000)
                + "\", with: x } } ] }",
            "more than 10000"),
        step(
            "  - { lookup: r, bring: [name], key: { ours: n, theirs: code, match: nearest, within:"
                + " 1e999999999 } }",
            "expected a number"));
  }

  @ParameterizedTest
  @MethodSource("mistakes")
  void aMistakeLikeAnyOther(String text, String message) throws IOException {
    List<String> mistakes = PlanFile.check(plan(text));
    assertThat(mistakes).anyMatch(mistake -> mistake.contains(message));
    assertThat(mistakes).allMatch(mistake -> mistake.startsWith("p.plan.yaml"));
    Path plan = folder.resolve("p.plan.yaml");
    assertThatThrownBy(() -> PlanFile.load(plan).run(Progress.NONE))
        .isInstanceOf(SettingException.class);
    assertThat(folder.resolve("o.csv")).doesNotExist();
  }

  /** One slip does not hide the others. */
  @Test
  void everySlipOfAnExpressionIsToldBesideTheOthers() throws IOException {
    List<String> mistakes =
        PlanFile.check(
            plan(
                HEAD
                    + "steps:\n  - compute: { x: \"n + '\", y: nn * 2, z: 1e99999 }\n"
                    + "  - { lookup: r, bring: [nmae] }\n"));
    assertThat(mistakes).hasSize(4);
    assertThat(mistakes.get(0)).contains("line 5, column 19", "not closed");
    assertThat(mistakes.get(1)).contains("line 5, column 31", "did you mean \"n\"?");
    assertThat(mistakes.get(2)).contains("line 5, column 42", "exponent");
    assertThat(mistakes.get(3)).contains("did you mean \"name\"?");
  }

  static Stream<Arguments> growths() {
    String doubled = "  - compute: { x0: text }\n";
    StringBuilder texts = new StringBuilder(doubled);
    StringBuilder squares = new StringBuilder("  - compute: { z0: n * 12345678901 }\n");
    for (int i = 1; i <= 40; i++) {
      texts.append("  - compute: { x" + i + ": x" + (i - 1) + " || x" + (i - 1) + " }\n");
      squares.append("  - compute: { z" + i + ": z" + (i - 1) + " * z" + (i - 1) + " }\n");
    }
    return Stream.of(
        step(texts.toString(), "more than 100000"),
        step(squares.toString(), "more than 1000 digits"),
        step(
            "  - compute: { x: \"replace(text || text, 'x', '"
                + "y".repeat(9_000)
                + "')\" }\n"
                + "  - compute: { w: \"replace(x, 'y', 'yyyyyyyyyyyy')\" }\n",
            "more than 100000"));
  }

  /** What grows row by row ends the run with an error of the data, not with the memory. */
  @ParameterizedTest
  @MethodSource("growths")
  void whatGrowsIsBounded(String text, String message) throws IOException {
    Path plan = plan(text);
    assertThat(PlanFile.check(plan)).isEmpty();
    assertThatThrownBy(() -> PlanFile.load(plan).run(Progress.NONE))
        .isInstanceOf(AbleTwineException.class)
        .hasMessageContaining(message);
  }

  @Test
  void outputsThatMeetThroughALinkAreRefused() throws IOException {
    Path real = Files.createDirectories(folder.resolve("real"));
    Files.createSymbolicLink(folder.resolve("link"), real);
    List<String> twice =
        PlanFile.check(
            plan(HEAD + LOOK + "outputs: { enriched: real/o.csv, exceptions: link/o.csv }\n"));
    assertThat(twice).singleElement().asString().contains("link/o.csv is written twice");
    Files.move(folder.resolve("t.csv"), real.resolve("t.csv"));
    List<String> input =
        PlanFile.check(
            plan(
                HEAD.replace("t.csv", "real/t.csv")
                    + LOOK
                    + "outputs: { enriched: link/../link/t.csv }\n"));
    assertThat(input).singleElement().asString().contains("is also an input");
  }

  @Test
  void aFolderForOutputsIsMade() throws IOException {
    Path plan = plan(HEAD + LOOK + "outputs: { enriched: new/deep/o.csv, record: new/r.json }\n");
    assertThat(PlanFile.check(plan)).isEmpty();
    PlanFile.load(plan).run(Progress.NONE);
    assertThat(folder.resolve("new/deep/o.csv"))
        .hasContent("code,n,text,name\na,1,x,Ann\nb,2,y,\n");
  }
}
