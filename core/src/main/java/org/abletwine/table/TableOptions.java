package org.abletwine.table;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * How a table is to be read, where that is stated; what is null is found from the data. Immutable.
 *
 * @param delimiter the character between cells
 * @param quote the quote character
 * @param header whether the first row holds the column names
 * @param encoding the name of the character encoding
 * @param nulls words that, unquoted, stand for null beside the empty cell
 * @param pad whether short rows are filled up with nulls in place of being refused
 * @param types what columns hold, by name, where that is stated
 * @param nested whether objects within objects give columns of their own, such as {@code
 *     address.city}, in place of one that holds them as text
 * @param sheet which part of a workbook the table is; null for its only sheet
 * @param source a column to add that holds the name of the file a row is of; null for none
 * @param hidden columns, of this table or of others, whose values are shown nowhere but in rows
 *     that come out
 */
public record TableOptions(
    @Nullable Character delimiter,
    @Nullable Character quote,
    @Nullable Boolean header,
    @Nullable String encoding,
    List<String> nulls,
    boolean pad,
    Map<String, ColumnType> types,
    boolean nested,
    @Nullable SheetPart sheet,
    @Nullable String source,
    Set<String> hidden) {
  /** Nothing stated: all is found from the data. */
  public static final TableOptions NONE =
      new TableOptions(null, null, null, null, List.of(), false);

  /**
   * Copies the list and the map.
   *
   * @throws SettingException when the delimiter or the quote is not ASCII: text is read as bytes
   */
  public TableOptions {
    plain("delimiter", delimiter);
    plain("quote", quote);
    nulls = List.copyOf(nulls);
    types = Map.copyOf(types);
    hidden = Set.copyOf(hidden);
  }

  private static void plain(String what, @Nullable Character character) {
    if (character != null && character >= 0x80) {
      throw new SettingException(
          what
              + ": must be an ASCII character, such as "
              + (what.equals("quote") ? "\" or '" : "the comma, the semicolon, tab or |")
              + ", not \""
              + character
              + "\"; write the file anew with one of these");
    }
  }

  /**
   * Returns the same with another column for the name of the file.
   *
   * @param column the column to add; null for none
   */
  public TableOptions withSource(@Nullable String column) {
    return new TableOptions(
        delimiter, quote, header, encoding, nulls, pad, types, nested, sheet, column, hidden);
  }

  /**
   * Returns the same, with short rows filled up or not.
   *
   * @param filled whether they are filled up with nulls
   */
  public TableOptions withPad(boolean filled) {
    return new TableOptions(
        delimiter, quote, header, encoding, nulls, filled, types, nested, sheet, source, hidden);
  }

  /**
   * Returns the same, with objects within objects as columns or not.
   *
   * @param columns whether they give columns of their own
   */
  public TableOptions withNested(boolean columns) {
    return new TableOptions(
        delimiter, quote, header, encoding, nulls, pad, types, columns, sheet, source, hidden);
  }

  /**
   * Returns the same, with what columns hold.
   *
   * @param stated the types of columns, by name
   */
  public TableOptions withTypes(Map<String, ColumnType> stated) {
    return new TableOptions(
        delimiter, quote, header, encoding, nulls, pad, stated, nested, sheet, source, hidden);
  }

  /**
   * Returns the same for another part of a workbook.
   *
   * @param part the sheet and where in it; null for the only sheet
   */
  public TableOptions withSheet(@Nullable SheetPart part) {
    return new TableOptions(
        delimiter, quote, header, encoding, nulls, pad, types, nested, part, source, hidden);
  }

  /**
   * Returns the same, with columns kept private.
   *
   * @param columns their names; those that the table has not are passed over
   */
  public TableOptions withPrivate(Set<String> columns) {
    return new TableOptions(
        delimiter, quote, header, encoding, nulls, pad, types, nested, sheet, source, columns);
  }

  /** States everything but types, what is nested and where rows come from. */
  public TableOptions(
      @Nullable Character delimiter,
      @Nullable Character quote,
      @Nullable Boolean header,
      @Nullable String encoding,
      List<String> nulls,
      boolean pad) {
    this(delimiter, quote, header, encoding, nulls, pad, Map.of(), false, null, null, Set.of());
  }
}
