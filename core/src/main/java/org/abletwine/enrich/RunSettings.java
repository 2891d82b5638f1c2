package org.abletwine.enrich;

import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.Table;
import org.abletwine.table.spill.MemoryBytes;
import org.abletwine.table.spill.SpilledTable;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;

/**
 * What an enrichment is made of; what each means stands at its builder. Immutable.
 *
 * @param transactions the table to enrich
 * @param title what the run is called
 * @param steps the steps, in order
 * @param mostRows how many transactions are taken at most
 * @param workers how many threads work on them
 * @param measure a column whose totals go beside the figures; null for none
 * @param progress told about the tables being read
 * @param exceptions told about rows that need attention
 * @param carried columns that go with such a row
 * @param keptPrivate columns whose values are shown nowhere but in the rows
 * @param memory bytes that references may take together; 0 for what is usual
 * @param spillFolder where the rest goes; null for the folder for temporary files
 */
record RunSettings(
    Table transactions,
    String title,
    List<RunStep> steps,
    long mostRows,
    int workers,
    @Nullable String measure,
    Progress progress,
    Exceptions exceptions,
    List<String> carried,
    Set<String> keptPrivate,
    long memory,
    @Nullable Path spillFolder) {

  /** Copies the lists. */
  RunSettings {
    steps = List.copyOf(steps);
    carried = List.copyOf(carried);
  }

  /** The columns as they are read. */
  Columns columns() {
    return new Columns(transactions.name(), transactions.schema())
        .typedBy(transactions)
        .keeping(keptPrivate);
  }

  /** The columns as they are read, for a run of all steps. */
  Columns runColumns() {
    return columns().measuredBy(measure).carrying(carried);
  }

  /** The column whose totals go beside the figures; empty for none. */
  String measured() {
    return measure == null ? "" : measure;
  }

  /** {@return the same for no rows} */
  RunSettings overNone() {
    return over(new SpilledTable(new Stored(new MemoryBytes(), 0), transactions, new int[0]));
  }

  /** {@return the same for some of the rows, which tell nobody} */
  RunSettings over(Table rows) {
    return new RunSettings(
        rows,
        rows.name(),
        steps,
        Long.MAX_VALUE,
        workers,
        measure,
        Progress.NONE,
        Exceptions.NONE,
        carried,
        keptPrivate,
        memory,
        spillFolder);
  }
}
