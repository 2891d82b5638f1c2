package org.abletwine.step.run;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import org.abletwine.step.Exceptions;
import org.abletwine.step.Progress;
import org.abletwine.table.Destination;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.Workers;
import org.abletwine.table.output.OutputGroup;
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
    Map<Path, TableSink> opened) {

  /** Tells nobody about anything, and lets steps write no files. */
  public static final RunContext PREVIEW =
      new RunContext(
          Progress.NONE, Exceptions.NONE, Trace.NONE, false, null, Workers.usual(), null, Map.of());

  /** As {@link RunContext}, for a usual run whose outputs are moved into place with others. */
  public RunContext(Progress progress, Exceptions exceptions, @Nullable OutputGroup outputs) {
    this(progress, exceptions, Trace.NONE, true, outputs, Workers.usual(), null, new HashMap<>());
  }

  /**
   * Returns the same for a table that is enriched.
   *
   * @param table the table
   * @param count how many threads work on its rows, at least 1
   */
  public RunContext of(Table table, int count) {
    return new RunContext(progress, exceptions, trace, writes, outputs, count, table, opened);
  }

  /**
   * Opens a sink, one for another sheet where the file is open already.
   *
   * @param place where to write
   */
  public BatchSink open(Destination place) {
    Path file = place.file() == null ? null : place.file().toAbsolutePath().normalize();
    TableSink sink = place.open(file == null ? null : opened.get(file));
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

  /** Offers progress and exceptions, and traces nothing. */
  public RunContext(Progress progress, Exceptions exceptions) {
    this(progress, exceptions, null);
  }
}
