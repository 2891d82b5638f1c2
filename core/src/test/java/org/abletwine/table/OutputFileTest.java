package org.abletwine.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class OutputFileTest {
  @TempDir private Path folder;

  @Test
  void theOldFileStandsUntilTheNewOneIsWhole() throws IOException {
    Path target = Files.writeString(folder.resolve("out.csv"), "old");
    try (OutputFile file = new OutputFile(target)) {
      file.write("new".getBytes(), 3);
      assertThat(target).hasContent("old");
      file.commit();
    }
    assertThat(target).hasContent("new");
    assertThat(folder).isDirectoryNotContaining("glob:**.part");
  }

  @Test
  void whatIsGivenUpLeavesNoTrace() throws IOException {
    Path target = folder.resolve("out.csv");
    try (OutputFile file = new OutputFile(target)) {
      file.write("new".getBytes(), 3);
    }
    assertThat(folder).isEmptyDirectory();
  }

  @Test
  void aPartLeftByAKilledRunIsClearedAway() throws IOException {
    Path left = Files.writeString(folder.resolve(".out.csv.999999999.part"), "half");
    Path alive = Files.writeString(folder.resolve(".out.csv.1.part"), "another run's");
    new OutputFile(folder.resolve("out.csv")).close();
    assertThat(left).doesNotExist();
    assertThat(alive).exists();
  }

  @Test
  void aFolderThatIsMissingOrIsTheTargetIsRefused() {
    assertThatThrownBy(() -> new OutputFile(folder.resolve("no/out.csv")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("does not exist");
    assertThatThrownBy(() -> new OutputFile(folder)).hasMessageContaining("is a folder");
  }
}
