package org.abletwine.audit;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
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
 * @param remarks what a person should know about how the table was read
 */
public record TableProfile(
    String table,
    long rows,
    List<ColumnProfile> columns,
    List<List<String>> pairs,
    int pairsTried,
    List<String> remarks) {
  private static final int MOST_PAIRS = 60;
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
    table.readAgain();
    List<ColumnProfiler> profilers = new ArrayList<>();
    table.schema().names().forEach(name -> profilers.add(new ColumnProfiler(name)));
    long[] rows = new long[1];
    forEachBatch(
        table,
        batch -> {
          for (int column = 0; column < profilers.size(); column++) {
            profilers.get(column).take(batch, column);
          }
          rows[0] += batch.rows();
          return true;
        });
    List<ColumnProfile> columns = profilers.stream().map(ColumnProfiler::profile).toList();
    boolean single = columns.stream().anyMatch(ColumnProfile::unique);
    List<int[]> candidates =
        rows[0] < 2 || rows[0] > MOST_PAIR_ROWS ? List.of() : pairs(columns, rows[0], single);
    return new TableProfile(
        table.name(),
        rows[0],
        columns,
        tried(table, candidates),
        candidates.size(),
        table.remarks());
  }

  private static List<int[]> pairs(List<ColumnProfile> columns, long rows, boolean textOnly) {
    List<int[]> pairs = new ArrayList<>();
    for (int a = 0; a < columns.size(); a++) {
      for (int b = a + 1; b < columns.size(); b++) {
        ColumnProfile one = columns.get(a);
        ColumnProfile other = columns.get(b);
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

  private static boolean text(ColumnProfile column) {
    return column.type().equals("text") || column.type().equals("code");
  }

  private static List<List<String>> tried(Table table, List<int[]> candidates) {
    List<int[]> open = new ArrayList<>(candidates);
    List<HashCounter> seen = new ArrayList<>();
    candidates.forEach(pair -> seen.add(new HashCounter(MOST_PAIR_ROWS)));
    if (!open.isEmpty()) {
      forEachBatch(
          table,
          batch -> {
            for (int i = open.size() - 1; i >= 0; i--) {
              if (!allNew(batch, open.get(i), seen.get(i))) {
                open.remove(i);
                seen.remove(i);
              }
            }
            return !open.isEmpty();
          });
    }
    List<String> names = table.schema().names();
    return open.stream().map(pair -> List.of(names.get(pair[0]), names.get(pair[1]))).toList();
  }

  private static boolean allNew(Batch batch, int[] pair, HashCounter seen) {
    CellVector one = batch.column(pair[0]);
    CellVector other = batch.column(pair[1]);
    for (int row = 0; row < batch.rows(); row++) {
      long a = HashCounter.mixed(one.hash(row));
      long b = HashCounter.mixed(other.hash(row));
      if (!seen.add(a * 31 + Long.rotateLeft(b, 17))) {
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
}
