package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Wrong words, files and values: the exit status, and what a person is told to do instead. */
class BadUsageTest {
  private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|(\\S+)");

  @TempDir private static Path demo;

  @BeforeAll
  static void layOut() throws IOException {
    OneDemo.into(demo);
  }

  private static Arguments gives(int status, String command, String... messages) {
    return Arguments.of(command, status, List.of(messages));
  }

  static Stream<Arguments> commands() {
    return Stream.of(
        gives(
            2,
            "enrich tickets.csv",
            "Missing required options: '--from=REFERENCE', '--key=OURS=THEIRS', '--bring=A,B'"),
        gives(
            1,
            "enrich nope.csv --from growers.csv --key grower_code=grower_no --bring name --out o.csv",
            "there is no file nope.csv; check the name and the folder"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower --bring name --out o.csv",
            "lookup growers.csv, key: growers.csv has no column \"grower\"; did you mean \"grower_no\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring nam --out o.csv",
            "lookup growers.csv, bring: growers.csv has no column \"nam\"; did you mean \"name\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --several frist --out o.csv",
            "several: no rule is called \"frist\"; did you mean \"first\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --unmatched drp --out o.csv",
            "--unmatched: no rule is called \"drp\"; did you mean \"drop\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --fill nam=x --out o.csv",
            "lookup growers.csv, unmatched: fill names \"nam\", which the lookup does not bring; did you mean \"name\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --fill name --out o.csv",
            "Value for option '--fill' (ATTRIBUTE=VALUE) should be in KEY=VALUE format but was name"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --normalise trimm --out o.csv",
            "normalise: no step is called \"trimm\"; did you mean \"trim\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --out tickets.csv",
            "--out: tickets.csv is also an input; source tables are never changed, so write elsewhere"),
        gives(
            1,
            "enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name --unmatched fail --out o.csv",
            "row 22 is unmatched in lookup growers.csv (grower_code \"000082Z\"), and the plan says unmatched: fail. Correct the row or growers.csv, or use leave, drop or fill"),
        gives(
            2,
            "enrich tickets.csv --frm growers.csv",
            "no option is called --frm; did you mean \"--from\"?"),
        gives(2, "run", "Missing required parameter: 'PLAN'"),
        gives(1, "run nope.plan.yaml", "there is no plan file nope.plan.yaml; check the name"),
        gives(
            2,
            "run growers.csv",
            "growers.csv line 1, column 1: expected settings, each as name: value",
            "growers.csv line 1, column 1: the first line states the plan's version: able-twine: 1",
            "growers.csv line 1, column 1: no transactions; state transactions: { file: NAME.csv }",
            "growers.csv line 1, column 1: no steps; state at least one, such as - lookup: REFERENCE"),
        gives(2, "run harvest.plan.yaml --preview 0", "--preview takes a number from 1 on"),
        gives(
            2,
            "run harvest.plan.yaml --preview x",
            "Invalid value for option '--preview': 'x' is not a whole number"),
        gives(1, "check nope.plan.yaml", "there is no plan file nope.plan.yaml; check the name"),
        gives(
            2, "trace harvest.plan.yaml", "state which transaction: --row N or --where CONDITION"),
        gives(2, "trace harvest.plan.yaml --row 0", "--row: rows are counted from 1"),
        gives(
            2,
            "trace harvest.plan.yaml --row 1 --where x",
            "state which transaction: --row N or --where CONDITION"),
        gives(
            2,
            "trace harvest.plan.yaml --where ticket",
            "where, of tickets.csv: no column is called \"ticket\" (at character 1); did you mean \"ticket_no\"?"),
        gives(
            2,
            "trace harvest.plan.yaml --where \"tickt_no = '1'\"",
            "where, of tickets.csv: no column is called \"tickt_no\" (at character 1); did you mean \"ticket_no\"?"),
        gives(
            1,
            "trace harvest.plan.yaml --where \"ticket_no = 'none'\"",
            "no transaction meets ticket_no = 'none'; check the values, text in single quotes"),
        gives(
            2,
            "find growers.csv",
            "state at least one COLUMN=VALUE; the key of growers.csv is grower_no"),
        gives(
            2,
            "find growers.csv grower=1",
            "growers.csv has no column \"grower\"; did you mean \"grower_no\"?"),
        gives(
            2,
            "find growers.csv grower_no",
            "\"grower_no\" is one word too many; write it with its value: grower_no=VALUE"),
        gives(1, "find nope.csv a=b", "there is no file nope.csv; check the name and the folder"),
        gives(
            2,
            "find growers.csv grower_no=1 --normalise trimm",
            "normalise: no step is called \"trimm\"; did you mean \"trim\"?"),
        gives(
            2,
            "enrich tickets.csv --from growers.csv --key \"grower_code ~ grower_no\" --bring name",
            "lookup growers.csv, key: growers.csv has no column \"grower_code ~ grower_no\"; did you mean \"grower_no\"?"),
        gives(
            2,
            "overlap tickets.csv growers.csv --key grower_code=grower_no,site_code",
            "--key: growers.csv has no column \"site_code\"; did you mean \"district_code\"?"),
        gives(
            2,
            "profile tickets.csv --delimiter ab",
            "--delimiter: expected comma, semicolon, tab, pipe or one ASCII character, found \"ab\"; the names are comma, semicolon, tab, pipe"),
        gives(
            2,
            "profile tickets.csv --encoding latin-99",
            "encoding: no encoding is called \"latin-99\"; the names are utf-8, utf-16, utf-16le, utf-16be, windows-1252, iso-8859-1, us-ascii"),
        gives(
            2,
            "find growers.csv grower_no=x --key grower",
            "--key: growers.csv has no column \"grower\"; did you mean \"grower_no\"?"),
        gives(
            2,
            "duplicates growers.csv",
            "--key is missing: name the key columns, or --bands FROM,TO"),
        gives(
            2,
            "duplicates growers.csv --key grower",
            "--key: growers.csv has no column \"grower\"; did you mean \"grower_no\"?"),
        gives(
            2,
            "duplicates growers.csv --key grower_no --without x.csv",
            "--without needs --keep: say which row stays"),
        gives(
            2,
            "duplicates growers.csv --key grower_no --keep newest --without x.csv",
            "--keep: no rule is called \"newest\"; did you mean \"newest-by=COLUMN\"?"),
        gives(
            2,
            "duplicates growers.csv --key grower_no --keep newest-by=updated --without x.csv",
            "--keep: growers.csv has no column \"updated\"; did you mean \"updated_on\"?"),
        gives(
            2,
            "duplicates growers.csv --key grower_no --out growers.csv",
            "growers.csv is also an input; source tables are never changed, so write elsewhere"),
        gives(
            1,
            "duplicates growers.csv --key grower_no --keep identical --without x.csv",
            "growers.csv: 5 keys stand on several rows that differ, and its rule is duplicates: identical: \"000042V\" on rows 43, 44; \"000126L\" on rows 129, 130; \"000210B\" on rows 216, 217; \"000294O\" on rows 302, 303; \"000378E\" on rows 389, 390. Correct the table, or choose first, last, newest-by or fullest"),
        gives(
            2,
            "duplicates moisture-deductions.csv --bands a,b,c",
            "--bands: moisture-deductions.csv has no column \"a\"; the names are commodity, from_pct, to_pct, deduction_pct"),
        gives(
            2,
            "duplicates moisture-deductions.csv --bands from_pct,to_pct --key comodity",
            "--key: moisture-deductions.csv has no column \"comodity\"; did you mean \"commodity\"?"),
        gives(
            2,
            "duplicates moisture-deductions.csv --bands from_pct,to_pct --out x.csv",
            "--bands shows what is wrong and writes nothing: leave out --out, --without and --keep"),
        gives(2, "profile", "Missing required parameter: 'TABLE'"),
        gives(1, "profile nope.csv", "there is no file nope.csv; check the name and the folder"),
        gives(
            1,
            "profile tickets.csv nope.csv",
            "there is no file nope.csv; check the name and the folder"),
        gives(
            2,
            "overlap",
            "Missing required options and parameters: '--key=OURS=THEIRS', 'TRANSACTIONS',"
                + " 'REFERENCE'"),
        gives(2, "overlap tickets.csv growers.csv", "Missing required option: '--key=OURS=THEIRS'"),
        gives(
            2,
            "overlap tickets.csv growers.csv --key grower_code=grower",
            "--key: growers.csv has no column \"grower\"; did you mean \"grower_no\"?"),
        gives(
            2,
            "overlap tickets.csv growers.csv --key grower_code=grower_no --measure kg",
            "--measure: tickets.csv has no column \"kg\"; the names are ticket_no, delivered_on, site_code, grower_code, commodity, variety, grade_mark, gross_kg, tare_kg, moisture_pct, pack, remark"),
        gives(
            2,
            "overlap tickets.csv growers.csv --key grower_code=grower_no --show x",
            "Invalid value for option '--show': 'x' is not a whole number"),
        gives(
            2,
            "demo --tickets many",
            "Invalid value for option '--tickets': 'many' is not a whole number"),
        gives(
            2,
            "nope",
            "no command is called nope; the names are demo, draft, enrich, run, check, profile, duplicates, overlap, find, trace, drift"),
        gives(
            2,
            "--nope",
            "no option is called --nope; the names are --debug, -h, --help, -V, --version"));
  }

  @ParameterizedTest
  @MethodSource("commands")
  void aPersonIsToldWhatIsWrong(String command, int status, List<String> messages)
      throws IOException {
    List<String> words = new ArrayList<>();
    Matcher matcher = WORD.matcher(command);
    while (matcher.find()) {
      String word = matcher.group(1) == null ? matcher.group(2) : matcher.group(1);
      boolean file = word.matches("[\\w-]+(\\.plan\\.yaml|\\.csv)");
      words.add(file ? demo.resolve(word).toString() : word);
    }
    Cli.Gave gave = Cli.run(words.toArray(String[]::new));
    assertThat(gave.status()).as(gave.err()).isEqualTo(status);
    String told = gave.err().replace(demo + "/", "").replaceAll("(?m)^able-twine: ", "");
    messages.forEach(message -> assertThat(told).contains(message));
    assertThat(told).doesNotContain("Exception", "\tat ", "    at ");
    try (Stream<Path> files = Files.list(demo)) {
      assertThat(files.map(file -> file.getFileName().toString()))
          .as("nothing is written")
          .doesNotContain("o.csv", "x.csv");
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"--debug profile nope.csv", "profile nope.csv --debug"})
  void technicalDetailIsShownWhereverItIsAskedFor(String command) {
    assertThat(Cli.run(command.split(" ")).err())
        .contains("DataException: there is no file nope.csv", "\n    at org.abletwine.");
  }
}
