package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/**
 * How a table is to be written, where that is stated; what is null is as in the transactions, or as
 * is usual for the kind of file. Immutable.
 *
 * @param delimiter the character between cells of text
 * @param encoding the name of the character encoding of text; null for UTF-8
 * @param lineEnd what ends a line of text
 * @param mark whether text begins with a byte-order mark
 * @param unknown what stands for a character that the encoding has not; null when that is an error
 * @param decimal an example of how numbers with decimal places are written as text, such as {@code
 *     1.234,56}; null for a point alone
 * @param sheet the sheet of a workbook
 */
public record OutputOptions(
    @Nullable Character delimiter,
    @Nullable String encoding,
    @Nullable String lineEnd,
    @Nullable Boolean mark,
    @Nullable String unknown,
    @Nullable String decimal,
    @Nullable String sheet) {
  /** Nothing stated. */
  public static final OutputOptions NONE =
      new OutputOptions(null, null, null, null, null, null, null);

  /**
   * {@return the same for a sheet of a workbook}
   *
   * @param name the sheet's name
   */
  public OutputOptions withSheet(@Nullable String name) {
    return new OutputOptions(delimiter, encoding, lineEnd, mark, unknown, decimal, name);
  }

  /** {@return whether anything is stated that only text has} */
  public boolean ofText() {
    return !withSheet(null).equals(NONE);
  }
}
