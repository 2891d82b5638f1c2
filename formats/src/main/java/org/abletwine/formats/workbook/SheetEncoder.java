package org.abletwine.formats.workbook;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.DecimalText;
import org.abletwine.table.text.NumberForm;
import org.abletwine.table.text.Utf8;
import org.jspecify.annotations.Nullable;

/**
 * Rows as the markup of a sheet, in bytes. Values of columns that are known to be numbers, days,
 * times or true and false are written as such where a spreadsheet holds them exactly, all others as
 * texts. Belongs to one worker.
 */
abstract class SheetEncoder {
  /** Digits that a number of a spreadsheet keeps. */
  private static final int MOST_DIGITS = 15;

  private static final int SECONDS_OF_DAY = 86_400;

  private final ColumnType.Kind[] kinds;
  private final DatePatterns[] patterns;

  /** How texts of a column are written that were made of numbers; null for all others. */
  private final @Nullable NumberForm[] forms;

  private final int[] widths;
  private final List<String> names;
  private byte[] bytes = new byte[1 << 16];
  private int length;
  private long rows;

  SheetEncoder(List<String> names, List<@Nullable ColumnType> types) {
    this.names = names;
    this.kinds = new ColumnType.Kind[names.size()];
    this.patterns = new DatePatterns[names.size()];
    this.forms = forms(names.size(), types);
    this.widths = new int[names.size()];
    for (int i = 0; i < kinds.length; i++) {
      ColumnType type = i < types.size() ? types.get(i) : null;
      kinds[i] = type == null ? ColumnType.Kind.TEXT : type.kind();
      patterns[i] =
          new DatePatterns(
              type != null && !type.kind().numeric() && forms[i] == null
                  ? type.patterns()
                  : List.of());
    }
  }

  /** The forms of the columns that hold texts made of numbers; null for all others. */
  static @Nullable NumberForm[] forms(int columns, List<@Nullable ColumnType> types) {
    @Nullable NumberForm[] forms = new NumberForm[columns];
    for (int i = 0; i < Math.min(columns, types.size()); i++) {
      ColumnType type = types.get(i);
      if (type != null && type.kind() == ColumnType.Kind.TEXT && !type.patterns().isEmpty()) {
        forms[i] = NumberForm.of(type.patterns().get(0), false);
      }
    }
    return forms;
  }

  /** Begins a row. */
  abstract void beginRow();

  /** Ends a row. */
  abstract void endRow();

  /** A cell that holds nothing. */
  abstract void nothing();

  /** A cell of text. */
  abstract void text(byte[] text, int start, int end);

  /** A number, with so many decimal places. */
  abstract void number(byte[] text, int start, int end, int places);

  /** A number in the form of its column. */
  abstract void formed(byte[] number, int column);

  abstract void truth(boolean value);

  /**
   * A day; returns false when it cannot be held.
   *
   * @param day days since 1970-01-01
   */
  abstract boolean day(long day);

  /**
   * A day and a time; returns false when it cannot be held.
   *
   * @param day days since 1970-01-01
   * @param second of the day
   */
  abstract boolean time(long day, int second);

  /** Adds the names of the columns, as a row. */
  abstract void header(List<String> columns);

  final void add(Batch batch, int @Nullable [] which, int count, int[] columns) {
    CellVector[] cells = new CellVector[columns.length];
    for (int i = 0; i < cells.length; i++) {
      CellVector cell = batch.column(columns[i]);
      cells[i] = cell.inNumbers() ? cell.asText(new CellVector()) : cell;
    }
    for (int i = 0; i < count; i++) {
      int row = which == null ? i : which[i];
      beginRow();
      for (int column = 0; column < cells.length; column++) {
        int start = cells[column].starts[row];
        if (start < 0) {
          nothing();
        } else {
          int end = cells[column].ends[row];
          widths[column] = Math.max(widths[column], end - start);
          try {
            value(cells[column].text, start, end, column);
          } catch (CannotHold e) {
            throw new DataException(
                "row "
                    + batch.rowNumber(row)
                    + ", column "
                    + names.get(column)
                    + ": "
                    + e.getMessage(),
                e);
          }
        }
      }
      endRow();
      rows++;
    }
  }

  /** Says that a cell holds what the format does not. */
  static final class CannotHold extends RuntimeException {
    private static final long serialVersionUID = 1L;

    CannotHold(String message) {
      super(message, null, false, false);
    }
  }

  private void value(byte[] text, int start, int end, int column) {
    boolean written =
        switch (kinds[column]) {
          case NUMBER, INTEGER -> number(text, start, end);
          case BOOLEAN -> truth(text, start, end);
          case DATE -> {
            long day = patterns[column].day(text, start, end);
            yield day != DatePatterns.NONE && day(day);
          }
          case DATE_TIME -> time(text, start, end);
          case TEXT -> forms[column] != null && formed(text, start, end, column);
        };
    if (!written) {
      text(text, start, end);
    }
  }

  /** Writes a number as one, when a spreadsheet holds it exactly; returns whether it did. */
  private boolean number(byte[] text, int start, int end) {
    long digits = DecimalText.canonical(text, start, end);
    int places = (int) digits;
    boolean held =
        digits != DecimalText.NOT_CANONICAL && (digits >>> Integer.SIZE) + places <= MOST_DIGITS;
    if (held) {
      number(text, start, end, places);
    }
    return held;
  }

  /** Writes a text that was made of a number as that, in its form; returns whether it did. */
  private boolean formed(byte[] text, int start, int end, int column) {
    NumberForm form = Objects.requireNonNull(forms[column]);
    String plain = form.plain(Utf8.text(text, start, end));
    if (plain == null) {
      return false;
    }
    BigDecimal exact = new BigDecimal(plain);
    BigDecimal number = form.percent() ? exact.movePointLeft(2) : exact;
    if (number.precision() > MOST_DIGITS || number.scale() > MOST_DIGITS) {
      return false;
    }
    formed(ascii(number.toPlainString()), column);
    return true;
  }

  private boolean truth(byte[] text, int start, int end) {
    boolean yes = is("true", text, start, end);
    if (yes || is("false", text, start, end)) {
      truth(yes);
      return true;
    }
    return false;
  }

  private static boolean is(String word, byte[] text, int start, int end) {
    if (end - start != word.length()) {
      return false;
    }
    for (int i = 0; i < word.length(); i++) {
      if (text[start + i] != word.charAt(i)) {
        return false;
      }
    }
    return true;
  }

  /** Writes a time such as 2026-08-01T14:30:00; returns whether it is one. */
  private boolean time(byte[] text, int start, int end) {
    if (end - start != 19 || text[start + 10] != 'T' && text[start + 10] != ' ') {
      return false;
    }
    long day = DatePatterns.isoDay(text, start);
    int hour = two(text, start + 11);
    int minute = two(text, start + 14);
    int second = two(text, start + 17);
    boolean valid =
        day != DatePatterns.NONE
            && hour >= 0
            && hour < 24
            && minute >= 0
            && minute < 60
            && second >= 0
            && second < 60
            && text[start + 13] == ':'
            && text[start + 16] == ':';
    return valid && time(day, hour * 3600 + minute * 60 + second);
  }

  private static int two(byte[] text, int at) {
    int tens = text[at] - '0';
    int ones = text[at + 1] - '0';
    return tens < 0 || tens > 9 || ones < 0 || ones > 9 ? -1 : tens * 10 + ones;
  }

  /** A share of a day, as a number of seconds of it. */
  static double share(int second) {
    return (double) second / SECONDS_OF_DAY;
  }

  final void put(byte[] from) {
    put(from, 0, from.length);
  }

  final void put(byte[] from, int start, int end) {
    room(end - start);
    System.arraycopy(from, start, bytes, length, end - start);
    length += end - start;
  }

  final void put(byte one) {
    room(1);
    bytes[length++] = one;
  }

  /** Puts ASCII. */
  final void put(String text) {
    put(ascii(text));
  }

  static byte[] ascii(String text) {
    return text.getBytes(StandardCharsets.US_ASCII);
  }

  private void room(int more) {
    if (length + more > bytes.length) {
      bytes = Arrays.copyOf(bytes, Math.max(length + more, 2 * bytes.length));
    }
  }

  byte[] bytes() {
    return bytes;
  }

  int length() {
    return length;
  }

  /** Returns how many rows are held. */
  long rows() {
    return rows;
  }

  /** Returns the longest text of each column so far, in bytes. */
  int[] widths() {
    return widths;
  }

  /** Forgets the rows. */
  void clear() {
    length = 0;
    rows = 0;
  }
}
