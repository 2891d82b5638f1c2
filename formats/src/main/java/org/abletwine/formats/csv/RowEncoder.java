package org.abletwine.formats.csv;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.NumberForm;
import org.abletwine.table.text.ShortCopy;
import org.jspecify.annotations.Nullable;

/**
 * Encodes the rows of a batch as delimited text. Neighbouring base columns that stay neighbours
 * leave in one copy, separators and quotes included, as they stood in the source. Holds a buffer:
 * one encoder per thread.
 */
final class RowEncoder {
  /** Takes encoded bytes; they are valid only during the call. */
  interface Target {
    void put(byte[] bytes, int length);
  }

  private static final int BUFFER = 1 << 17;

  private final byte delimiter;
  private final byte quote;
  private final byte[] lineEnd;
  private final boolean usual;
  private final @Nullable NumberForm @Nullable [] forms;
  private byte[] buffer = new byte[BUFFER];
  private int used;

  // Of the batch that is encoded: the parts each row leaves in, with the first and the last column
  // of those that leave in one copy, or the cells of a column that is not of the source; and
  // whether cells stand apart as they did.
  private int parts;
  private int[] firsts = {};
  private int[] lasts = {};
  private @Nullable CellVector[] added = {};
  private boolean[] numbers = {};
  private boolean sameSeparator;

  /**
   * Bytes that are free behind all text of a row: for what parts cells, for its numbers, and for
   * whole words.
   */
  private int behind;

  /**
   * @param forms for each output column how its numbers are written; null for as they stand
   */
  RowEncoder(char delimiter, char quote, String lineEnd, @Nullable NumberForm @Nullable [] forms) {
    this.forms = forms;
    this.delimiter = (byte) delimiter;
    this.quote = (byte) quote;
    this.usual = ",;\t|".indexOf(delimiter) >= 0 && (quote == '"' || quote == '\'');
    this.lineEnd = lineEnd.getBytes(StandardCharsets.US_ASCII);
  }

  /** Encodes rows and hands the bytes on. */
  void encode(Batch batch, int[] columns, Target target) {
    add(batch, null, batch.rows(), columns);
    take(target);
  }

  /** Hands on what was encoded since the last time. */
  void take(Target target) {
    if (used > 0) {
      target.put(buffer, used);
      used = 0;
    }
  }

  /** Encodes rows. */
  void add(Batch batch, int @Nullable [] rows, int count, int[] wanted) {
    settle(batch, wanted);
    int at = used;
    for (int next = 0; next < count; next++) {
      at = row(batch, rows == null ? next : rows[next], at);
    }
    used = at;
  }

  /** Settles how the columns of a batch leave: those that are in the source side by side as one. */
  private void settle(Batch batch, int[] columns) {
    sameSeparator = batch.separator() == delimiter;
    if (!sameSeparator || forms != null) {
      // Each cell leaves by itself: all of them are needed.
      for (int row = 0; row < batch.rows(); row++) {
        batch.complete(row);
      }
    }
    parts = 0;
    firsts = new int[columns.length];
    lasts = new int[columns.length];
    added = new CellVector[columns.length];
    numbers = new boolean[columns.length];
    int ofNumbers = 0;
    for (int i = 0; i < columns.length; i++) {
      int column = columns[i];
      NumberForm form = forms == null ? null : forms[i];
      boolean asItStands = form == null && column < batch.baseColumns();
      CellVector cells = asItStands ? null : cells(batch, column, form);
      boolean goesOn = cells == null && parts > 0 && added[parts - 1] == null && sameSeparator;
      if (goesOn && lasts[parts - 1] + 1 == column) {
        lasts[parts - 1] = column;
      } else {
        firsts[parts] = column;
        lasts[parts] = column;
        added[parts] = cells;
        numbers[parts] = cells != null && cells.inNumbers();
        ofNumbers += numbers[parts++] ? DecimalText.MOST_BYTES : 0;
      }
    }
    behind = columns.length + 2 * lineEnd.length + ofNumbers + CellVector.SLACK;
  }

  /** The cells of a column that does not leave as it stands in the source. */
  private CellVector cells(Batch batch, int column, @Nullable NumberForm form) {
    if (form != null) {
      return formed(batch, column, form);
    }
    // Where a point or a sign may need quotes, numbers are looked at like any other text.
    CellVector cells = batch.column(column);
    return usual ? cells : cells.asText(new CellVector());
  }

  /** Encodes one row; returns where it ends. Most parts leave as text that lies there as it is. */
  private int row(Batch batch, int row, int start) {
    int at = start;
    int baseRow = batch.baseRow(row);
    boolean asItStands = sameSeparator && (batch.rowMark(baseRow) & Batch.ALTERED) == 0;
    room(at);
    for (int part = 0; part < parts; part++) {
      CellVector cells = added[part];
      boolean number = cells != null && numbers[part];
      boolean plain =
          cells != null && !number && usual && cells.cameFrom(row) < 0 && cells.needsNoQuotes(row);
      if (number) {
        at = number(cells, row, at);
      } else if (plain || cells == null && asItStands) {
        byte[] text = plain ? cells.text : batch.text();
        int from = plain ? cells.starts[row] : batch.rawStart(baseRow, firsts[part]);
        int end = plain ? cells.ends[row] : rawEnd(batch, baseRow, lasts[part]);
        at = copy(text, from, end, at);
      } else {
        at =
            cells == null
                ? run(batch, baseRow, firsts[part], lasts[part], at)
                : addedCell(batch, baseRow, cells, row, at);
      }
      buffer[at++] = delimiter;
    }
    at = Math.max(start, at - 1); // nothing stands behind the last
    for (byte b : lineEnd) {
      buffer[at++] = b;
    }
    return at;
  }

  /** Numbers in another form; what is no number as it came. */
  private static CellVector formed(Batch batch, int column, NumberForm form) {
    CellVector cells = batch.column(column);
    CellVector formed = new CellVector();
    formed.clear();
    for (int row = 0; row < batch.rows(); row++) {
      String text = cells.get(row);
      BigDecimal number = text == null ? null : DecimalText.read(text);
      if (number == null) {
        formed.appendAsCame(batch, column, row);
      } else {
        formed.append(form.write(number.toPlainString()));
      }
    }
    return formed;
  }

  /** The buffer, with room behind a place for all that stands between cells, and some words. */
  private byte[] room(int at) {
    byte[] held = buffer;
    return at + behind > held.length ? grow(at + behind) : held;
  }

  private byte[] grow(int least) {
    buffer = Arrays.copyOf(buffer, Math.max(least, buffer.length * 2));
    return buffer;
  }

  /** Copies text; short text as two words, for what is too much is written over. */
  private int copy(byte[] text, int start, int end, int at) {
    int length = end - start;
    ShortCopy.copy(text, start, length, room(at + length), at);
    return at + length;
  }

  /** A run of base columns of one row, cells that are not as in the source written anew. */
  private int run(Batch batch, int baseRow, int from, int to, int start) {
    if (!sameSeparator) {
      return rewritten(batch, baseRow, from, start); // each cell is a run of its own
    }
    int at = start;
    int untouched = from;
    if ((batch.rowMark(baseRow) & Batch.ALTERED) != 0) {
      for (int column = from; column <= to; column++) {
        if ((batch.baseMark(baseRow, column) & Batch.ALTERED) != 0) {
          if (column > untouched) {
            at = raw(batch, baseRow, untouched, column - 1, at);
            buffer[at++] = delimiter;
          }
          at = rewritten(batch, baseRow, column, at);
          untouched = column + 1;
          if (column < to) {
            buffer[at++] = delimiter;
          }
        }
      }
    }
    return untouched <= to ? raw(batch, baseRow, untouched, to, at) : at;
  }

  private int raw(Batch batch, int baseRow, int from, int to, int at) {
    return copy(batch.text(), batch.rawStart(baseRow, from), rawEnd(batch, baseRow, to), at);
  }

  private static int rawEnd(Batch batch, int baseRow, int column) {
    boolean last = column == batch.baseColumns() - 1;
    return last ? batch.rowEnd(baseRow) : batch.rawEnd(baseRow, column);
  }

  private int rewritten(Batch batch, int baseRow, int column, int at) {
    int start = batch.baseStart(baseRow, column);
    int end = batch.baseEnd(baseRow, column);
    int mark = batch.baseMark(baseRow, column);
    if ((mark & Batch.QUOTED) != 0) {
      return quoted(batch.text(), start, end, at);
    }
    return (mark & Batch.NULL) != 0
        ? copy(batch.text(), start, end, at)
        : asNeeded(batch.text(), start, end, at);
  }

  private int addedCell(Batch batch, int baseRow, CellVector cells, int row, int at) {
    int origin = cells.cameFrom(row);
    if (origin >= 0) {
      return run(batch, baseRow, origin, origin, at);
    }
    int start = cells.starts[row];
    if (start < 0) {
      return at;
    }
    return asNeeded(cells.text, start, cells.ends[row], at);
  }

  /** Writes a number, for which there is room. */
  private int number(CellVector cells, int row, int at) {
    return cells.starts[row] < 0
        ? at
        : DecimalText.write(cells.digits[row], cells.scales[row], buffer, at);
  }

  private int asNeeded(byte[] text, int start, int end, int from) {
    if (start == end) {
      return quoted(text, start, end, from);
    }
    for (int i = start; i < end; i++) {
      byte c = text[i];
      if (c == delimiter || c == quote || c == '\n' || c == '\r') {
        return quoted(text, start, end, from);
      }
    }
    return copy(text, start, end, from);
  }

  private int quoted(byte[] text, int start, int end, int from) {
    int at = from;
    buffer[at++] = quote;
    int done = start;
    for (int i = start; i < end; i++) {
      if (text[i] == quote) {
        at = copy(text, done, i + 1, at);
        done = i; // the quote goes out a second time with what follows
      }
    }
    at = copy(text, done, end, at);
    buffer[at++] = quote;
    return at;
  }
}
