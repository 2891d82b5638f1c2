package org.abletwine.table;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.abletwine.table.text.CellValue;
import org.jspecify.annotations.Nullable;

/**
 * A row, by the names of its columns: text as it was written, or a value of Java. Immutable, and
 * safe to share between threads.
 */
public final class Row {
  private final String table;
  private final Schema schema;
  private final List<@Nullable ColumnType> types;
  private final long number;
  private final @Nullable String[] cells;

  /**
   * Takes a row.
   *
   * @param table what it is of, for messages
   * @param schema its columns
   * @param types what the columns hold, in order; null where that is not known
   * @param number its number among the rows, 1-based
   * @param cells its cells in the order of the columns, null for null; copied
   */
  public Row(
      String table,
      Schema schema,
      List<@Nullable ColumnType> types,
      long number,
      List<@Nullable String> cells) {
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(schema, "schema");
    Objects.requireNonNull(types, "types");
    Objects.requireNonNull(cells, "cells");
    this.table = table;
    this.schema = schema;
    this.types = types;
    this.number = number;
    this.cells = cells.toArray(new @Nullable String[0]);
    if (this.cells.length != schema.size() || types.size() != schema.size()) {
      throw new IllegalArgumentException(
          schema.size() + " columns, " + types.size() + " types, " + this.cells.length + " cells");
    }
  }

  /** {@return the columns} */
  public Schema schema() {
    return schema;
  }

  /** {@return which of the rows it is, 1-based} */
  public long number() {
    return number;
  }

  /**
   * A cell as it was written.
   *
   * @param column the column
   * @return its text, or null for null
   * @throws SettingException when there is no such column, naming the nearest
   */
  public @Nullable String get(String column) {
    Objects.requireNonNull(column, "column");
    return cells[schema.require(column, table)];
  }

  private CellValue cell(String column) {
    int at = schema.require(column, table);
    return new CellValue(table, number, column, types.get(at), cells[at]);
  }

  /**
   * A cell as an exact number.
   *
   * @param column the column
   * @return the number, or null for null
   * @throws SettingException when there is no such column, naming the nearest
   * @throws DataException when it is no number
   */
  public @Nullable BigDecimal decimal(String column) {
    Objects.requireNonNull(column, "column");
    return cell(column).decimal();
  }

  /**
   * A cell as a whole number; {@code 5.0} is one.
   *
   * @param column the column
   * @return the number, or null for null
   * @throws SettingException when there is no such column, naming the nearest
   * @throws DataException when it is no whole number, or one that a long does not hold
   */
  public @Nullable Long integer(String column) {
    Objects.requireNonNull(column, "column");
    return cell(column).integer();
  }

  /**
   * A cell as a day: as the type of the column says it is written, else as in 2026-07-20.
   *
   * @param column the column
   * @return the day, or null for null
   * @throws SettingException when there is no such column, naming the nearest
   * @throws DataException when it is no day, or one with a time of day
   */
  public @Nullable LocalDate date(String column) {
    Objects.requireNonNull(column, "column");
    return cell(column).date();
  }

  /**
   * A cell as a day with a time of day, midnight where none is written.
   *
   * @param column the column
   * @return the time, or null for null
   * @throws SettingException when there is no such column, naming the nearest
   * @throws DataException when it is no such time
   */
  public @Nullable LocalDateTime dateTime(String column) {
    Objects.requireNonNull(column, "column");
    return cell(column).dateTime();
  }

  /**
   * A cell as a truth value.
   *
   * @param column the column
   * @return the value, or null for null
   * @throws SettingException when there is no such column, naming the nearest
   * @throws DataException when it is neither {@code true} nor {@code false}
   */
  public @Nullable Boolean truth(String column) {
    Objects.requireNonNull(column, "column");
    return cell(column).truth();
  }

  /** {@return the cells by the names of their columns, in order; null for null} */
  public Map<String, @Nullable String> map() {
    Map<String, @Nullable String> map = new LinkedHashMap<>();
    for (int at = 0; at < cells.length; at++) {
      map.put(schema.names().get(at), cells[at]);
    }
    return Collections.unmodifiableMap(map);
  }

  /**
   * The row as a record. Each component takes the column of its name, be it written {@code netKg}
   * or {@code net_kg}; columns that no component asks for are passed over.
   *
   * @param <R> the kind of record
   * @param type the class of the record; its components are texts, numbers, truth values, dates,
   *     date-times or constants of an enum
   * @return a record
   * @throws SettingException when a component has no column, or is of another type
   * @throws DataException when a cell is no such value, or null where a component cannot be
   */
  public <R extends Record> R as(Class<R> type) {
    Objects.requireNonNull(type, "type");
    return RecordShape.of(type).record(this::cell, schema, table);
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof Row row
        && Arrays.equals(row.cells, cells)
        && row.schema.names().equals(schema.names());
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(cells);
  }

  @Override
  public String toString() {
    String text = map().toString();
    return "Row" + (text.length() <= 500 ? text : text.substring(0, 500) + "...");
  }
}
