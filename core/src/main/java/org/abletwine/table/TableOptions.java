package org.abletwine.table;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
    @Nullable Sheet sheet,
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
    Objects.requireNonNull(nulls, "nulls");
    Objects.requireNonNull(types, "types");
    Objects.requireNonNull(hidden, "hidden");
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
   * Begins options with nothing stated: all is found from the data.
   *
   * @return a builder
   */
  public static Builder builder() {
    return NONE.but();
  }

  /**
   * Begins options that are the same but for what is then stated.
   *
   * @return a builder that begins with these
   */
  public Builder but() {
    return new Builder(this);
  }

  /**
   * States everything but types, what is nested and where rows come from.
   *
   * @param delimiter what stands between cells; null to find it from the data
   * @param quote the quote character; null to find it from the data
   * @param header whether the first row holds the names; null to find it from the data
   * @param encoding the name of the encoding; null for UTF-8, or what a byte-order mark says
   * @param nulls words that, unquoted, stand for null
   * @param pad whether rows with too few cells are filled up with nulls
   */
  public TableOptions(
      @Nullable Character delimiter,
      @Nullable Character quote,
      @Nullable Boolean header,
      @Nullable String encoding,
      List<String> nulls,
      boolean pad) {
    this(delimiter, quote, header, encoding, nulls, pad, Map.of(), false, null, null, Set.of());
  }

  /** Collects options. Not safe for use by several threads at once. */
  public static final class Builder {
    private @Nullable Character delimiter;
    private @Nullable Character quote;
    private @Nullable Boolean header;
    private @Nullable String encoding;
    private List<String> nulls;
    private boolean pad;
    private Map<String, ColumnType> types;
    private boolean nested;
    private @Nullable Sheet sheet;
    private @Nullable String source;
    private Set<String> hidden;

    private Builder(TableOptions from) {
      delimiter = from.delimiter;
      quote = from.quote;
      header = from.header;
      encoding = from.encoding;
      nulls = from.nulls;
      pad = from.pad;
      types = from.types;
      nested = from.nested;
      sheet = from.sheet;
      source = from.source;
      hidden = from.hidden;
    }

    /**
     * States the character between cells, of ASCII; found from the data unless stated.
     *
     * @param between an ASCII character; null to find it from the data
     * @return this builder
     */
    public Builder delimiter(@Nullable Character between) {
      delimiter = between;
      return this;
    }

    /**
     * States the quote character, of ASCII; found from the data unless stated.
     *
     * @param character an ASCII character; null to find it from the data
     * @return this builder
     */
    public Builder quote(@Nullable Character character) {
      quote = character;
      return this;
    }

    /**
     * States whether the first row holds the column names; found from the data unless stated.
     *
     * @param first whether it does; null to find it from the data
     * @return this builder
     */
    public Builder header(@Nullable Boolean first) {
      header = first;
      return this;
    }

    /**
     * States the name of the character encoding; found from the data unless stated.
     *
     * @param name such as {@code windows-1252}; null for UTF-8, or what a byte-order mark says
     * @return this builder
     */
    public Builder encoding(@Nullable String name) {
      encoding = name;
      return this;
    }

    /**
     * States words that, unquoted, stand for null beside the empty cell; none unless stated.
     *
     * @param words the words; the empty cell is null in any case
     * @return this builder
     */
    public Builder nulls(List<String> words) {
      Objects.requireNonNull(words, "words");
      nulls = words;
      return this;
    }

    /**
     * States that short rows are filled up with nulls; they are refused unless stated.
     *
     * @param filled whether they are
     * @return this builder
     */
    public Builder pad(boolean filled) {
      pad = filled;
      return this;
    }

    /**
     * States what columns hold, by name; none unless stated.
     *
     * @param stated types by the name of the column
     * @return this builder
     */
    public Builder types(Map<String, ColumnType> stated) {
      Objects.requireNonNull(stated, "stated");
      types = stated;
      return this;
    }

    /**
     * States what one column holds, beside those stated before.
     *
     * @param column the name of the column
     * @param type what it holds
     * @return this builder
     */
    public Builder type(String column, ColumnType type) {
      Objects.requireNonNull(column, "column");
      Objects.requireNonNull(type, "type");
      Map<String, ColumnType> more = new HashMap<>(types);
      more.put(column, type);
      types = more;
      return this;
    }

    /**
     * States that objects within objects give columns of their own, such as {@code address.city};
     * one column holds them as text unless stated.
     *
     * @param columns the names of the columns
     * @return this builder
     */
    public Builder nested(boolean columns) {
      nested = columns;
      return this;
    }

    /**
     * States which part of a workbook the table is; its only sheet unless stated.
     *
     * @param part the sheet and where on it the table is; null for the first
     * @return this builder
     */
    public Builder sheet(@Nullable Sheet part) {
      sheet = part;
      return this;
    }

    /**
     * States a column to add that holds the name of the file a row is of; none unless stated.
     *
     * @param column the name of the column
     * @return this builder
     */
    public Builder source(@Nullable String column) {
      source = column;
      return this;
    }

    /**
     * States columns, of this table or of others, whose values are shown nowhere but in rows that
     * come out; none unless stated.
     *
     * @param columns the names of the columns
     * @return this builder
     */
    public Builder keepPrivate(Set<String> columns) {
      Objects.requireNonNull(columns, "columns");
      hidden = columns;
      return this;
    }

    /**
     * Makes the options.
     *
     * @return the options
     * @throws SettingException when the delimiter or the quote is not ASCII
     */
    public TableOptions build() {
      return new TableOptions(
          delimiter, quote, header, encoding, nulls, pad, types, nested, sheet, source, hidden);
    }
  }

  /**
   * Which part of a workbook is a table.
   *
   * @param sheet the sheet's name, or its number from 1 on; null for the only one
   * @param headerRow the row that holds the names, 1-based; 0 for the first that is not blank
   * @param range the area of the table, its names included, such as {@code B4:H200}, {@code B:H} or
   *     {@code B4:H}; null for all of the sheet
   */
  public record Sheet(@Nullable String sheet, int headerRow, @Nullable String range) {
    /** The only sheet, all of it. */
    public static final Sheet FIRST = new Sheet(null, 0, null);

    /**
     * Checks the row.
     *
     * @throws SettingException when the row is negative
     */
    public Sheet {
      if (headerRow < 0) {
        throw new SettingException("header-row: rows are numbered from 1 on, found " + headerRow);
      }
    }
  }
}
