package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.abletwine.demo.WendleVale;
import org.abletwine.formats.database.DatabaseFormat;
import org.abletwine.plan.PlanSchema;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;
import picocli.CommandLine.ParameterException;

/** The pages say what is: no link leads nowhere, commands are as written, settings are all told. */
class DocsTest {
  private static final Path ROOT = Path.of("..");
  private static final Pattern LINK = Pattern.compile("\\[[^\\]]*\\]\\(([^)\\s]+)\\)");

  @TempDir private Path folder;

  private static List<Path> pages() throws IOException {
    List<Path> pages = new ArrayList<>();
    for (Path folder : List.of(ROOT, ROOT.resolve("docs"))) {
      try (Stream<Path> files = Files.list(folder)) {
        files.filter(file -> file.toString().endsWith(".md")).sorted().forEach(pages::add);
      }
    }
    return pages;
  }

  @Test
  void noLinkLeadsNowhere() throws IOException {
    List<String> dead = new ArrayList<>();
    for (Path page : pages()) {
      Matcher link = LINK.matcher(Files.readString(page));
      while (link.find()) {
        String to = link.group(1);
        if (!to.matches("[a-z]+:.*") && !leads(page, to)) {
          dead.add(page.getFileName() + ": " + to);
        }
      }
    }
    assertThat(dead).isEmpty();
  }

  private static boolean leads(Path page, String to) throws IOException {
    int hash = to.indexOf('#');
    String file = hash < 0 ? to : to.substring(0, hash);
    Path target = file.isEmpty() ? page : page.resolveSibling(file);
    return Files.exists(target)
        && (hash < 0 || anchors(Files.readString(target)).contains(to.substring(hash + 1)));
  }

  private static Set<String> anchors(String page) {
    return page.lines()
        .filter(line -> line.startsWith("#"))
        .map(line -> line.replaceFirst("^#+ ", "").toLowerCase(Locale.ROOT))
        .map(title -> title.replaceAll("[^\\p{L}\\p{N} _-]", "").replace(' ', '-'))
        .collect(Collectors.toSet());
  }

  /** A command as it stands on a page. */
  private record Command(String where, List<String> words, String comment) {
    String told() {
      return where + ": " + String.join(" ", words);
    }
  }

  private static List<Command> commands() throws IOException {
    List<Command> commands = new ArrayList<>();
    for (Path page : pages()) {
      boolean code = false;
      for (String line : Files.readString(page).replaceAll(" *\\\\\n *", " ").split("\n")) {
        code ^= line.startsWith("```");
        Matcher one = Pattern.compile("^(?:\\./)?able-twine ([^#|>]*)(.*)$").matcher(line);
        if (code && one.find()) {
          commands.add(new Command("" + page.getFileName(), words(one.group(1)), one.group(2)));
        }
      }
    }
    return commands;
  }

  private static List<String> words(String text) {
    List<String> words = new ArrayList<>();
    Matcher word = Pattern.compile("(?:\"[^\"]*\"|'[^']*'|[^\\s\"'])+").matcher(text);
    while (word.find()) {
      words.add(word.group().replaceAll("[\"']", ""));
    }
    return words;
  }

  @Test
  void commandsHaveTheOptionsThatThePagesGiveThem() throws IOException {
    List<String> wrong = new ArrayList<>();
    List<Command> commands = commands();
    for (Command command : commands) {
      try {
        CommandLine whole = Main.whole().registerConverter(Path.class, DatabaseFormat::place);
        whole.parseArgs(command.words().toArray(String[]::new));
      } catch (ParameterException e) {
        wrong.add(command.told() + ": " + e.getMessage());
      }
    }
    assertThat(wrong).isEmpty();
    assertThat(commands).hasSizeGreaterThan(20);
  }

  @Test
  void commandsOfTheFirstPageRunOnTheDemo() throws IOException {
    Path demo = folder.resolve("wendle-vale");
    WendleVale.layOut(demo);
    List<String> ran = new ArrayList<>();
    for (Command command : commands()) {
      boolean ofDemo = command.words().stream().anyMatch(word -> word.startsWith("wendle-vale/"));
      if (!command.where().equals("README.md") || !ofDemo) {
        continue;
      }
      String[] words =
          command.words().stream()
              .map(word -> word.replaceFirst("^wendle-vale/", demo + "/"))
              .toArray(String[]::new);
      Cli.Gave gave = Cli.run(words);
      int status = command.comment().contains("status 3") ? 3 : 0;
      assertThat(gave.status()).as(command.told() + "\n" + gave.err()).isEqualTo(status);
      ran.add(command.words().get(0));
    }
    assertThat(ran).contains("run", "check", "trace", "find", "duplicates", "profile");
  }

  /** In the demo's folder, in their order: what one writes the next may read. */
  @Test
  void commandsOfFurtherPagesRunOnTheDemo() throws IOException {
    Path demo = folder.resolve("further");
    WendleVale.layOut(demo);
    List<String> ran = new ArrayList<>();
    for (Command command : commands()) {
      if (!Set.of("draft.md", "report.md").contains(command.where())) {
        continue;
      }
      String[] words =
          command.words().stream()
              .map(word -> word.matches("[\\w./-]+\\.\\w+") ? demo.resolve(word).toString() : word)
              .toArray(String[]::new);
      Cli.Gave gave = Cli.run(words);
      assertThat(gave.status()).as(command.told() + "\n" + gave.out() + gave.err()).isZero();
      ran.add(command.words().get(0));
    }
    assertThat(ran).contains("draft", "run", "drift");
    assertThat(demo.resolve("tickets.plan.yaml")).isNotEmptyFile();
    assertThat(demo.resolve("out/differences.csv")).isNotEmptyFile();
  }

  @Test
  void everySettingOfAPlanIsToldOnAPage() throws IOException {
    Set<String> names = new TreeSet<>();
    settings(new ObjectMapper().readTree(PlanSchema.text()), names);
    StringBuilder told = new StringBuilder();
    for (Path page : pages()) {
      told.append(Files.readString(page));
    }
    assertThat(names)
        .allSatisfy(
            name ->
                assertThat(told.toString())
                    .as("setting " + name)
                    .containsPattern("`[^`]*\\b" + Pattern.quote(name) + "\\b[^`]*`"));
    assertThat(names).hasSizeGreaterThan(80);
  }

  private static void settings(JsonNode node, Set<String> names) {
    node.path("properties").properties().forEach(one -> names.add(one.getKey()));
    node.forEach(child -> settings(child, names));
  }

  @Test
  void everyCommandIsToldOnThePages() throws IOException {
    Set<String> told =
        commands().stream().map(command -> command.words().get(0)).collect(Collectors.toSet());
    assertThat(told).containsAll(Main.whole().getSubcommands().keySet());
  }
}
