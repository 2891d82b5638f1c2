package org.abletwine.formats.csv;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.abletwine.key.Utf8;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.DecimalText;

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
  private static final int SHORT = 16;
  private static final VarHandle WORD =
      MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);

  private final char delimiter;
  private final char quote;
  private final byte[] lineEnd;
  private final boolean usualDelimiter;
  private char[] scratch = new char[64];
  private byte[] buffer = new byte[BUFFER + (BUFFER >> 1)];

  RowEncoder(char delimiter, char quote, String lineEnd) {
    this.delimiter = delimiter;
    this.quote = quote;
    this.usualDelimiter = ",;\t|".indexOf(delimiter) >= 0 && (quote == '"' || quote == '\'');
    this.lineEnd = lineEnd.getBytes(StandardCharsets.US_ASCII);
  }

  void encode(Batch batch, int[] columns, Target target) {
    int base = batch.baseColumns();
    boolean sameSeparator = batch.separator() == delimiter;
    CellVector[] added = new CellVector[columns.length];
    int[] runEnds = new int[columns.length];
    for (int i = columns.length - 1; i >= 0; i--) {
      if (columns[i] >= base) {
        added[i] = batch.addedColumn(columns[i]);
        if (!usualDelimiter) {
          added[i].toText(); // a number may then need quotes
        }
      } else {
        boolean joins =
            i + 1 < columns.length && columns[i + 1] == columns[i] + 1 && columns[i + 1] < base;
        runEnds[i] = joins ? runEnds[i + 1] : i;
      }
    }
    int at = 0;
    for (int row = 0; row < batch.rows(); row++) {
      int baseRow = batch.baseRow(row);
      int i = 0;
      while (i < columns.length) {
        if (i > 0) {
          at = one(delimiter, at);
        }
        CellVector cells = added[i];
        if (cells != null) {
          int origin = cells.cameFrom(row);
          at =
              origin < 0
                  ? addedCell(cells, row, at)
                  : sameSeparator
                      ? run(batch, baseRow, origin, origin, at)
                      : rewritten(batch, baseRow, origin, at);
        } else if (sameSeparator) {
          at = run(batch, baseRow, columns[i], columns[runEnds[i]], at);
          i = runEnds[i];
        } else {
          at = rewritten(batch, baseRow, columns[i], at);
        }
        i++;
      }
      ensure(at, lineEnd.length);
      for (byte b : lineEnd) {
        buffer[at++] = b;
      }
      if (at >= BUFFER) {
        target.put(buffer, at);
        at = 0;
      }
    }
    if (at > 0) {
      target.put(buffer, at);
    }
  }

  private void ensure(int at, int more) {
    if (at + more > buffer.length) {
      buffer = Arrays.copyOf(buffer, Math.max(at + more, buffer.length * 2));
    }
  }

  private int one(char c, int at) {
    ensure(at, 3);
    if (c < 0x80) {
      buffer[at] = (byte) c;
      return at + 1;
    }
    return Utf8.encode(new char[] {c}, 0, 1, buffer, at);
  }

  private int plain(char[] text, int start, int end, int from) {
    ensure(from, 3 * (end - start));
    byte[] bytes = buffer;
    int shift = from - start;
    int any = 0;
    for (int i = start; i < end; i++) {
      char c = text[i];
      any |= c;
      bytes[i + shift] = (byte) c;
    }
    return any < 0x80 ? end + shift : Utf8.encode(text, start, end, bytes, from);
  }

  /** A run of base columns of one row, cells that are not as in the source written anew. */
  private int run(Batch batch, int baseRow, int from, int to, int start) {
    int at = start;
    int untouched = from;
    if ((batch.rowMark(baseRow) & Batch.ALTERED) != 0) {
      for (int column = from; column <= to; column++) {
        if ((batch.baseMark(baseRow, column) & Batch.ALTERED) != 0) {
          if (column > untouched) {
            at = raw(batch, baseRow, untouched, column - 1, at);
            at = one(delimiter, at);
          }
          at = rewritten(batch, baseRow, column, at);
          untouched = column + 1;
          if (column < to) {
            at = one(delimiter, at);
          }
        }
      }
    }
    return untouched <= to ? raw(batch, baseRow, untouched, to, at) : at;
  }

  private int raw(Batch batch, int baseRow, int from, int to, int at) {
    int start = batch.rawStart(baseRow, from);
    int end = batch.rawEnd(baseRow, to);
    if (!batch.hasBytes(start, end)) {
      return plain(batch.baseText(), start, end, at);
    }
    ensure(at, end - start);
    System.arraycopy(batch.textBytes(), start, buffer, at, end - start);
    return at + end - start;
  }

  private int rewritten(Batch batch, int baseRow, int column, int at) {
    int start = batch.baseStart(baseRow, column);
    int end = batch.baseEnd(baseRow, column);
    int mark = batch.baseMark(baseRow, column);
    if ((mark & Batch.QUOTED) != 0) {
      return quoted(batch.baseText(), start, end, at);
    }
    return (mark & Batch.NULL) != 0
        ? plain(batch.baseText(), start, end, at)
        : asNeeded(batch.baseText(), start, end, at);
  }

  private int addedCell(CellVector cells, int row, int from) {
    int start = cells.starts[row];
    if (start < 0) {
      return from;
    }
    if (cells.inNumbers()) {
      ensure(from, DecimalText.MOST_BYTES);
      return DecimalText.write(cells.digits[row], cells.scales[row], buffer, from);
    }
    int end = cells.ends[row];
    if (!cells.narrow()) {
      return asNeeded(cells.text, start, end, from);
    }
    if (cells.special[row] == 0 && usualDelimiter) {
      ensure(from, Math.max(SHORT, end - start));
      if (end - start <= SHORT && start + SHORT <= cells.bytes.length) {
        WORD.set(buffer, from, (long) WORD.get(cells.bytes, start)); // what is too much is
        WORD.set(buffer, from + 8, (long) WORD.get(cells.bytes, start + 8)); // written over
      } else {
        System.arraycopy(cells.bytes, start, buffer, from, end - start);
      }
      return from + end - start;
    }
    return specialCell(cells.bytes, start, end, from);
  }

  private int specialCell(byte[] bytes, int start, int end, int from) {
    if (scratch.length < end - start) {
      scratch = new char[end - start];
    }
    for (int i = start; i < end; i++) {
      scratch[i - start] = (char) (bytes[i] & 0xFF);
    }
    return asNeeded(scratch, 0, end - start, from);
  }

  private int asNeeded(char[] text, int start, int end, int from) {
    if (start == end) {
      return quoted(text, start, end, from);
    }
    ensure(from, 3 * (end - start));
    byte[] bytes = buffer;
    int shift = from - start;
    int any = 0;
    for (int i = start; i < end; i++) {
      char c = text[i];
      if (c == delimiter || c == quote || c == '\n' || c == '\r') {
        return quoted(text, start, end, from);
      }
      any |= c;
      bytes[i + shift] = (byte) c;
    }
    return any < 0x80 ? end + shift : Utf8.encode(text, start, end, bytes, from);
  }

  private int quoted(char[] text, int start, int end, int from) {
    int at = one(quote, from);
    int done = start;
    for (int i = start; i < end; i++) {
      if (text[i] == quote) {
        at = plain(text, done, i + 1, at);
        done = i; // the quote goes out a second time with what follows
      }
    }
    at = plain(text, done, end, at);
    return one(quote, at);
  }
}
