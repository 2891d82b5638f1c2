package org.abletwine.lookup;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.spill.ByteCursor;

/** Finds the answers for the rows of a batch. Belongs to one worker. */
final class AnswerReader {
  private final String lookup;
  private final Answers answers;
  private final ByteCursor cursor;

  /** For each row of the batch. */
  byte[] outcome = new byte[0];

  byte[] source = new byte[0];
  String[] detail = new String[0];

  /** For each row into how many it becomes, 1 or more. */
  int[] times = new int[0];

  /** The rows that these are in all. */
  int becoming;

  /** For each attribute the cells of all rows that these become. */
  final CellVector[] cells;

  AnswerReader(String lookup, Answers answers, int attributes) {
    this.lookup = lookup;
    this.answers = answers;
    this.cursor = answers.cursor();
    cells = new CellVector[attributes];
    Arrays.setAll(cells, a -> new CellVector());
  }

  /** Reads the answers for the rows of a batch. */
  void read(Batch batch) {
    int count = batch.rows();
    if (outcome.length < count) {
      outcome = new byte[count];
      source = new byte[count];
      detail = new String[count];
      times = new int[count];
    }
    for (CellVector cell : cells) {
      cell.clear();
    }
    becoming = 0;
    if (count == 0) {
      return;
    }
    cursor.seek(answers.before(batch.rowNumber(0)));
    for (int row = 0; row < count; row++) {
      long wanted = batch.rowNumber(row);
      long number = next(wanted);
      while (number < wanted) {
        cursor.seek(cursor.number() + cursor.place());
        number = next(wanted);
      }
      if (number != wanted) {
        throw answers.none(wanted);
      }
      cursor.number();
      read(batch, row);
    }
  }

  /** The row of the next answer. */
  private long next(long wanted) {
    if (!answers.more(cursor.place())) {
      throw answers.none(wanted);
    }
    return cursor.number();
  }

  private void read(Batch batch, int row) {
    outcome[row] = (byte) cursor.number();
    source[row] = (byte) cursor.number();
    int start = cursor.cell();
    detail[row] =
        start < 0 ? "" : new String(cursor.bytes(), start, cursor.length(), StandardCharsets.UTF_8);
    times[row] = (int) cursor.number();
    if (becoming + times[row] > Settled.MOST_ADDED) {
      throw Settled.tooMany(lookup, batch, row, times[row]);
    }
    becoming += times[row];
    for (int i = 0; i < times[row]; i++) {
      for (CellVector cell : cells) {
        int from = cursor.cell();
        if (from < 0) {
          cell.appendNull();
        } else {
          cell.append(cursor.bytes(), from, from + cursor.length());
        }
      }
    }
  }
}
