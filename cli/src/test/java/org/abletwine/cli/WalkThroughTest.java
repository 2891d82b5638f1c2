package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Pages of commands, done as they say: their files are laid out, their commands are run, and what
 * they print is what stands there. With {@code -Dwalk.through=write} the pages get what they print.
 */
class WalkThroughTest {
  private static final String COMMAND = "$ ./able-twine ";
  private static final int COLUMNS = 96;

  /** The folder of the demo, which one page lays out. */
  private static final String DEMO = "wendle-vale";

  /** A path of always the same length: lines are broken by it. */
  private final Path folder = Path.of("target", "walk-through");

  private int commands;

  @ParameterizedTest
  @ValueSource(strings = {"walk-through.md", "shown.md"})
  void everyCommandPrintsWhatThePageShows(String name) throws IOException {
    clear();
    Path file = Path.of("..", "docs", name);
    List<String> page = Files.readAllLines(file);
    List<String> done = done(page);
    if ("write".equals(System.getProperty("walk.through"))) {
      Files.write(file, done);
    }
    assertThat(commands).isGreaterThanOrEqualTo(7);
    assertThat(String.join("\n", done)).isEqualTo(String.join("\n", page));
  }

  private void clear() throws IOException {
    if (Files.exists(folder)) {
      try (Stream<Path> all = Files.walk(folder)) {
        for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
          Files.delete(one);
        }
      }
    }
  }

  /** The page with what its commands print. */
  private List<String> done(List<String> page) throws IOException {
    List<String> done = new ArrayList<>();
    for (int at = 0; at < page.size(); at++) {
      String line = page.get(at);
      done.add(line);
      if (!line.startsWith("```") || line.length() == 3) {
        continue;
      }
      int end = at + 1;
      while (!page.get(end).equals("```")) {
        end++;
      }
      List<String> block = page.subList(at + 1, end);
      String[] words = line.substring(3).split(" ");
      if (words[0].equals("console")) {
        for (String command : block.stream().filter(one -> one.startsWith("$")).toList()) {
          done.add(command);
          done.addAll(printed(command));
        }
      } else {
        done.addAll(block);
        if (words.length > 1) {
          Files.createDirectories(folder.resolve(words[1]).getParent());
          Files.write(folder.resolve(words[1]), block);
        }
      }
      done.add("```");
      at = end;
    }
    return done;
  }

  private List<String> printed(String command) {
    assertThat(command).startsWith(COMMAND);
    commands++;
    List<String> words = new ArrayList<>();
    for (String word :
        command.substring(COMMAND.length()).split(" (?=(?:[^\"]*\"[^\"]*\")*[^\"]*$)")) {
      String plain = word.replace("\"", "");
      boolean there = plain.startsWith(DEMO) || Files.exists(folder.resolve(plain));
      words.add(there ? folder.resolve(plain).toString() : plain);
    }
    Cli.Gave gave = Cli.runAt(COLUMNS + (folder + "/").length(), words.toArray(String[]::new));
    String text = (gave.err() + gave.out()).replace(folder + "/", "");
    text =
        text.replaceAll("\\d+\\.\\d\\d s\\b", "0.10 s")
            .replaceAll("\\d{4}-\\d\\d-\\d\\d \\d\\d:\\d\\d UTC", "2026-09-01 08:00 UTC")
            .replaceAll("private-[0-9a-f]{12}", "private-0123456789ab")
            .stripTrailing();
    return text.isEmpty() ? List.of() : text.lines().toList();
  }
}
