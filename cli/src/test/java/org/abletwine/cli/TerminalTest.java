package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.abletwine.plan.tell.Words;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** What reaches a terminal, a pipe, or nobody. */
@Timeout(120)
class TerminalTest {
  private static final String TITLE = "\u001b]0;owned\u0007";
  private static final String CLEAR = "\u001b[2J\u009b31m\u202e";

  @TempDir private Path folder;
  private Path tickets;
  private Path growers;

  @BeforeEach
  void tables() throws IOException {
    tickets = folder.resolve("tickets.csv");
    growers = folder.resolve("growers.csv");
    Files.writeString(
        tickets,
        "grower" + TITLE + ",kg\n" + CLEAR + "a,1\n" + CLEAR + "a,2\nb,x" + TITLE + "\nc,3\n");
    Files.writeString(
        growers, "no,name" + CLEAR + "\n" + CLEAR + "a,Ann" + TITLE + "\nb,Bo\nb,B" + CLEAR + "\n");
    Files.writeString(
        folder.resolve("p.plan.yaml"),
        """
        able-twine: 1
        title: "Harvest \\e]0;owned\\a"
        transactions: { file: tickets.csv }
        references: { growers: { file: growers.csv } }
        steps:
          - lookup: growers
            key: "\\"grower\\e]0;owned\\a\\" = no"
            bring: [ "\\"name\\e[2J\\x9b31m\\u202e\\" as name" ]
        controls: { unique: [growers] }
        outputs: { enriched: out.csv, exceptions: e.csv }
        """);
  }

  static Stream<List<String>> commands() {
    String key = "\"grower" + TITLE + "\"=no";
    return Stream.of(
        List.of("run", "p.plan.yaml"),
        List.of("run", "p.plan.yaml", "--preview", "3"),
        List.of("check", "p.plan.yaml"),
        List.of("trace", "p.plan.yaml", "--row", "1"),
        List.of("profile", "tickets.csv", "growers.csv"),
        List.of("duplicates", "growers.csv", "--key", "no"),
        List.of("duplicates", "tickets.csv", "--key", "\"grower" + TITLE + "\""),
        List.of("overlap", "tickets.csv", "growers.csv", "--key", key),
        List.of("find", "growers.csv", "no=" + CLEAR + "a"),
        List.of("find", "growers.csv", "no=zz" + TITLE),
        List.of("find", "growers.csv", "nn" + TITLE + "=1"),
        List.of(
            "enrich", "tickets.csv", "--from", "growers.csv", "--key", "x=no", "--bring", "all"),
        List.of("profile", "no" + TITLE + ".csv"),
        List.of("prof" + CLEAR));
  }

  private List<String> inFolder(List<String> command) {
    List<String> words = new ArrayList<>();
    for (String word : command) {
      boolean file = word.matches("(?s).*\\.(csv|yaml)");
      words.add(file ? folder.resolve(word).toString() : word);
    }
    return words;
  }

  @ParameterizedTest
  @MethodSource("commands")
  void controlCharactersOfTheDataAreShown(List<String> command) {
    Cli.Gave gave = Cli.run(inFolder(command).toArray(String[]::new));
    String printed = gave.out() + gave.err();
    assertThat(printed).doesNotContain("\u001b", "\u0007", "\u009b", "\u202e");
    assertThat(printed).doesNotContain("unforeseen").isNotBlank();
    if (!command.get(0).equals("check")) {
      assertThat(printed).contains("<U+001B>");
    }
  }

  @Test
  void coloursAreStillOurs() {
    assertThat(Ink.shown(Words.shown(Ink.BAD.on("x" + CLEAR, true))))
        .isEqualTo("\u001b[31mx<U+001B>[2J<U+009B>31m<U+202E>\u001b[0m");
  }

  @Test
  void jsonKeepsWhatTheDataHolds() throws IOException {
    Cli.Gave gave = Cli.run("profile", growers.toString(), "--json");
    assertThat(gave.out()).doesNotContain("\u001b", "\u009b", "\u202e");
    assertThat(new ObjectMapper().readTree(gave.out()).findValuesAsText("name"))
        .contains("name" + CLEAR);
  }

  /** A command of the shell, with the product's own process in it as {@code $AT}. */
  private Cli.Gave shell(String script) throws Exception {
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    ProcessBuilder shell =
        new ProcessBuilder(
            "bash",
            "-c",
            "cd '"
                + folder
                + "'; AT='"
                + java
                + " -XX:TieredStopAtLevel=1 -cp "
                + System.getProperty("java.class.path")
                + " "
                + Main.class.getName()
                + "'; "
                + script);
    Path out = folder.resolve("shell.out");
    Path err = folder.resolve("shell.err");
    Process run = shell.redirectOutput(out.toFile()).redirectError(err.toFile()).start();
    assertThat(run.waitFor(60, TimeUnit.SECONDS)).isTrue();
    return new Cli.Gave(run.exitValue(), Files.readString(out), Files.readString(err));
  }

  @ParameterizedTest
  @CsvSource(
      delimiterString = " ~ ",
      value = {
        "$AT enrich big.csv --from key.csv --key k --bring v > /dev/full ~ 1 ~ No space left on device",
        "$AT profile big.csv > /dev/full ~ 1 ~ No space left on device",
        "$AT profile --help > /dev/full ~ 1 ~ No space left on device",
        "$AT enrich big.csv --from key.csv --key k --bring v | head -1; exit ${PIPESTATUS[0]} ~ 1 ~ ''",
        "$AT enrich big.csv --from key.csv --key k --bring v --out /dev/full ~ 1 ~ No space left on device",
        "$AT enrich <(cat big.csv) --from <(cat key.csv) --key k --bring v | wc -l | grep -qx 60001 ~ 0 ~ 60,000",
        "$AT enrich - --from key.csv --key k --bring v < big.csv | wc -l | grep -qx 60001 ~ 0 ~ 60,000",
        "$AT enrich big.csv --from key.csv --key k --bring v --out /dev/stdout | wc -l | grep -q 600 ~ 0 ~ ''",
        "$AT profile - < big.csv | grep -q '60,000 rows' ~ 0 ~ ''"
      })
  void whatCannotBeWrittenIsAnError(String script, int status, String message) throws Exception {
    StringBuilder big = new StringBuilder("id,k\n");
    for (int row = 0; row < 60_000; row++) {
      big.append(row).append(",k").append(row % 5).append('\n');
    }
    Files.writeString(folder.resolve("big.csv"), big);
    Files.writeString(folder.resolve("key.csv"), "k,v\nk1,one\nk2,two\n");
    Cli.Gave gave = shell(script);
    assertThat(gave.status()).as(gave.err()).isEqualTo(status);
    assertThat(gave.err()).contains(message).doesNotContain("    at ", "Exception");
    if (message.isEmpty()) {
      assertThat(gave.err()).isEmpty();
    }
  }

  /** A reference larger than the memory is one message, with what to do. */
  @Test
  void tooLittleMemoryIsOneMessage() throws Exception {
    StringBuilder rows = new StringBuilder("k,v\n");
    for (int row = 0; row < 400_000; row++) {
      rows.append("key number ").append(row).append(",value number ").append(row).append('\n');
    }
    Files.writeString(folder.resolve("large.csv"), rows);
    Files.writeString(folder.resolve("t.csv"), "k\nx\n");
    Cli.Gave gave =
        shell(
            "${AT/ -cp/ -Xmx24m -cp} enrich t.csv --from large.csv --key k --bring v --out o.csv");
    assertThat(gave.status()).isEqualTo(1);
    assertThat(gave.err())
        .contains("not enough memory: large.csv needs about", "this run has 2")
        .hasLineCount(1);
    assertThat(folder.resolve("o.csv")).doesNotExist();
  }
}
