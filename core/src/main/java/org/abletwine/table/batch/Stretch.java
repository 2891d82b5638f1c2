package org.abletwine.table.batch;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Some bytes of one of the files of a table, which begin behind a line end: not always behind a
 * row, since a cell may hold line ends. Which it is, is known once all bytes before are; so whoever
 * looks at a stretch alone says what it holds in either case ({@link Looked}), and {@link #rows}
 * puts those together. Immutable.
 *
 * @param file which of the files, 0-based
 * @param from its first byte, 0-based
 * @param to behind its last byte; negative for the end of a file that is read as a whole
 */
public record Stretch(int file, long from, long to) implements Serializable {

  /**
   * What a stretch holds.
   *
   * @param stretch the stretch
   * @param open when it begins with a row; null when it cannot be read so
   * @param within when it begins within a cell in quotes; null when it cannot be read so
   */
  public record Looked(Stretch stretch, @Nullable Held open, @Nullable Held within)
      implements Serializable {}

  /**
   * What a stretch holds in one case.
   *
   * @param border the first byte, of the file, at which a row is known to begin; negative when none
   *     does
   * @param rowsBefore rows that end before that
   * @param linesBefore lines that end before that
   * @param rows rows that end in the stretch
   * @param lines lines that end in the stretch
   * @param within whether it ends within a cell in quotes
   */
  public record Held(
      long border, long rowsBefore, long linesBefore, long rows, long lines, boolean within)
      implements Serializable {}

  /**
   * Whole rows of a table.
   *
   * @param file which of its files, 0-based
   * @param from the first byte of their first one, 0-based
   * @param to behind the last byte of the last one; negative for the end of the file
   * @param row the number of the first row in its file, 1-based
   * @param line its line, 1-based
   * @param before rows of the files before
   */
  public record Range(int file, long from, long to, long row, long line, long before)
      implements Serializable {}

  /**
   * Puts together what was seen of each stretch alone.
   *
   * @param looked all stretches, in their order
   * @return rows that follow each other, and are all rows of the table: at most one for each
   *     stretch
   */
  public static List<Range> rows(List<Looked> looked) {
    List<Range> ranges = new ArrayList<>();
    long before = 0;
    for (int i = 0; i < looked.size(); ) {
      int end = i;
      while (end < looked.size()
          && looked.get(end).stretch().file() == looked.get(i).stretch().file()) {
        end++;
      }
      before += ofFile(looked.subList(i, end), before, ranges);
      i = end;
    }
    return ranges;
  }

  /**
   * The same rows in fewer ranges, each within a file.
   *
   * @param ranges the ranges, in order
   * @param count how many there should be, about
   */
  public static List<Range> fewer(List<Range> ranges, int count) {
    List<Range> fewer = new ArrayList<>();
    int each = (ranges.size() + count - 1) / count;
    int joined = each;
    for (Range range : ranges) {
      Range last = fewer.isEmpty() ? null : fewer.get(fewer.size() - 1);
      if (last != null && joined < each && last.file() == range.file()) {
        fewer.set(
            fewer.size() - 1,
            new Range(
                last.file(), last.from(), range.to(), last.row(), last.line(), last.before()));
        joined++;
      } else {
        fewer.add(range);
        joined = 1;
      }
    }
    return fewer;
  }

  /** The rows of one file; returns how many there are, as far as that is known. */
  private static long ofFile(List<Looked> looked, long before, List<Range> into) {
    int file = looked.get(0).stretch().file();
    long from = 0;
    long row = 1;
    long line = 1;
    long rows = 0;
    long lines = 0;
    boolean within = false;
    for (Looked one : looked) {
      Held held = within ? one.within() : one.open();
      if (held == null) { // the rest is read as a whole, and says what is wrong
        break;
      }
      if (held.border() > from) {
        into.add(new Range(file, from, held.border(), row, line, before));
        from = held.border();
        row = rows + held.rowsBefore() + 1;
        line = lines + held.linesBefore() + 1;
      }
      rows += held.rows();
      lines += held.lines();
      within = held.within();
    }
    into.add(new Range(file, from, -1, row, line, before));
    return rows;
  }
}
