package org.abletwine.enrich;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.LongAdder;
import java.util.stream.IntStream;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.Table;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.Workers;

/**
 * Takes the transactions through the steps to the sink, by several workers.
 *
 * <p>Who owns what: the place in the table belongs to whoever cuts, under a lock ({@link Workers}).
 * A piece of it, the batch parsed from it, the columns added, and everything a step changes while
 * it works ({@link org.abletwine.step.run.StepWorker}, with its expressions, counters and scratch)
 * belong to one {@link RunWorker}, hence to one thread. References and indexes are shared, and do
 * not change once they are loaded, but for sets of rows found while looking, which are safe for use
 * by several threads. The sink, the exceptions and the rows left out belong to the worker whose
 * piece's turn it is. When the last worker has ended, all of it passes to the calling thread, which
 * adds up the figures.
 */
final class Pipeline {
  private final Table transactions;
  private final List<PreparedStep> steps;
  private final BatchSink sink;
  private final int[] columns;
  private final int first;
  private final long mostRows;
  private final RunContext context;
  private final int count;
  private final List<List<StepWorker>> workers = new ArrayList<>();

  private final LongAdder rowsIn = new LongAdder();
  private final LongAdder rowsOut = new LongAdder();
  private long bytesIn;

  Pipeline(
      Table transactions,
      List<PreparedStep> steps,
      BatchSink sink,
      Columns columns,
      long mostRows,
      RunContext context) {
    this(transactions, steps, sink, columns, columns.numbers(), mostRows, context);
  }

  /**
   * @param numbers the columns that the sink takes, in order
   */
  Pipeline(
      Table transactions,
      List<PreparedStep> steps,
      BatchSink sink,
      Columns columns,
      int[] numbers,
      long mostRows,
      RunContext context) {
    this.transactions = transactions;
    this.steps = steps;
    this.sink = sink;
    this.columns = numbers.clone();
    this.mostRows = mostRows;
    this.context = context;
    this.count = mostRows == Long.MAX_VALUE ? context.workers() : 1;
    int base = transactions.schema().size();
    first =
        sink.copiesText()
            ? Math.max(columns.readUpTo(), neededToWrite(base))
            : sink.looksOnlyAtColumns()
                ? Math.max(
                    columns.readUpTo(),
                    1 + IntStream.of(numbers).filter(n -> n < base).max().orElse(0))
                : base;
  }

  /** How many of the first columns of a row must be found so that the others leave as they came. */
  private int neededToWrite(int base) {
    int needed = 1;
    for (int i = 0; i < columns.length; i++) {
      int from = columns[i];
      if (from >= base) {
        continue;
      }
      while (i + 1 < columns.length && columns[i + 1] == columns[i] + 1 && columns[i + 1] < base) {
        i++;
      }
      needed = Math.max(needed, columns[i] == base - 1 ? from + 1 : columns[i] + 1);
    }
    return needed;
  }

  /** What was counted. To be asked once, when all rows have been taken. */
  Counted counted() {
    List<StepWorker> all = workers.get(0);
    for (List<StepWorker> others : workers.subList(1, workers.size())) {
      for (int step = 0; step < all.size(); step++) {
        all.get(step).merge(others.get(step));
      }
    }
    return new Counted(rowsIn.sum(), rowsOut.sum(), bytesIn, all);
  }

  void run() {
    try (Pieces pieces = BatchTable.of(transactions).pieces(first, null)) {
      Runnable ended = context.progress().reading(transactions, pieces::bytesRead, rowsIn::sum);
      try {
        Workers.run(pieces, count, false, this::worker);
      } finally {
        ended.run();
      }
      bytesIn = pieces.bytesRead();
    }
  }

  private RunWorker worker() {
    Exceptions told = context.exceptions();
    InRowOrder collected = told == Exceptions.NONE ? null : new InRowOrder(told);
    List<StepWorker> own =
        steps.stream().map(step -> step.worker(collected == null ? told : collected)).toList();
    workers.add(own);
    return new RunWorker(
        own, collected, sink, columns, mostRows, new RunWorker.Counted(rowsIn, rowsOut));
  }
}
