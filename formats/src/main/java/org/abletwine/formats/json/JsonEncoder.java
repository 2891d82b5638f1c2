package org.abletwine.formats.json;

import com.fasterxml.jackson.core.io.JsonStringEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.jspecify.annotations.Nullable;

/** Rows as objects, in bytes. Belongs to one worker. */
final class JsonEncoder {
  private static final byte[] NULL = {'n', 'u', 'l', 'l'};
  private static final byte[] HEX = "0123456789abcdef".getBytes(StandardCharsets.US_ASCII);
  private static final byte[] TRUE = {'t', 'r', 'u', 'e'};
  private static final byte[] FALSE = {'f', 'a', 'l', 's', 'e'};

  /** What stands before each value: the brace or comma, the name and the colon. */
  private final byte[][] before;

  private final ColumnType.Kind[] kinds;
  private final boolean lines;
  private final CellVector scratch = new CellVector();
  private byte[] bytes = new byte[1 << 14];
  private int length;

  JsonEncoder(List<String> names, ColumnType.Kind[] kinds, boolean lines) {
    this.kinds = kinds.clone();
    this.lines = lines;
    this.before = new byte[names.size()][];
    for (int i = 0; i < before.length; i++) {
      String name = new String(JsonStringEncoder.getInstance().quoteAsString(names.get(i)));
      String begin = i > 0 ? ", \"" : lines ? "{\"" : ",\n{\"";
      before[i] = (begin + name + "\": ").getBytes(StandardCharsets.UTF_8);
    }
  }

  byte[] bytes() {
    return bytes;
  }

  int length() {
    return length;
  }

  void clear() {
    length = 0;
  }

  void add(Batch batch, int @Nullable [] which, int count, int[] columns) {
    CellVector[] cells = new CellVector[columns.length];
    for (int i = 0; i < cells.length; i++) {
      CellVector cell = batch.column(columns[i]);
      cells[i] = cell.inNumbers() ? cell.asText(new CellVector()) : cell;
    }
    for (int i = 0; i < count; i++) {
      int row = which == null ? i : which[i];
      for (int column = 0; column < cells.length; column++) {
        copy(before[column], 0, before[column].length);
        value(cells[column], row, kinds[column]);
      }
      room(2);
      bytes[length++] = '}';
      if (lines) {
        bytes[length++] = '\n';
      }
    }
  }

  private void value(CellVector cells, int row, ColumnType.Kind kind) {
    int start = cells.starts[row];
    int end = cells.ends[row];
    byte[] text = cells.text;
    if (start < 0) {
      copy(NULL, 0, NULL.length);
    } else if (kind.numeric() && number(text, start, end)
        || kind == ColumnType.Kind.BOOLEAN
            && (is(TRUE, text, start, end) || is(FALSE, text, start, end))) {
      copy(text, start, end - start);
    } else {
      quoted(text, start, end);
    }
  }

  private static boolean is(byte[] word, byte[] text, int start, int end) {
    return Arrays.equals(word, 0, word.length, text, start, end);
  }

  /** Whether a text is a number as JSON writes one (RFC 8259, section 6). */
  static boolean number(byte[] text, int start, int end) {
    int at = start < end && text[start] == '-' ? start + 1 : start;
    int whole = digits(text, at, end);
    if (whole == at || text[at] == '0' && whole > at + 1) {
      return false;
    }
    at = whole;
    if (at < end && text[at] == '.') {
      int places = digits(text, at + 1, end);
      if (places == at + 1) {
        return false;
      }
      at = places;
    }
    if (at < end && (text[at] == 'e' || text[at] == 'E')) {
      int sign = at + 1 < end && (text[at + 1] == '-' || text[at + 1] == '+') ? at + 2 : at + 1;
      int exponent = digits(text, sign, end);
      if (exponent == sign) {
        return false;
      }
      at = exponent;
    }
    return at == end;
  }

  private static int digits(byte[] text, int from, int end) {
    int at = from;
    while (at < end && text[at] >= '0' && text[at] <= '9') {
      at++;
    }
    return at;
  }

  private void quoted(byte[] text, int start, int end) {
    room(6 * (end - start) + 2);
    byte[] out = bytes;
    int at = length;
    out[at++] = '"';
    for (int i = start; i < end; i++) {
      byte c = text[i];
      if (c == '"' || c == '\\') {
        out[at++] = '\\';
        out[at++] = c;
      } else if (c >= 0 && c < ' ') {
        at = control(c, out, at);
      } else {
        out[at++] = c;
      }
    }
    out[at++] = '"';
    length = at;
  }

  private static int control(byte c, byte[] out, int from) {
    int at = from;
    out[at++] = '\\';
    int letter = "\b\t\n\f\r".indexOf(c);
    if (letter >= 0) {
      out[at++] = (byte) "btnfr".charAt(letter);
      return at;
    }
    out[at++] = 'u';
    out[at++] = '0';
    out[at++] = '0';
    out[at++] = HEX[c >> 4];
    out[at++] = HEX[c & 0xF];
    return at;
  }

  private void copy(byte[] from, int start, int count) {
    room(count);
    System.arraycopy(from, start, bytes, length, count);
    length += count;
  }

  private void room(int more) {
    if (length + more > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(length + more, 2 * bytes.length));
    }
  }
}
