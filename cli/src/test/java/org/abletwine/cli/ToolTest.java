package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import picocli.CommandLine;

/** What makes a tool at home on a machine: completions, the manual, the schema for editors. */
class ToolTest {
  @TempDir private Path folder;

  private static String output(String... command) throws IOException, InterruptedException {
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    process.getOutputStream().close();
    String text = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
    assertThat(process.exitValue()).as(text).isZero();
    return text;
  }

  private static boolean has(String program) {
    try {
      return new ProcessBuilder(program, "--version").redirectErrorStream(true).start() != null;
    } catch (IOException e) {
      return false;
    }
  }

  @ParameterizedTest
  @CsvSource({
    "able-twine ru, run",
    "able-twine run p.plan.yaml --prev, --preview",
    "able-twine overlap --normal, --normalise",
    "able-twine completion f, fish"
  })
  void bashCompletesCommandsAndOptions(String typed, String completed) throws Exception {
    assumeThat(has("bash")).isTrue();
    Path script = folder.resolve("completion");
    Files.writeString(script, Cli.run("completion", "bash").out());
    String words = "COMP_WORDS=(" + typed + "); COMP_CWORD=" + (typed.split(" ").length - 1);
    String given =
        output(
            "bash",
            "-c",
            ". " + script + "; " + words + "; _complete_able-twine; echo \"${COMPREPLY[@]}\"");
    assertThat(given.strip().split("\\s+")).contains(completed);
  }

  @Test
  void whatCannotBeDoneIsSaidInWords() throws IOException {
    Cli.Gave gave = Cli.run("completion", "fsh");
    assertThat(gave.status()).isEqualTo(2);
    assertThat(gave.err()).contains("no shell is called fsh here; did you mean \"fish\"?");
    Path file = Files.writeString(folder.resolve("file"), "mine");
    gave = Cli.run("manual", file.toString());
    assertThat(gave.status()).isEqualTo(1);
    assertThat(gave.err()).contains("cannot write the manual to " + file).contains("not a folder");
    assertThat(file).hasContent("mine");
  }

  @Test
  void fishIsToldOfEachCommandAndOption() throws Exception {
    String script = Cli.run("completion", "fish").out();
    for (CommandLine command : Main.whole().getSubcommands().values()) {
      assertThat(script).contains(" -f -a " + command.getCommandName() + " -d '");
    }
    assertThat(script)
        .contains("'__fish_seen_subcommand_from run' -l preview -x -d 'Show the first N rows")
        .contains("'__fish_seen_subcommand_from run' -l report -r -F -d ");
    assertThat(
            script
                .lines()
                .filter(
                    line ->
                        line.replace("\\'", "").chars().filter(c -> c == '\'').count() % 2 != 0))
        .as("quotes that are not closed")
        .isEmpty();
    assumeThat(has("fish")).isTrue();
    Path file = Files.writeString(folder.resolve("able-twine.fish"), script);
    assertThat(output("fish", "-c", "source " + file + "; complete -C'able-twine ru'"))
        .contains("run");
  }

  @Test
  void theManualHasAPageForEachCommand() throws Exception {
    Path man = folder.resolve("man1");
    assertThat(Cli.run("manual", man.toString()).err()).contains("15 pages in");
    String page = Files.readString(man.resolve("able-twine-run.1"));
    assertThat(page).contains(".SH NAME\nable\\-twine\\-run \\- Runs a plan");
    assertThat(page).contains(".B \\-\\-preview N\n", ".SH EXAMPLES", "3 a control did not");
    for (CommandLine command : Main.whole().getSubcommands().values()) {
      String own = Files.readString(man.resolve("able-twine-" + command.getCommandName() + ".1"));
      List<String> options = new ArrayList<>(command.getCommandSpec().optionsMap().keySet());
      assertThat(own).contains(options.stream().map(o -> o.replace("-", "\\-")).toList());
      assertThat(own).doesNotContain("${", "%n");
      assertThat(own.lines().filter(line -> line.startsWith(".B able")))
          .singleElement()
          .asString()
          .as("one line, no value broken by the end of another")
          .doesNotContain(", ");
    }
    assumeThat(has("groff")).isTrue();
    assertThat(output("groff", "-man", "-Tutf8", "-ww", man.resolve("able-twine-run.1").toString()))
        .doesNotContain("warning")
        .contains("The plan file.");
  }

  @Test
  void theSchemaTellsOfEverySettingAndGivesExamples() throws IOException {
    JsonNode schema = new ObjectMapper().readTree(Cli.run("schema").out());
    List<String> silent = new ArrayList<>();
    silent(schema, "", silent);
    assertThat(silent).as("settings without a description").isEmpty();
    assertThat(schema.at("/properties/steps/examples")).isNotEmpty();
  }

  private static void silent(JsonNode node, String at, List<String> silent) {
    node.path("properties")
        .properties()
        .forEach(
            property -> {
              if (!property.getValue().has("description") && !property.getValue().has("$ref")) {
                silent.add(at + property.getKey());
              }
            });
    node.properties().forEach(child -> silent(child.getValue(), at + child.getKey() + "/", silent));
  }
}
