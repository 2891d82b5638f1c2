package org.abletwine.audit;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Workers;

/**
 * What is gathered of the rows of a table, column by column: one of these for each worker, then all
 * in one. Used by one thread at a time.
 */
final class Gathered implements Workers.Worker {
  private final List<ColumnProfiler> profilers = new ArrayList<>();
  private long rows;

  private Gathered(Table table) {
    table
        .schema()
        .names()
        .forEach(name -> profilers.add(new ColumnProfiler(name, table.isPrivate(name))));
  }

  /**
   * Reads a table.
   *
   * @param workers how many share its rows
   */
  static Gathered of(Table table, int workers) {
    List<Gathered> all = new ArrayList<>();
    try (Pieces pieces = BatchTable.of(table).pieces(table.schema().size(), null, null)) {
      Workers.run(
          pieces,
          workers,
          false,
          () -> {
            all.add(new Gathered(table));
            return all.get(all.size() - 1);
          });
    }
    Gathered whole = all.get(0);
    all.subList(1, workers).forEach(whole::merge);
    return whole;
  }

  @Override
  public void work(Batch batch) {
    for (int column = 0; column < profilers.size(); column++) {
      profilers.get(column).take(batch, column);
    }
    rows += batch.rows();
  }

  @Override
  public boolean inOrder() {
    return true;
  }

  private void merge(Gathered other) {
    for (int column = 0; column < profilers.size(); column++) {
      profilers.get(column).merge(other.profilers.get(column));
    }
    rows += other.rows;
  }

  long rows() {
    return rows;
  }

  List<TableProfile.Column> columns() {
    return profilers.stream().map(ColumnProfiler::profile).toList();
  }
}
