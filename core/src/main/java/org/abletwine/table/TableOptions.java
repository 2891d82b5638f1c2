package org.abletwine.table;

import java.util.List;
import java.util.Map;
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
 */
public record TableOptions(
    @Nullable Character delimiter,
    @Nullable Character quote,
    @Nullable Boolean header,
    @Nullable String encoding,
    List<String> nulls,
    boolean pad,
    Map<String, ColumnType> types) {
  /** Nothing stated: all is found from the data. */
  public static final TableOptions NONE =
      new TableOptions(null, null, null, null, List.of(), false);

  /** Copies the list and the map. */
  public TableOptions {
    nulls = List.copyOf(nulls);
    types = Map.copyOf(types);
  }

  /** States everything but types. */
  public TableOptions(
      @Nullable Character delimiter,
      @Nullable Character quote,
      @Nullable Boolean header,
      @Nullable String encoding,
      List<String> nulls,
      boolean pad) {
    this(delimiter, quote, header, encoding, nulls, pad, Map.of());
  }
}
