package org.abletwine.audit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.Workers;
import org.jspecify.annotations.Nullable;

/**
 * What a table holds.
 *
 * @param table its name
 * @param rows rows
 * @param columns a profile per column
 * @param pairs pairs of columns that could together be a key, though neither could alone; beside a
 *     single key, only pairs of text
 * @param pairsTried how many pairs were tried
 * @param nearest where nothing could be a key, the column or pair of columns nearest to one; null
 *     where something could, or nothing is known
 * @param remarks what a person should know about how the table was read
 */
public record TableProfile(
    String table,
    long rows,
    List<Column> columns,
    List<List<String>> pairs,
    int pairsTried,
    @Nullable Nearest nearest,
    List<String> remarks) {
  /**
   * What is nearest to a key.
   *
   * @param columns its columns
   * @param rows rows beyond the first of their key, and rows with a null in it
   */
  public record Nearest(List<String> columns, long rows) {
    /** Copies the list. */
    public Nearest {
      columns = List.copyOf(columns);
    }
  }

  /** Each takes memory for every column, and where rows end is found by one after the other. */
  private static final int MOST_WORKERS = 8;

  private static final int MOST_PAIRS = 60;

  /** Pairs of which is counted how far they are from a key: those that held out longest. */
  private static final int MOST_COUNTED = 5;

  private static final int MOST_PAIR_ROWS = 4_000_000;

  /** Copies the lists. */
  public TableProfile {
    columns = List.copyOf(columns);
    pairs = List.copyOf(pairs);
    remarks = List.copyOf(remarks);
  }

  /**
   * Reads a table and profiles it: once, and a second time to try pairs of columns, until each of
   * them has met a value twice.
   *
   * @param table the table
   * @return its profile
   * @throws DataException when it cannot be read
   */
  public static TableProfile of(Table table) {
    Objects.requireNonNull(table, "table");
    return of(table, Math.min(Workers.usual(), MOST_WORKERS));
  }

  /** As {@link #of(Table)}, by so many workers. */
  static TableProfile of(Table table, int workers) {
    table.readAgain();
    Gathered gathered = Gathered.of(table, workers);
    long rows = gathered.rows();
    List<Column> columns = gathered.columns();
    boolean single = columns.stream().anyMatch(Column::unique);
    List<int[]> candidates =
        rows < 2 || rows > MOST_PAIR_ROWS ? List.of() : pairs(columns, rows, single);
    List<int[]> heldOut = new ArrayList<>(candidates);
    List<List<String>> pairs = tried(table, heldOut);
    return new TableProfile(
        table.name(),
        rows,
        columns,
        pairs,
        candidates.size(),
        single || !pairs.isEmpty() || rows < 2 ? null : nearest(table, columns, rows, heldOut),
        table.remarks());
  }

  private static List<int[]> pairs(List<Column> columns, long rows, boolean textOnly) {
    List<int[]> pairs = new ArrayList<>();
    for (int a = 0; a < columns.size(); a++) {
      for (int b = a + 1; b < columns.size(); b++) {
        Column one = columns.get(a);
        Column other = columns.get(b);
        if (!one.unique()
            && !other.unique()
            && (!textOnly || text(one) && text(other))
            && one.nulls() + other.nulls() == 0
            && (double) one.distinct() * other.distinct() >= rows
            && pairs.size() < MOST_PAIRS) {
          pairs.add(new int[] {a, b});
        }
      }
    }
    return pairs;
  }

  private static boolean text(Column column) {
    return column.type().equals("text") || column.type().equals("code");
  }

  /**
   * Tries pairs.
   *
   * @param pairs the pairs; ordered by how long they held out, the longest first
   */
  private static List<List<String>> tried(Table table, List<int[]> pairs) {
    List<int[]> open = new ArrayList<>(pairs);
    List<int[]> out = new ArrayList<>();
    List<HashCounter> seen = new ArrayList<>();
    pairs.forEach(pair -> seen.add(new HashCounter(MOST_PAIR_ROWS)));
    if (!open.isEmpty()) {
      forEachBatch(
          table,
          batch -> {
            for (int i = open.size() - 1; i >= 0; i--) {
              if (!allNew(batch, open.get(i), seen.get(i))) {
                out.add(0, open.remove(i));
                seen.remove(i);
              }
            }
            return !open.isEmpty();
          });
    }
    pairs.clear();
    pairs.addAll(open);
    pairs.addAll(out);
    List<String> names = table.schema().names();
    return open.stream().map(pair -> List.of(names.get(pair[0]), names.get(pair[1]))).toList();
  }

  /** The column, or pair, with the fewest rows between it and a key. */
  private static @Nullable Nearest nearest(
      Table table, List<Column> columns, long rows, List<int[]> pairs) {
    Nearest best = null;
    for (Column column : columns) {
      long between = rows - column.distinct();
      if (column.exact() && column.distinct() > 1 && (best == null || between < best.rows())) {
        best = new Nearest(List.of(column.name()), between);
      }
    }
    List<int[]> counted = new ArrayList<>(pairs.subList(0, Math.min(MOST_COUNTED, pairs.size())));
    if (counted.size() < MOST_COUNTED && rows <= MOST_PAIR_ROWS) {
      counted.addAll(widest(columns, rows, MOST_COUNTED - counted.size(), counted));
    }
    List<HashCounter> seen = new ArrayList<>();
    counted.forEach(pair -> seen.add(new HashCounter(MOST_PAIR_ROWS)));
    if (!counted.isEmpty()) {
      forEachBatch(
          table,
          batch -> {
            for (int i = 0; i < counted.size(); i++) {
              count(batch, counted.get(i), seen.get(i));
            }
            return true;
          });
    }
    for (int i = 0; i < counted.size(); i++) {
      long between = rows - seen.get(i).count();
      if (seen.get(i).exact() && (best == null || between < best.rows())) {
        int[] pair = counted.get(i);
        best =
            new Nearest(List.of(columns.get(pair[0]).name(), columns.get(pair[1]).name()), between);
      }
    }
    return best;
  }

  /** Pairs that have too few values to be a key, those with the most first. */
  private static List<int[]> widest(List<Column> columns, long rows, int most, List<int[]> but) {
    List<int[]> pairs = new ArrayList<>();
    int wide = Math.min(columns.size(), MOST_PAIRS);
    for (int a = 0; a < wide; a++) {
      for (int b = a + 1; b < wide; b++) {
        int[] pair = {a, b};
        boolean full = (columns.get(a).nulls() + columns.get(b).nulls()) * 20 <= rows;
        if (full && but.stream().noneMatch(known -> Arrays.equals(known, pair))) {
          pairs.add(pair);
        }
      }
    }
    pairs.sort(
        Comparator.comparingDouble(
            pair -> -(double) columns.get(pair[0]).distinct() * columns.get(pair[1]).distinct()));
    return pairs.subList(0, Math.min(most, pairs.size()));
  }

  private static void count(Batch batch, int[] pair, HashCounter seen) {
    for (int row = 0; row < batch.rows(); row++) {
      seen.add(hash(batch, pair, row));
    }
  }

  private static long hash(Batch batch, int[] pair, int row) {
    long a = HashCounter.mixed(batch.column(pair[0]).hash(row));
    long b = HashCounter.mixed(batch.column(pair[1]).hash(row));
    return a * 31 + Long.rotateLeft(b, 17);
  }

  private static boolean allNew(Batch batch, int[] pair, HashCounter seen) {
    for (int row = 0; row < batch.rows(); row++) {
      if (!seen.add(hash(batch, pair, row))) {
        return false;
      }
    }
    return true;
  }

  private interface BatchAction {
    /** Takes a batch; returns whether to go on. */
    boolean take(Batch batch);
  }

  private static void forEachBatch(Table table, BatchAction action) {
    Workers.each(
        table,
        table.schema().size(),
        null,
        null,
        () ->
            new Workers.Worker() {
              private @Nullable Batch parsed;

              @Override
              public void work(Batch batch) {
                parsed = batch;
              }

              @Override
              public boolean inOrder() {
                Batch batch = parsed;
                parsed = null;
                return batch == null || action.take(batch);
              }
            });
  }

  /**
   * What a column holds.
   *
   * @param name the column
   * @param type whole number, code (digits, some with leading zeros), decimal, date, date and time,
   *     or text: what all values that are not null are; "empty" when there are none
   * @param spoiled what all values but a few are; null when there is no such type
   * @param written of a column of text how all its values are written as dates or numbers, as a
   *     plan states it, such as <code>{ date: dd.MM.yyyy }</code>; several when the values do not
   *     tell, none when they are neither
   * @param nulls null cells
   * @param distinct distinct values, null not counted
   * @param exact whether distinct is exact; else it is an estimate with a standard error of 1.6 %
   * @param shortest characters of the shortest value
   * @param longest characters of the longest value
   * @param least the least value, as numbers where all are, else by code point, which puts dates of
   *     ISO 8601 in order too; null where there is none
   * @param greatest the greatest, likewise
   * @param frequent the most frequent values of those that stand more than once; none of a column
   *     with more than 20,000 different ones
   * @param nullWords values that people write where there is none, such as {@code n/a}
   * @param examples the first values that differ
   * @param straySpaces values with a space at either end
   * @param caseForms values that equal another one but for case
   * @param zeroForms values that equal another one but for leading zeros
   * @param unique whether no value stands twice and none is null: it could be a key
   */
  public record Column(
      String name,
      String type,
      @Nullable Spoiled spoiled,
      List<String> written,
      long nulls,
      long distinct,
      boolean exact,
      int shortest,
      int longest,
      @Nullable String least,
      @Nullable String greatest,
      List<Value> frequent,
      List<Value> nullWords,
      List<String> examples,
      long straySpaces,
      long caseForms,
      long zeroForms,
      boolean unique) {

    /**
     * A type that a column would have but for some of its values.
     *
     * @param type the type
     * @param cells how many values are not of it, at most one in twenty
     * @param example the first of them
     * @param row its row, 1-based, header not counted
     */
    public record Spoiled(String type, long cells, String example, long row) {}

    /**
     * The type as a plan states it; null for text, codes and columns without values, and where the
     * values do not tell.
     *
     * @return the type; null when there is nothing to state
     */
    public @Nullable String stated() {
      return switch (type) {
        case "whole number" -> "integer";
        case "decimal" -> "decimal";
        case "date" -> "date";
        case "date and time" -> "date-time";
        default -> written.size() == 1 ? written.get(0) : null;
      };
    }

    /**
     * A value, and how often it stands.
     *
     * @param value the value as written
     * @param rows how often
     */
    public record Value(String value, long rows) {}

    /** Copies the lists. */
    public Column {
      frequent = List.copyOf(frequent);
      nullWords = List.copyOf(nullWords);
      written = List.copyOf(written);
      examples = List.copyOf(examples);
    }
  }
}
