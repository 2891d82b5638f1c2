package org.abletwine.table.spill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Lines of cells, held to a list of them: in memory, and with any amount of it on disk. */
class StoredLinesTest {
  private static final Comparator<@Nullable String[]> BY_FIRST =
      Comparator.comparing(line -> line[0], Comparator.nullsLast(Comparator.naturalOrder()));

  @TempDir Path folder;

  private static List<@Nullable String[]> lines(Random random, int count, int longest) {
    List<@Nullable String[]> lines = new ArrayList<>();
    for (int line = 0; line < count; line++) {
      String text = "\u00e9x".repeat(random.nextInt(1 + longest));
      lines.add(
          new @Nullable String[] {
            random.nextInt(5) == 0 ? null : "key " + random.nextInt(9),
            random.nextBoolean() ? text : "",
            "" + line
          });
    }
    return lines;
  }

  private static StoredLines stored(List<@Nullable String[]> lines, Spill.@Nullable Share share) {
    StoredLines stored = new StoredLines(3, share);
    lines.forEach(stored::append);
    stored.end();
    return stored;
  }

  private static List<List<@Nullable String>> texts(List<@Nullable String[]> lines) {
    return lines.stream().map(Arrays::asList).toList();
  }

  private long onDisk() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files.count();
    }
  }

  @Test
  void linesAreReadInAnyOrder() {
    Random random = new Random(1);
    for (int count : new int[] {0, 1, 63, 64, 65, 128, 1200}) {
      List<@Nullable String[]> lines = lines(random, count, 9);
      StoredLines stored = stored(lines, null);
      assertThat(stored).isEqualTo(texts(lines)).hasSize(count);
      for (int asked = 0; asked < 3 * count; asked++) {
        int line = random.nextInt(count);
        assertThat(stored.cells(line)).as("line %d of %d", line, count).isEqualTo(lines.get(line));
      }
      for (int line = count - 1; line >= 0; line -= 1 + random.nextInt(70)) {
        assertThat(stored.get(line)).isEqualTo(Arrays.asList(lines.get(line)));
      }
      assertThatThrownBy(() -> stored.cells(-1)).isInstanceOf(IndexOutOfBoundsException.class);
      assertThatThrownBy(() -> stored.cells(count)).isInstanceOf(IndexOutOfBoundsException.class);
    }
  }

  @Test
  void whatDoesNotFitIsInAFileUntilItIsDiscarded() throws IOException {
    List<@Nullable String[]> lines = lines(new Random(2), 20_000, 40);
    try (Spill spill = new Spill(1000, folder)) {
      StoredLines stored = stored(lines, spill.share(1));
      assertThat(onDisk()).isEqualTo(1);
      assertThat(stored).isEqualTo(texts(lines));
      stored.discard();
      assertThat(onDisk()).isZero();
    }
  }

  @Test
  void whatFitsIsInNoFile() throws IOException {
    try (Spill spill = new Spill(100_000_000, folder)) {
      StoredLines stored = stored(lines(new Random(3), 20_000, 40), spill.share(1));
      assertThat(onDisk()).isZero();
      assertThat(stored).hasSize(20_000);
    }
  }

  @Test
  void longLinesAreSortedInFilesThatAreDeletedWhenTheyWereMerged() throws IOException {
    List<@Nullable String[]> lines = lines(new Random(5), 100, 20_000);
    try (Spill spill = new Spill(1, folder)) {
      StoredLines stored = stored(lines, spill.share(1));
      StoredLines sorted = stored.sorted(BY_FIRST, 1000);
      lines.sort(BY_FIRST);
      assertThat(sorted).isEqualTo(texts(lines));
      assertThat(onDisk()).as("those sorted and those to be sorted").isEqualTo(2);
      assertThat(sorted).hasToString("StoredLines[100]");
      assertThat(stored.sorted(BY_FIRST, 5)).isEqualTo(texts(lines.subList(0, 5)));
      stored.discard();
      sorted.discard();
    }
  }

  @Test
  void linesAlikeKeepTheirOrderWhenSorted() throws IOException {
    Random random = new Random(4);
    for (int count : new int[] {0, 1, 16, 17, 400, 5000}) {
      for (long memory : new long[] {0, 1, 4000, 200_000}) {
        for (int most : new int[] {Integer.MAX_VALUE, 1, 20, 300}) {
          List<@Nullable String[]> lines = lines(random, count, 5);
          List<@Nullable String[]> wanted = new ArrayList<>(lines);
          wanted.sort(BY_FIRST);
          wanted = wanted.subList(0, Math.min(count, most));
          try (Spill spill = new Spill(Math.max(1, memory), folder)) {
            StoredLines stored = stored(lines, memory == 0 ? null : spill.share(1));
            StoredLines sorted = stored.sorted(BY_FIRST, most);
            assertThat(sorted)
                .as("%d lines, %d bytes, %d wanted", count, memory, most)
                .isEqualTo(texts(wanted));
            assertThat(stored).as("what was sorted").isEqualTo(texts(lines));
            stored.discard();
            sorted.discard();
          }
        }
      }
    }
    assertThat(onDisk()).as("files of pieces").isZero();
  }
}
