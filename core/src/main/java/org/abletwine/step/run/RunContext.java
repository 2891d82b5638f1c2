package org.abletwine.step.run;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.table.Destination;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.output.OutputGroup;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * What a run offers to its steps.
 *
 * @param progress told about tables being read
 * @param exceptions told about rows that need attention
 * @param trace told what each step makes of a row; {@link Trace#NONE} for a usual run
 * @param writes whether steps may write files of their own; not so for a preview or a trace
 * @param workers how many threads work on the rows, and read references
 * @param transactions the table that is enriched; null where nothing is written
 * @param opened the sinks opened so far, by their file: for one thread
 * @param spill how much of references may be in memory; null for any amount
 * @param before the rows as the steps before leave them; null where they cannot be gone through
 * @param among what it shares with others that take rows of the same transactions
 * @param outputs takes what the run and its steps write, for whoever moves all of it into place
 *     once the run has ended; null when the run itself does
 */
public record RunContext(
    Progress progress,
    Exceptions exceptions,
    Trace trace,
    boolean writes,
    @Nullable OutputGroup outputs,
    int workers,
    @Nullable Table transactions,
    Map<Path, TableSink> opened,
    @Nullable Spill spill,
    @Nullable Before before,
    Among among) {

  /** Opens something that rows are written to. */
  public interface Opening {

    /**
     * Makes a sink.
     *
     * @param place where to write
     * @param beside a sink of the same run that writes another sheet of the same file; null for
     *     none
     */
    TableSink open(Destination place, @Nullable TableSink beside);
  }

  /**
   * What a run shares with others that take rows of the same transactions.
   *
   * @param opening opens what the run and its steps write rows to
   * @param references those that it shares with others of this process; null when it shares none
   * @param taken the rows where others have taken them; null for a run that takes its own
   * @param exchange what was found where references are divided among processes
   */
  public record Among(
      Opening opening,
      @Nullable HeldReferences references,
      @Nullable TakenElsewhere taken,
      Exchange exchange) {
    /** A run of its own. */
    public static final Among ALONE = new Among(Destination::open, null, null, Exchange.NONE);
  }

  /** Tells nobody about anything, and lets steps write no files. */
  public static final RunContext PREVIEW = counting(Progress.NONE);

  /**
   * Lets steps write no files, and traces and tells of nothing.
   *
   * @param progress told about tables being read
   */
  public static RunContext counting(Progress progress) {
    return new RunContext(
        progress,
        Exceptions.NONE,
        Trace.NONE,
        false,
        null,
        Workers.usual(),
        null,
        Map.of(),
        null,
        null,
        Among.ALONE);
  }

  /** As {@link RunContext}, for a usual run whose outputs are moved into place with others. */
  public RunContext(Progress progress, Exceptions exceptions, @Nullable OutputGroup outputs) {
    this(
        progress,
        exceptions,
        Trace.NONE,
        true,
        outputs,
        Workers.usual(),
        null,
        new HashMap<>(),
        null,
        null,
        Among.ALONE);
  }

  /**
   * Returns the same for a table that is enriched.
   *
   * @param table the table
   * @param count how many threads work on its rows, at least 1
   */
  public RunContext of(Table table, int count) {
    return new RunContext(
        progress, exceptions, trace, writes, outputs, count, table, opened, spill, before, among);
  }

  /**
   * Returns the same for a run that may keep references on disk.
   *
   * @param limit how much of them may be in memory
   */
  public RunContext within(Spill limit) {
    return new RunContext(
        progress,
        exceptions,
        trace,
        writes,
        outputs,
        workers,
        transactions,
        opened,
        limit,
        before,
        among);
  }

  /**
   * Returns the same for one step.
   *
   * @param rows the rows as the steps before it leave them
   */
  public RunContext after(Before rows) {
    return new RunContext(
        progress,
        exceptions,
        trace,
        writes,
        outputs,
        workers,
        transactions,
        opened,
        spill,
        rows,
        among);
  }

  /**
   * Returns the same for one of several processes that take rows of one run, or for the one that
   * puts together what they have counted.
   *
   * @param places opens what rows are written to
   * @param held the references that runs in this process share; null when there is one run only
   * @param rows what the processes have handed on; null for one of them
   * @param exchange what was found where references are divided among processes
   */
  public RunContext among(
      Opening places,
      @Nullable HeldReferences held,
      @Nullable TakenElsewhere rows,
      Exchange exchange) {
    return new RunContext(
        progress,
        exceptions,
        trace,
        writes,
        outputs,
        workers,
        transactions,
        opened,
        spill,
        before,
        new Among(places, held, rows, exchange));
  }

  /**
   * A reference, or what is made of one: for all runs that share references, else for this run.
   *
   * @param columns the columns of this run
   * @param key what it depends on
   * @param kind what it is
   * @param make makes it, given how much may be in memory; null for any amount
   */
  public <T> T reference(
      Columns columns, Object key, Class<T> kind, Function<@Nullable Spill, T> make) {
    HeldReferences shared = among.references;
    return shared == null
        ? columns.shared(key, kind, () -> make.apply(spill))
        : shared.get(key, kind, () -> make.apply(shared.spill()));
  }

  /**
   * Returns the same for a run that tells somebody else.
   *
   * @param told told about rows that need attention
   */
  public RunContext telling(Exceptions told) {
    Exceptions to = exceptions == Exceptions.NONE ? exceptions : told;
    return new RunContext(
        progress, to, trace, writes, outputs, workers, transactions, opened, spill, before, among);
  }

  /** Returns the same for a step that is prepared once more, only to see its rows again. */
  public RunContext quiet() {
    return new RunContext(
        Progress.NONE,
        Exceptions.NONE,
        Trace.NONE,
        false,
        null,
        workers,
        transactions,
        Map.of(),
        spill,
        null,
        new Among(among.opening, among.references, null, among.exchange));
  }

  /**
   * Opens a sink, one for another sheet where the file is open already.
   *
   * @param place where to write
   */
  public BatchSink open(Destination place) {
    Path file = place.file() == null ? null : place.file().toAbsolutePath().normalize();
    TableSink sink = among.opening.open(place, file == null ? null : opened.get(file));
    if (file != null) {
      opened.put(file, sink);
    }
    return BatchSink.of(sink);
  }

  /**
   * Notes the sink of the rows themselves, beside which steps may write other sheets of its file.
   *
   * @param sink the sink
   */
  public void opened(BatchSink sink) {
    Path target = writes ? sink.target() : null;
    if (target != null) {
      opened.putIfAbsent(target.toAbsolutePath().normalize(), sink);
    }
  }

  /**
   * What processes that divide references among them have found.
   *
   * @param lookup the name of the lookup
   * @return null when its reference is not divided among processes
   */
  public Exchange.@Nullable Found exchanged(String lookup) {
    return among.exchange.of(lookup);
  }

  /** Returns the same for a run that writes nothing of its own. */
  public RunContext writingNothing() {
    return new RunContext(
        progress,
        exceptions,
        trace,
        false,
        null,
        workers,
        transactions,
        Map.of(),
        spill,
        before,
        among);
  }

  /** Returns the rows where other processes have taken them; null for a run that takes its own. */
  public @Nullable TakenElsewhere taken() {
    return among.taken;
  }

  /** Offers progress and exceptions, and traces nothing. */
  public RunContext(Progress progress, Exceptions exceptions) {
    this(progress, exceptions, null);
  }
}
