package org.abletwine.audit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowFilter;
import org.abletwine.key.NormaliseStep;
import org.abletwine.key.encode.EncodedKeys;
import org.abletwine.key.encode.KeyEncoder;
import org.abletwine.match.NearMiss;
import org.abletwine.match.near.NearKeys;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchReader;
import org.abletwine.table.batch.OneRow;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Finds the records of a table by some of its columns, in one reading. Used by one thread; for many
 * lookups there is {@link org.abletwine.lookup.Lookup#load}.
 */
public final class RecordFinder {
  private static final int MOST_VALUES = 1_000_000;
  private static final int NEAR = 3;

  private final Table table;
  private final List<NormaliseStep> normalise;
  private final @Nullable RowFilter condition;

  /**
   * Looks in all records of a table.
   *
   * @param table where to look
   * @param normalise steps applied to both sides for comparing
   */
  public RecordFinder(Table table, List<NormaliseStep> normalise) {
    this(table, normalise, null);
  }

  /**
   * Looks in those records of a table that meet a condition.
   *
   * @param table where to look
   * @param normalise steps applied to both sides for comparing
   * @param where a SQL condition that a record must meet; null for none
   * @throws org.abletwine.table.SettingException when the condition cannot be read
   */
  public RecordFinder(Table table, List<NormaliseStep> normalise, @Nullable String where) {
    Objects.requireNonNull(table, "table");
    Objects.requireNonNull(normalise, "normalise");
    this.condition = where == null ? null : RowFilter.parse(where, table);
    this.table = table;
    table.readAgain();
    this.normalise = List.copyOf(normalise);
  }

  /**
   * A value and how many rows have it.
   *
   * @param value the value as written; null for null
   * @param rows rows
   */
  public record Choice(@Nullable String value, long rows) {}

  /**
   * What was found.
   *
   * @param columns the table's columns
   * @param rows how many rows fit
   * @param records the first of them, by row number, 1-based
   * @param choices for each open column the values it can still take, most frequent first
   * @param nearMisses for each given column whose value stands nowhere, the values most like it
   * @param apart whether each given value stands somewhere, but never together
   */
  public record Found(
      List<String> columns,
      long rows,
      Map<Long, List<@Nullable String>> records,
      Map<String, List<Choice>> choices,
      Map<String, List<NearMiss>> nearMisses,
      boolean apart) {}

  /**
   * Looks for rows.
   *
   * @param given the columns that are known, with their values; may be empty
   * @param open the columns whose remaining values are asked for
   * @param most how many records to keep
   * @return what was found
   * @throws org.abletwine.table.DataException when the table cannot be read
   */
  public Found find(Map<String, String> given, List<String> open, int most) {
    Objects.requireNonNull(given, "given");
    Objects.requireNonNull(open, "open");
    int[] columns = given.keySet().stream().mapToInt(table.schema()::indexOf).toArray();
    List<KeyEncoder> encoders = new ArrayList<>();
    List<byte[]> wanted = new ArrayList<>();
    int part = 0;
    for (String value : given.values()) {
      encoders.add(new KeyEncoder(new int[] {columns[part++]}, List.of(normalise)));
      EncodedKeys one = new EncodedKeys();
      new KeyEncoder(new int[] {0}, List.of(normalise)).encode(OneRow.of(value), one);
      wanted.add(java.util.Arrays.copyOf(one.bytes, one.ends[1]));
    }
    Map<String, Map<@Nullable String, long[]>> counts = new LinkedHashMap<>();
    open.forEach(column -> counts.put(column, new LinkedHashMap<>()));
    Map<Long, List<@Nullable String>> records = new LinkedHashMap<>();
    boolean[] standsSomewhere = new boolean[columns.length];
    long rows = 0;
    EncodedKeys[] keys = new EncodedKeys[columns.length];
    java.util.Arrays.setAll(keys, i -> new EncodedKeys());
    Expression passes = condition == null ? null : condition.start();
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next(); batch != null; batch = reader.next()) {
        if (passes != null) {
          passes.over(batch);
        }
        for (int i = 0; i < columns.length; i++) {
          encoders.get(i).encode(batch, keys[i]);
        }
        for (int row = 0; row < batch.rows(); row++) {
          boolean fits = passes == null || passes.isTrue(row);
          for (int i = 0; i < columns.length; i++) {
            boolean same = same(keys[i], row, wanted.get(i));
            standsSomewhere[i] |= same;
            fits &= same;
          }
          if (fits) {
            rows++;
            count(batch, row, counts);
            if (records.size() < most) {
              records.put(batch.rowNumber(row), cells(batch, row));
            }
          }
        }
      }
    }
    Map<String, List<NearMiss>> near = new LinkedHashMap<>();
    boolean apart = rows == 0 && condition == null;
    int at = 0;
    for (Map.Entry<String, String> one : given.entrySet()) {
      if (!standsSomewhere[at++]) {
        apart = false;
        near.put(one.getKey(), near(one.getKey(), one.getValue()));
      }
    }
    return new Found(table.schema().names(), rows, records, choices(counts), near, apart);
  }

  private static boolean same(EncodedKeys keys, int row, byte[] wanted) {
    return java.util.Arrays.equals(
        keys.bytes, keys.ends[row], keys.ends[row + 1], wanted, 0, wanted.length);
  }

  private void count(Batch batch, int row, Map<String, Map<@Nullable String, long[]>> counts) {
    counts.forEach(
        (column, values) -> {
          String cell = batch.column(table.schema().indexOf(column)).get(row);
          String value = Veil.over(table.isPrivate(column), cell);
          if (values.size() < MOST_VALUES || values.containsKey(value)) {
            values.computeIfAbsent(value, v -> new long[1])[0]++;
          }
        });
  }

  private List<@Nullable String> cells(Batch batch, int row) {
    List<@Nullable String> cells = new ArrayList<>();
    for (int column = 0; column < batch.baseColumns(); column++) {
      boolean hidden = table.isPrivate(table.schema().names().get(column));
      cells.add(Veil.over(hidden, batch.column(column).get(row)));
    }
    return cells;
  }

  private static Map<String, List<Choice>> choices(
      Map<String, Map<@Nullable String, long[]>> counts) {
    Map<String, List<Choice>> choices = new LinkedHashMap<>();
    counts.forEach(
        (column, values) -> {
          List<Choice> all = new ArrayList<>();
          values.forEach((value, rows) -> all.add(new Choice(value, rows[0])));
          all.sort(Comparator.comparingLong(Choice::rows).reversed());
          choices.put(column, all);
        });
    return choices;
  }

  private List<NearMiss> near(String column, String value) {
    if (table.isPrivate(column)) {
      return List.of();
    }
    Map<@Nullable String, long[]> values = new LinkedHashMap<>();
    int at = table.schema().indexOf(column);
    try (BatchReader reader = new BatchReader(table)) {
      for (Batch batch = reader.next();
          batch != null && values.size() < MOST_VALUES;
          batch = reader.next()) {
        for (int row = 0; row < batch.rows(); row++) {
          String cell = batch.column(at).get(row);
          if (cell != null) {
            values.putIfAbsent(cell.strip(), new long[0]);
          }
        }
      }
    }
    List<String> keys = new ArrayList<>();
    values.keySet().forEach(key -> keys.add(String.valueOf(key)));
    return new NearKeys(keys).search().nearest(value.strip(), NEAR);
  }

  @Override
  public String toString() {
    return "RecordFinder[" + table.name() + "]";
  }
}
