package org.abletwine.enrich;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.util.Iterator;
import java.util.List;
import org.abletwine.derive.Rollup;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.NoRows;
import org.jspecify.annotations.Nullable;

/**
 * The totals that the rows of an enrichment come to, as a table: counted when it is first read. The
 * steps of that enrichment write no files then. Safe to share between threads.
 */
final class TotalsTable implements Table {
  private final Enrichment enrichment;
  private final Rollup rollup;
  private final Columns columns;

  @GuardedBy("this") private @Nullable List<List<@Nullable String>> groups;

  /**
   * @param enrichment ends with the rollup
   * @param columns the columns of the rollup
   */
  TotalsTable(Enrichment enrichment, Rollup rollup, Columns columns) {
    this.enrichment = enrichment;
    this.rollup = rollup;
    this.columns = columns;
  }

  @Override
  public String name() {
    return rollup.by().isEmpty()
        ? "totals of all rows"
        : "totals by " + String.join(", ", rollup.by());
  }

  @Override
  public Schema schema() {
    return new Schema(List.copyOf(columns.names()));
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return columns.type(column);
  }

  @Override
  public boolean isPrivate(String column) {
    return columns.isPrivate(column);
  }

  @Override
  public Rows rows() {
    Iterator<List<@Nullable String>> lines = groups().iterator();
    return new Rows() {
      @Override
      public @Nullable List<@Nullable String> next() {
        return lines.hasNext() ? lines.next() : null;
      }

      @Override
      public void close() {
        // nothing is held
      }
    };
  }

  private synchronized List<List<@Nullable String>> groups() {
    if (groups == null) {
      List<StepFigures.RolledUp> rollups =
          enrichment.writeTo(new NoRows(), RunContext.PREVIEW).of(StepFigures.RolledUp.class);
      groups = rollups.get(rollups.size() - 1).groups();
    }
    return groups;
  }

  @Override
  public String toString() {
    return "TotalsTable[" + name() + "]";
  }
}
