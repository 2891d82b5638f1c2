package org.abletwine.formats.workbook;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import org.abletwine.table.ColumnType;
import org.jspecify.annotations.Nullable;

/** Rows of an {@code .xlsx} sheet. Cells and rows stand one after another and need no numbers. */
final class XlsxEncoder extends SheetEncoder {
  /** Characters that a cell holds at most. */
  private static final int MOST_CHARACTERS = 32_767;

  /** The first day that all programs count alike; it is day 61. */
  private static final long FIRST_DAY = LocalDate.of(1900, 3, 1).toEpochDay();

  private static final long DAY_ZERO = LocalDate.of(1899, 12, 30).toEpochDay();

  private static final byte[] ROW = ascii("<row>");
  private static final byte[] ROW_END = ascii("</row>\n");
  private static final byte[] NOTHING = ascii("<c/>");
  private static final byte[] TEXT = ascii("<c s=\"2\" t=\"inlineStr\"><is><t>");
  private static final byte[] SPACED =
      ascii("<c s=\"2\" t=\"inlineStr\"><is><t xml:space=\"preserve\">");
  private static final byte[] TEXT_END = ascii("</t></is></c>");
  private static final byte[] VALUE_END = ascii("</v></c>");
  private static final byte[] DAY = ascii("<c s=\"3\"><v>");
  private static final byte[] TIME = ascii("<c s=\"4\"><v>");
  private static final byte[] TRUE = ascii("<c s=\"5\" t=\"b\"><v>1</v></c>");
  private static final byte[] FALSE = ascii("<c s=\"5\" t=\"b\"><v>0</v></c>");

  /** What begins a number with so many decimal places. */
  private static final byte[][] NUMBERS = new byte[XlsxParts.MOST_PLACES + 1][];

  static {
    for (int places = 0; places < NUMBERS.length; places++) {
      NUMBERS[places] = ascii("<c s=\"" + (XlsxParts.FIRST_PLACES + places) + "\"><v>");
    }
  }

  private final int[] styles;

  /**
   * @param styles for each column whose numbers have a form of their own which of the book's forms
   */
  XlsxEncoder(List<String> names, List<@Nullable ColumnType> types, int[] styles) {
    super(names, types);
    this.styles = styles.clone();
  }

  @Override
  void beginRow() {
    put(ROW);
  }

  @Override
  void endRow() {
    put(ROW_END);
  }

  @Override
  void nothing() {
    put(NOTHING);
  }

  @Override
  void number(byte[] text, int start, int end, int places) {
    put(NUMBERS[places]);
    put(text, start, end);
    put(VALUE_END);
  }

  @Override
  void formed(byte[] number, int column) {
    put("<c s=\"" + (XlsxParts.FIRST_FORM + styles[column]) + "\"><v>");
    put(number);
    put(VALUE_END);
  }

  @Override
  void truth(boolean value) {
    put(value ? TRUE : FALSE);
  }

  @Override
  boolean day(long day) {
    if (day < FIRST_DAY) {
      return false;
    }
    put(DAY);
    put(Long.toString(day - DAY_ZERO));
    put(VALUE_END);
    return true;
  }

  @Override
  boolean time(long day, int second) {
    if (day < FIRST_DAY) {
      return false;
    }
    put(TIME);
    put(Double.toString(day - DAY_ZERO + share(second)));
    put(VALUE_END);
    return true;
  }

  @Override
  void text(byte[] text, int start, int end) {
    if (end - start > MOST_CHARACTERS && characters(text, start, end) > MOST_CHARACTERS) {
      throw new CannotHold(
          "a text of "
              + characters(text, start, end)
              + " characters; a cell of a workbook holds "
              + MOST_CHARACTERS
              + ": write .csv, or cut it with compute");
    }
    boolean spaced = start < end && (text[start] <= ' ' || text[end - 1] <= ' ');
    put(spaced ? SPACED : TEXT);
    escaped(text, start, end);
    put(TEXT_END);
  }

  /** Characters as these programs count them, in units of UTF-16. */
  private static int characters(byte[] text, int start, int end) {
    return new String(text, start, end - start, StandardCharsets.UTF_8).length();
  }

  private void escaped(byte[] text, int start, int end) {
    int from = start;
    for (int at = start; at < end; at++) {
      byte c = text[at];
      String instead = null;
      int taken = 1;
      if (c == '<') {
        instead = "&lt;";
      } else if (c == '>') {
        instead = "&gt;";
      } else if (c == '&') {
        instead = "&amp;";
      } else if (c >= 0 && c < ' ' && c != '\t' && c != '\n') {
        instead = Escapes.of(c);
      } else if (c == '_' && Escapes.begins(text, at, end)) {
        instead = Escapes.of('_');
      } else if (c == (byte) 0xEF && text[at + 1] == (byte) 0xBF && (text[at + 2] & 0xFE) == 0xBE) {
        instead = Escapes.of(0xFFFE + (text[at + 2] & 1)); // the two that are no characters
        taken = 3;
      }
      if (instead != null) {
        put(text, from, at);
        put(instead);
        at += taken - 1;
        from = at + 1;
      }
    }
    put(text, from, end);
  }

  @Override
  void header(List<String> columns) {
    put(ROW);
    for (String column : columns) {
      byte[] name = column.getBytes(StandardCharsets.UTF_8);
      put("<c s=\"1\" t=\"inlineStr\"><is><t xml:space=\"preserve\">");
      escaped(name, 0, name.length);
      put(TEXT_END);
    }
    put(ROW_END);
  }
}
