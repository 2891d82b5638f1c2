package org.abletwine.formats.workbook;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.List;
import org.abletwine.table.ColumnType;
import org.abletwine.table.text.NumberForm;
import org.jspecify.annotations.Nullable;

/** Rows of an {@code .ods} sheet. */
final class OdsEncoder extends SheetEncoder {
  private static final byte[] ROW = ascii("<table:table-row>");
  private static final byte[] ROW_END = ascii("</table:table-row>\n");
  private static final byte[] NOTHING = ascii("<table:table-cell/>");
  private static final byte[] TEXT =
      ascii("<table:table-cell table:style-name=\"text\" office:value-type=\"string\"><text:p>");
  private static final byte[] END = ascii("</text:p></table:table-cell>");
  private static final byte[] PARAGRAPH = ascii("</text:p><text:p>");

  private final int[] styles;
  private final @Nullable NumberForm[] forms;

  /**
   * @param styles for each column whose numbers have a form of their own which of the book's forms
   */
  OdsEncoder(List<String> names, List<@Nullable ColumnType> types, int[] styles) {
    super(names, types);
    this.styles = styles.clone();
    this.forms = forms(names.size(), types);
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

  private void begin(String style, String type, String value) {
    put("<table:table-cell table:style-name=\"" + style + "\" office:value-type=\"" + type + "\" ");
    put("office:" + value + "\"><text:p>");
  }

  @Override
  void number(byte[] text, int start, int end, int places) {
    put("<table:table-cell table:style-name=\"n" + places + "\" ");
    put("office:value-type=\"float\" office:value=\"");
    put(text, start, end);
    put("\"><text:p>");
    put(text, start, end);
    put(END);
  }

  @Override
  void formed(byte[] number, int column) {
    NumberForm form = forms[column];
    String kind = form != null && form.percent() ? "percentage" : "float";
    put("<table:table-cell table:style-name=\"f" + styles[column] + "\" ");
    put("office:value-type=\"" + kind + "\" office:value=\"");
    put(number);
    put("\"><text:p>");
    put(number);
    put(END);
  }

  @Override
  void truth(boolean value) {
    begin("truth", "boolean", "boolean-value=\"" + value);
    put(value ? "TRUE" : "FALSE");
    put(END);
  }

  @Override
  boolean day(long day) {
    String iso = LocalDate.ofEpochDay(day).toString();
    begin("day", "date", "date-value=\"" + iso);
    put(iso);
    put(END);
    return true;
  }

  @Override
  boolean time(long day, int second) {
    String iso =
        CellNumbers.time(LocalDate.ofEpochDay(day).atTime(LocalTime.ofSecondOfDay(second)));
    begin("time", "date", "date-value=\"" + iso);
    put(iso.replace('T', ' '));
    put(END);
    return true;
  }

  @Override
  void text(byte[] text, int start, int end) {
    put(TEXT);
    int from = start;
    boolean space = true; // one at the beginning would be lost
    for (int at = start; at < end; at++) {
      byte c = text[at];
      boolean last = at == end - 1 || text[at + 1] == '\n';
      if (c == ' ' && (space || last)) {
        put(text, from, at);
        put("<text:s/>");
        from = at + 1;
      } else if (c == '<' || c == '>' || c == '&' || c >= 0 && c < ' ') {
        put(text, from, at);
        special(c);
        from = at + 1;
      } else if (c == (byte) 0xEF && text[at + 1] == (byte) 0xBF && (text[at + 2] & 0xFE) == 0xBE) {
        throw cannot(0xFFFE + (text[at + 2] & 1));
      }
      space = c == ' ' || c == '\n' || c == '\t';
    }
    put(text, from, end);
    put(END);
  }

  private void special(byte c) {
    switch (c) {
      case '<' -> put("&lt;");
      case '>' -> put("&gt;");
      case '&' -> put("&amp;");
      case '\n' -> put(PARAGRAPH);
      case '\t' -> put("<text:tab/>");
      case '\r' -> put("&#13;");
      default -> throw cannot(c);
    }
  }

  private static CannotHold cannot(int c) {
    return new CannotHold(
        String.format(
            "the character U+%04X, which an .ods file cannot hold; write .xlsx or .csv, or take it"
                + " out with compute",
            c));
  }

  @Override
  void header(List<String> columns) {
    put("<table:table-header-rows><table:table-row>");
    for (String column : columns) {
      byte[] name = column.getBytes(StandardCharsets.UTF_8);
      text(name, 0, name.length);
    }
    put("</table:table-row></table:table-header-rows>\n");
  }
}
