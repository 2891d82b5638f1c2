package org.abletwine;

import java.util.List;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/** The ways in which a batch can come to hold some rows. What it holds is the same in each. */
public enum BatchFilling {
  /** Cell by cell, as tables of one's own do. */
  CELLS,
  /** As text that was read, in quotes where they are needed. */
  TEXT,
  /** As text that was read, every cell in quotes. */
  QUOTED,
  /** As text that was read, with characters beyond ASCII all around. */
  BEYOND_ASCII,
  /** As text that was read, among rows that were left out again. */
  PICKED,
  /** As text that was read, each row twice and then taken once, from the last on and back. */
  REPEATED;

  /** Fills a batch. */
  public void fill(Batch batch, long firstRow, List<@Nullable String[]> rows) {
    batch.clear(firstRow, ',');
    if (this == CELLS) {
      for (@Nullable String[] row : rows) {
        for (String cell : row) {
          batch.addCell(cell);
        }
        batch.endRow();
      }
      return;
    }
    boolean others = this == PICKED;
    int count = 0;
    for (@Nullable String[] row : rows) {
      if (others) {
        junk(batch, row.length);
        batch.numberRow(firstRow + count);
      }
      text(batch, row);
      if (others) {
        batch.numberRow(firstRow + count);
      }
      count++;
    }
    if (others) {
      int[] wanted = new int[count];
      for (int row = 0; row < count; row++) {
        wanted[row] = 2 * row + 1;
      }
      batch.pick(wanted, count);
    }
    if (this == REPEATED) {
      backAndForth(batch, count);
    }
  }

  private static void backAndForth(Batch batch, int count) {
    int[] twice = new int[2 * count];
    for (int row = 0; row < count; row++) {
      twice[2 * row] = count - 1 - row;
      twice[2 * row + 1] = count - 1 - row;
    }
    batch.pick(twice, twice.length);
    int[] once = new int[count];
    for (int row = 0; row < count; row++) {
      once[row] = 2 * (count - 1 - row) + 1;
    }
    batch.pick(once, count);
  }

  private static void junk(Batch batch, int columns) {
    for (int column = 0; column < columns; column++) {
      batch.addCell("left out");
    }
    batch.endRow();
  }

  /** A row as a reader writes it: raw first, and quotes that were doubled made single in place. */
  private void text(Batch batch, @Nullable String[] row) {
    if (this == BEYOND_ASCII) {
      append(batch, "\u00e9\u0436");
    }
    int marks = 0;
    for (int column = 0; column < row.length; column++) {
      String cell = row[column];
      String value = cell == null ? "" : cell;
      boolean quoted = cell != null && (this == QUOTED || needsQuotes(cell));
      String raw = quoted ? '"' + value.replace("\"", "\"\"") + '"' : value;
      int start = batch.used() + (quoted ? 1 : 0);
      append(batch, raw + (column + 1 < row.length ? "," : "\n"));
      int mark = cell == null ? Batch.NULL : quoted ? Batch.QUOTED : 0;
      if (raw.length() > value.length() + 2) {
        Utf8.write(value, batch.text(), start);
        mark |= Batch.ALTERED;
      }
      batch.addSlice(start, start + Utf8.bytes(value).length, mark);
      marks |= mark;
    }
    batch.endRow(marks);
  }

  private static boolean needsQuotes(String cell) {
    return cell.isEmpty() || cell.chars().anyMatch(c -> ",\"\n\r".indexOf(c) >= 0);
  }

  private static void append(Batch batch, String text) {
    byte[] room = batch.room(Utf8.MOST_BYTES * text.length());
    batch.took(Utf8.write(text, room, batch.used()) - batch.used());
  }
}
