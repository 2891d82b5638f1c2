package org.abletwine.enrich;

import java.io.DataOutput;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Stream;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowFilter;
import org.abletwine.derive.Rollup;
import org.abletwine.figures.RunRecord;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.step.Step;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.Row;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * A whole enrichment: the transactions and the steps to take with them. Immutable once built, and
 * safe to reuse and to share between threads: every {@link #writeTo} is a run of its own.
 */
public final class Enrichment {
  private final RunSettings settings;

  private Enrichment(RunSettings settings) {
    this.settings = settings;
  }

  /**
   * Begins an enrichment.
   *
   * @param transactions the table to enrich; never changed
   * @return a builder, to be given steps
   */
  public static Builder of(Table transactions) {
    Objects.requireNonNull(transactions, "transactions");
    return new Builder(transactions);
  }

  /**
   * Checks all steps against the columns, reading no more than the heads of the tables. A step that
   * follows a wrong one is still checked, as far as it does not need what that one would have
   * added.
   *
   * @return every mistake found, in the order of the steps; empty when there is none
   */
  public List<Mistake> check() {
    return check(new LinkedHashSet<>());
  }

  /**
   * Checks as {@link #check()}, and tells which columns there are.
   *
   * @param names gets every column there is at any point, those that steps leave out again
   *     included, and none of steps that do not fit
   * @return every mistake found, in the order of the steps; empty when there is none
   */
  public List<Mistake> check(Set<String> names) {
    Objects.requireNonNull(names, "names");
    List<Mistake> mistakes = new ArrayList<>();
    Columns columns = settings.columns();
    try {
      columns.measuredBy(settings.measure());
      columns.carrying(settings.carried());
    } catch (SettingException e) {
      mistakes.add(new Mistake(Mistake.NO_STEP, String.valueOf(e.getMessage())));
    }
    names.addAll(columns.names());
    for (int i = 0; i < settings.steps().size(); i++) {
      try {
        settings.steps().get(i).check(columns);
        names.addAll(columns.names());
      } catch (SettingException e) {
        for (String message : String.valueOf(e.getMessage()).split("\n")) {
          mistakes.add(new Mistake(i, message));
        }
      }
    }
    return mistakes;
  }

  /**
   * A setting that does not fit.
   *
   * @param step which step, 0-based, or {@link #NO_STEP}
   * @param message what is wrong and what would be right
   */
  public record Mistake(int step, String message) {
    /** Stands for a setting of the whole enrichment. */
    public static final int NO_STEP = -1;
  }

  /**
   * Runs the enrichment.
   *
   * @param sink where the rows go; committed at the end, and not touched by a failed run
   * @return the account of the run
   * @throws SettingException when a step does not fit the columns
   * @throws org.abletwine.table.DataException when the data stops the run
   */
  public RunRecord writeTo(TableSink sink) {
    Objects.requireNonNull(sink, "sink");
    return writeTo(sink, new RunContext(settings.progress(), settings.exceptions()));
  }

  /**
   * Runs the enrichment and gives each row that comes out to a program, in order, as it comes.
   *
   * @param action takes a row; called by one thread at a time, not always the same, so that it must
   *     not be a lambda of a class whose static initialiser waits for this run. What it throws ends
   *     the run
   * @return the account of the run
   * @throws SettingException when a step does not fit the columns
   * @throws org.abletwine.table.DataException when the data stops the run; the rows before the one
   *     that does were given
   */
  public RunRecord forEach(Consumer<? super Row> action) {
    Objects.requireNonNull(action, "action");
    return writeTo(new RowsTaken(action));
  }

  /**
   * Runs the enrichment and returns the rows that come out, all of them in memory. For many rows
   * see {@link #forEach} and {@link #stream}.
   *
   * @return the rows, in order
   * @throws SettingException when a step does not fit the columns
   * @throws org.abletwine.table.DataException when the data stops the run
   */
  public List<Row> rows() {
    List<Row> rows = new ArrayList<>();
    forEach(rows::add);
    return rows;
  }

  /**
   * Begins a run and returns the rows that come out as a stream, in order: of those not yet taken a
   * few thousand are in memory. To be closed where it may not be read to its end, as by {@code try
   * (Stream<Row> rows = enrichment.stream())}.
   *
   * @return the rows, each once; where a row ends the run, those before it come first, and what is
   *     wrong is thrown where it would be taken
   */
  public Stream<Row> stream() {
    return RowStream.of(this::writeTo);
  }

  /**
   * Runs the enrichment, telling how far it is and what needs attention.
   *
   * @param sink where the rows go; committed at the end, and not touched by a failed run
   * @param context told about the tables being read and the rows that need attention
   * @return the account of the run
   * @throws SettingException when a step does not fit the columns
   * @throws org.abletwine.table.DataException when the data stops the run
   */
  @SuppressWarnings("exports") // for runs of a plan
  public RunRecord writeTo(TableSink sink, RunContext context) {
    Objects.requireNonNull(sink, "sink");
    Objects.requireNonNull(context, "context");
    return new EnrichmentRun(settings).writeTo(sink, context);
  }

  /**
   * Takes some of the rows through the steps, in one of several processes, and hands on what was
   * counted, for the one that puts all of it together ({@link RunContext#taken}).
   *
   * @param rows the rows, of the transactions, as a table
   * @param count how many threads work on them
   * @param sink where the rows that come out go
   * @param context opens what else rows are written to
   * @param into takes what was counted, and what needs attention
   * @throws org.abletwine.table.DataException when the data stops the run
   */
  @SuppressWarnings("exports") // for runs of a plan
  public void writePart(
      Table rows, int count, BatchSink sink, RunContext context, DataOutput into) {
    Objects.requireNonNull(rows, "rows");
    Objects.requireNonNull(sink, "sink");
    Objects.requireNonNull(context, "context");
    Objects.requireNonNull(into, "into");
    new EnrichmentRun(settings.over(rows)).part(count, sink, context, into);
  }

  /** {@return the steps whose references several processes can divide among them, in order} */
  @SuppressWarnings("exports") // for runs of a plan
  public List<Exchanging> exchanging() {
    return settings.steps().stream().map(RunStep::exchanging).filter(Objects::nonNull).toList();
  }

  /**
   * Takes some of the rows up to a lookup whose references several processes divide among them.
   *
   * @param rows the rows, of the transactions, as a table; null for none
   * @param lookup the name of the lookup
   * @param context what was found for the lookups before it
   * @param use uses the lookup, with the rows that reach it
   * @param <T> what comes of that
   * @return what that has returned
   * @throws org.abletwine.table.DataException when a step before cannot be prepared
   */
  @SuppressWarnings("exports") // for runs of a plan
  public <T> T exchange(
      @Nullable Table rows, String lookup, RunContext context, Function<Exchanging.Rows, T> use) {
    Objects.requireNonNull(lookup, "lookup");
    Objects.requireNonNull(context, "context");
    Objects.requireNonNull(use, "use");
    RunSettings some = rows == null ? settings.overNone() : settings.over(rows);
    return new EnrichmentRun(some).exchange(lookup, context, use);
  }

  /**
   * Takes a single transaction through the steps and tells what each made of it. Nothing is
   * written. References are read whole, as for a run.
   *
   * @param row its number, 1-based, header not counted
   * @return the trace, or null when there are fewer rows
   * @throws SettingException when a step does not fit the columns
   */
  public @Nullable TracedRow trace(long row) {
    try (Spill spill = new Spill(settings.memory(), settings.spillFolder())) {
      return new RowTrace(settings.transactions(), settings.columns())
          .of(settings.steps(), row, null, spill);
    }
  }

  /**
   * Takes the first transaction that meets a condition through the steps.
   *
   * @param condition a SQL condition over the columns of the transactions
   * @return the trace, or null when no row meets it
   * @throws SettingException when the condition cannot be read, or a step does not fit
   */
  public @Nullable TracedRow trace(String condition) {
    Objects.requireNonNull(condition, "condition");
    Expression where = RowFilter.parse(condition, settings.transactions()).start();
    try (Spill spill = new Spill(settings.memory(), settings.spillFolder())) {
      return new RowTrace(settings.transactions(), settings.columns())
          .of(settings.steps(), 0, where, spill);
    }
  }

  /**
   * {@return the totals that the rows come to, as a table that another enrichment can fetch from}
   * It is counted when it is first read, by a run of its own that writes nothing.
   *
   * @param rollup which totals; its file is not used
   * @throws SettingException when a step, or the rollup, does not fit the columns
   */
  public Table totals(Rollup rollup) {
    Objects.requireNonNull(rollup, "rollup");
    settings.transactions().readAgain();
    Columns columns = settings.columns();
    settings.steps().forEach(step -> step.check(columns));
    Rollup counted =
        new Rollup(
            rollup.by(),
            rollup.totals(),
            rollup.shown().forLookup(),
            false,
            null,
            settings.transactions(),
            rollup.settings());
    Builder more =
        of(settings.transactions())
            .keepPrivate(settings.keptPrivate())
            .workers(settings.workers())
            .memory(settings.memory(), settings.spillFolder())
            .step(counted);
    more.steps.addAll(0, settings.steps());
    return new TotalsTable(more.build(), counted, counted.columns(columns));
  }

  @Override
  public String toString() {
    return "Enrichment[" + settings.title() + ", " + settings.steps().size() + " steps]";
  }

  /** Collects the settings of an enrichment. Not safe for use by several threads at once. */
  public static final class Builder {
    private final Table transactions;
    private final List<RunStep> steps = new ArrayList<>();
    private String title;
    private long mostRows = Long.MAX_VALUE;
    private int workers = Workers.usual();
    private @Nullable String measure;
    private Progress progress = Progress.NONE;
    private Exceptions exceptions = Exceptions.NONE;
    private List<String> carried = List.of();
    private Set<String> keptPrivate = Set.of();
    private long memory;
    private @Nullable Path spillFolder;

    private Builder(Table transactions) {
      this.transactions = transactions;
      this.title = transactions.name();
    }

    /**
     * States what the run is called; the transactions' name unless stated.
     *
     * @param newTitle the title
     * @return this builder
     */
    public Builder title(String newTitle) {
      Objects.requireNonNull(newTitle, "newTitle");
      title = newTitle;
      return this;
    }

    /**
     * States a column of the transactions whose totals go beside the outcome figures.
     *
     * @param column the column; null for none
     * @return this builder
     */
    public Builder measure(@Nullable String column) {
      measure = column;
      return this;
    }

    /**
     * States who is told about the tables being read; nobody unless stated.
     *
     * @param told who is told; called by one thread at a time
     * @return this builder
     */
    public Builder progress(Progress told) {
      progress = Objects.requireNonNull(told, "told");
      return this;
    }

    /**
     * States who is told about the rows that need attention; nobody unless stated.
     *
     * @param told who is told; called by one thread at a time
     * @return this builder
     */
    public Builder exceptions(Exceptions told) {
      Objects.requireNonNull(told, "told");
      exceptions = told;
      return this;
    }

    /**
     * States how much memory references may take together; six tenths of what this Java may take
     * unless stated. One that does not fit is kept in parts on disk, and the transactions are read
     * once more for it: the result is the same, byte for byte and figure for figure.
     *
     * @param bytes how many; 0 for what is usual
     * @param folder where those parts go; null for the folder for temporary files. They are deleted
     *     when the run ends
     * @return this builder
     */
    public Builder memory(long bytes, @Nullable Path folder) {
      if (bytes < 0) {
        throw new IllegalArgumentException("no fewer than no bytes");
      }
      memory = bytes;
      spillFolder = folder;
      return this;
    }

    /**
     * States columns whose values are shown nowhere but in the rows that come out: not in figures,
     * messages or traces, nor to those who are told of rows that need attention. There a short
     * digest stands for each value. What is made of such a column is kept private too.
     *
     * @param columns columns of any table, or made by any step
     * @return this builder
     */
    public Builder keepPrivate(Set<String> columns) {
      keptPrivate = Set.copyOf(Objects.requireNonNull(columns, "columns"));
      return this;
    }

    /**
     * States columns of the transactions that go with each row that needs attention.
     *
     * @param columns their names
     * @return this builder
     */
    public Builder carry(List<String> columns) {
      Objects.requireNonNull(columns, "columns");
      carried = List.copyOf(columns);
      return this;
    }

    /**
     * Adds a lookup.
     *
     * @param lookup the lookup
     * @return this builder
     */
    public Builder lookup(org.abletwine.lookup.Lookup lookup) {
      Objects.requireNonNull(lookup, "lookup");
      return step(lookup);
    }

    /**
     * Adds a step, to be taken after those added before.
     *
     * @param step the step
     * @return this builder
     */
    public Builder step(Step step) {
      Objects.requireNonNull(step, "step");
      if (!(step instanceof RunStep own)) {
        throw new IllegalArgumentException(
            "step \"" + step.title() + "\" is none of those that an enrichment can take");
      }
      steps.add(own);
      return this;
    }

    /**
     * Stops after so many transactions; all of them unless stated.
     *
     * @param rows at least 1
     * @return this builder
     */
    public Builder firstRows(long rows) {
      if (rows < 1) {
        throw new IllegalArgumentException("at least one row");
      }
      mostRows = rows;
      return this;
    }

    /**
     * States how many threads work on the rows; one for each processor unless stated. The result is
     * the same, byte for byte and figure for figure, for any number.
     *
     * @param count at least 1
     * @return this builder
     */
    public Builder workers(int count) {
      if (count < 1) {
        throw new IllegalArgumentException("at least one worker");
      }
      workers = count;
      return this;
    }

    /**
     * Builds the enrichment.
     *
     * @return the enrichment
     * @throws SettingException when two lookups have one name
     */
    public Enrichment build() {
      List<String> names = new ArrayList<>();
      for (RunStep step : steps) {
        if (step instanceof org.abletwine.lookup.Lookup lookup) {
          if (names.contains(lookup.name())) {
            throw new SettingException(
                "two lookups are called \"" + lookup.name() + "\"; give one another name");
          }
          names.add(lookup.name());
        }
      }
      return new Enrichment(
          new RunSettings(
              transactions,
              title,
              steps,
              mostRows,
              workers,
              measure,
              progress,
              exceptions,
              carried,
              keptPrivate,
              memory,
              spillFolder));
    }
  }
}
