package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.abletwine.audit.RecordFinder;
import org.abletwine.key.Normalise;
import org.abletwine.table.Tables;
import org.jline.terminal.Terminal;
import org.jline.terminal.impl.DumbTerminal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Asking for a key part by part. */
class FindDialogueTest {
  @TempDir private Path folder;

  private Map<String, String> ask(String typed, ByteArrayOutputStream shown) throws IOException {
    Path file =
        Files.writeString(
            folder.resolve("grades.csv"), "commodity,grade\nwheat,M1\nwheat,F1\noats,F2\n");
    RecordFinder finder = new RecordFinder(Tables.file(file), List.of(Normalise.trim()));
    ByteArrayInputStream in = new ByteArrayInputStream(typed.getBytes(StandardCharsets.UTF_8));
    try (Terminal terminal = new DumbTerminal(in, shown)) {
      return new FindDialogue(finder, List.of("commodity", "grade")).ask(terminal);
    }
  }

  @Test
  void eachPartIsNarrowedByThoseBefore() throws IOException {
    ByteArrayOutputStream shown = new ByteArrayOutputStream();
    assertThat(ask("wheat\nF1\n", shown))
        .containsExactly(Map.entry("commodity", "wheat"), Map.entry("grade", "F1"));
    assertThat(shown.toString(StandardCharsets.UTF_8))
        .contains("2 values, such as wheat, oats")
        .contains("2 values, such as M1, F1");
  }

  @Test
  void aPartThatCanOnlyBeOneValueIsNotAskedFor() throws IOException {
    ByteArrayOutputStream shown = new ByteArrayOutputStream();
    assertThat(ask("oats\n", shown)).containsEntry("grade", "F2");
    assertThat(shown.toString(StandardCharsets.UTF_8)).contains("grade can only be F2");
  }

  @Test
  void anEmptyAnswerLeavesThePartOpen() throws IOException {
    assertThat(ask("\nF1\n", new ByteArrayOutputStream())).containsOnlyKeys("grade");
  }
}
