package org.abletwine.plan.draft;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.jspecify.annotations.Nullable;

/**
 * A table, or rows of it taken at even distances: all of it while it has no more rows than wanted,
 * else every second, every fourth and so on. The same rows for the same table.
 */
final class SampleTable implements Table {
  private final String name;
  private final List<SampleColumn> columns = new ArrayList<>();
  private final Set<String> hidden = new HashSet<>();
  private long allRows;
  private int step = 1;

  private SampleTable(String name) {
    this.name = name;
  }

  /**
   * Reads a table.
   *
   * @param table the table
   * @param most how many rows at most
   */
  static SampleTable of(Table table, int most) {
    return of(table, most, false);
  }

  /** The same, dates that are written in a way of their own as ISO 8601, so that they compare. */
  static SampleTable comparable(Table table, int most) {
    return of(table, most, true);
  }

  private static SampleTable of(Table table, int most, boolean dates) {
    table.readAgain();
    SampleTable sample = new SampleTable(table.name());
    for (String name : table.schema().names()) {
      ColumnType type = table.type(name);
      boolean days =
          dates
              && type != null
              && type.kind() == ColumnType.Kind.DATE
              && !type.patterns().isEmpty();
      SampleColumn column = new SampleColumn(name);
      if (table.isPrivate(name)) {
        sample.hidden.add(name);
      }
      sample.columns.add(days && type != null ? column.dated(type.patterns()) : column);
    }
    int kept = 0;
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        for (int row = 0; row < batch.rows(); row++) {
          if (sample.allRows++ % sample.step != 0) {
            continue;
          }
          for (int column = 0; column < sample.columns.size(); column++) {
            sample.columns.get(column).add(batch.column(column).get(row));
          }
          if (++kept > most) {
            sample.columns.forEach(SampleColumn::thin);
            sample.step *= 2;
            kept = (kept + 1) / 2;
          }
        }
      }
    }
    return sample;
  }

  static SampleTable empty(String name) {
    return new SampleTable(name);
  }

  /** States columns whose values are not to be told. */
  void hide(Collection<String> names) {
    hidden.addAll(names);
  }

  @Override
  public boolean isPrivate(String column) {
    return hidden.contains(column);
  }

  /** Adds a column that was fetched. */
  void add(SampleColumn column) {
    columns.add(column);
  }

  List<SampleColumn> columns() {
    return columns;
  }

  SampleColumn column(String column) {
    return columns.get(schema().indexOf(column));
  }

  boolean has(String column) {
    return columns.stream().anyMatch(one -> one.name().equals(column));
  }

  int count() {
    return columns.get(0).rows();
  }

  /** Rows of the whole table. */
  long allRows() {
    return allRows;
  }

  boolean whole() {
    return step == 1;
  }

  @Override
  public String name() {
    return name;
  }

  @Override
  public Schema schema() {
    return new Schema(columns.stream().map(SampleColumn::name).toList());
  }

  @Override
  public Rows rows() {
    return new Rows() {
      private int row;

      @Override
      public @Nullable List<@Nullable String> next() {
        if (row == count()) {
          return null;
        }
        List<@Nullable String> cells = new ArrayList<>();
        for (SampleColumn column : columns) {
          cells.add(column.value(row));
        }
        row++;
        return cells;
      }

      @Override
      public void close() {
        // nothing is open
      }
    };
  }
}
