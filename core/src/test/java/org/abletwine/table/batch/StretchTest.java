package org.abletwine.table.batch;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.abletwine.table.batch.Stretch.Held;
import org.abletwine.table.batch.Stretch.Looked;
import org.abletwine.table.batch.Stretch.Range;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What was seen of stretches, each alone, put together to the rows of the table. */
class StretchTest {

  /**
   * A file of rows with line ends within quotes: r ends a row, n is a line end within a cell, q
   * begins or ends quotes.
   */
  private record File(String text) {
    /** What a stretch holds when it begins within quotes, or does not. */
    Held held(int from, int to, boolean within) {
      long border = -1;
      long rowsBefore = 0;
      long linesBefore = 0;
      long rows = 0;
      long lines = 0;
      boolean in = within;
      if (!in && (from == 0 || text.charAt(from - 1) == 'r')) {
        border = from;
      }
      for (int at = from; at < to; at++) {
        char c = text.charAt(at);
        in ^= c == 'q';
        lines += c == 'r' || c == 'n' ? 1 : 0;
        if (c == 'r') {
          rows++;
          if (border < 0) {
            border = at + 1;
            rowsBefore = rows;
            linesBefore = lines;
          }
        }
      }
      return new Held(border, rowsBefore, linesBefore, rows, lines, in);
    }
  }

  private static String rows(Random random, int count) {
    StringBuilder text = new StringBuilder();
    for (int row = 0; row < count; row++) {
      text.append("x".repeat(random.nextInt(3)));
      if (random.nextBoolean()) {
        text.append('q').append("n".repeat(random.nextInt(4))).append('q');
      }
      text.append('r');
    }
    return text.toString();
  }

  @Test
  void rangesAreAllRowsWithTheirNumbersAndLines() {
    for (int seed = 0; seed < 300; seed++) {
      Random random = new Random(seed);
      List<File> files = new ArrayList<>();
      List<Looked> looked = new ArrayList<>();
      for (int file = 0; file < 1 + random.nextInt(3); file++) {
        String text = rows(random, 1 + random.nextInt(30));
        files.add(new File(text));
        int from = 0;
        for (int end = 1; end <= text.length(); end++) {
          boolean lineEnd = "rn".indexOf(text.charAt(end - 1)) >= 0;
          if (end == text.length() || lineEnd && random.nextInt(3) == 0) {
            Stretch stretch = new Stretch(file, from, end);
            looked.add(
                new Looked(
                    stretch,
                    files.get(file).held(from, end, false),
                    files.get(file).held(from, end, true)));
            from = end;
          }
        }
      }
      List<Range> ranges = Stretch.rows(looked);
      expectAllRows(files, ranges);
      for (int count = 1; count <= ranges.size() + 1; count++) {
        List<Range> fewer = Stretch.fewer(ranges, count);
        assertThat(fewer).hasSizeLessThan(count + files.size());
        expectAllRows(files, fewer);
        int each = (ranges.size() + count - 1) / count;
        if (files.size() == 1) {
          assertThat(fewer).hasSize((ranges.size() + each - 1) / each);
        }
      }
    }
  }

  private static void expectAllRows(List<File> files, List<Range> ranges) {
    int file = -1;
    long end = 0;
    long before = 0;
    for (Range range : ranges) {
      if (range.file() != file) {
        assertThat(end).as("the file before is read to its end").isLessThanOrEqualTo(0);
        before += file < 0 ? 0 : files.get(file).text().chars().filter(c -> c == 'r').count();
        file++;
        end = 0;
      }
      String text = files.get(file).text();
      assertThat(range.file()).isEqualTo(file);
      assertThat(range.from()).isEqualTo(end);
      assertThat(range.before()).isEqualTo(before);
      String gone = text.substring(0, (int) range.from());
      assertThat(gone).matches("|.*r");
      assertThat(range.row()).isEqualTo(1 + gone.chars().filter(c -> c == 'r').count());
      assertThat(range.line())
          .isEqualTo(1 + gone.chars().filter(c -> c != 'x' && c != 'q').count());
      end = range.to();
    }
    assertThat(file).isEqualTo(files.size() - 1);
    assertThat(end).isEqualTo(-1);
  }

  @Test
  void fromAStretchThatCannotBeReadOnTheFileIsOne() {
    Held fine = new Held(0, 0, 0, 2, 3, false);
    Held within = new Held(15, 1, 2, 2, 4, true);
    Looked first = new Looked(new Stretch(0, 0, 10), fine, null);
    @Nullable Held none = null;
    Looked broken = new Looked(new Stretch(0, 20, 30), within, none);
    Looked next = new Looked(new Stretch(0, 10, 20), within, within);
    Looked other = new Looked(new Stretch(1, 0, 9), fine, none);
    assertThat(Stretch.rows(List.of(first, next, broken, other)))
        .containsExactly(
            new Range(0, 0, 15, 1, 1, 0),
            new Range(0, 15, -1, 4, 6, 0),
            new Range(1, 0, -1, 1, 1, 4));
  }
}
