package org.abletwine.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CsvRowsTest {
  @TempDir private Path folder;

  @Test
  void rowsAreQuotedWhereNeededAndAppearOnlyOnCommit() {
    Path target = folder.resolve("list.csv");
    try (CsvRows rows = new CsvRows(target, "key", "detail")) {
      rows.row("a,b", "say \"hi\"");
      rows.row("ж", "");
      assertThat(rows.rows()).isEqualTo(2);
      assertThat(target).doesNotExist();
      rows.commit();
    }
    assertThat(target).hasContent("key,detail\n\"a,b\",\"say \"\"hi\"\"\"\nж,\n");
  }

  @Test
  void manyRowsPassTheBufferWhole() {
    Path target = folder.resolve("list.csv");
    try (CsvRows rows = new CsvRows(target, "n")) {
      for (int i = 0; i < 50_000; i++) {
        rows.row("row " + i);
      }
      rows.commit();
    }
    assertThat(target).content().hasLineCount(50_001).endsWith("row 49999\n");
  }

  @Test
  void whatIsNotCommittedLeavesNoTrace() {
    new CsvRows(folder.resolve("list.csv"), "key").close();
    assertThat(folder).isEmptyDirectory();
    new CsvRows(folder.resolve("no/list.csv"), "key").commit();
    assertThat(folder.resolve("no/list.csv")).as("its folder is made").hasContent("key\n");
  }
}
