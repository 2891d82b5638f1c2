package org.abletwine.formats;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** A table of rows in memory, for tests; and the rows of any table. */
public record OwnRows(
    List<String> names, List<List<@Nullable String>> cells, Map<String, ColumnType> types)
    implements Table {

  public OwnRows(List<String> names, List<List<@Nullable String>> cells) {
    this(names, cells, new HashMap<>());
  }

  @Override
  public String name() {
    return "own";
  }

  @Override
  public Schema schema() {
    return new Schema(names);
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return types.get(column);
  }

  @Override
  public Rows rows() {
    Iterator<List<@Nullable String>> left = cells.iterator();
    return new Rows() {
      @Override
      public @Nullable List<@Nullable String> next() {
        return left.hasNext() ? left.next() : null;
      }

      @Override
      public void close() {}
    };
  }

  /** All rows of a table. */
  public static List<List<@Nullable String>> of(Table table) {
    List<List<@Nullable String>> all = new ArrayList<>();
    try (Rows rows = table.rows()) {
      for (List<@Nullable String> row = rows.next(); row != null; row = rows.next()) {
        all.add(row);
      }
    }
    return all;
  }
}
