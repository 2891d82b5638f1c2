package org.abletwine.enrich;

import java.util.List;
import java.util.Queue;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicReference;
import java.util.concurrent.locks.ReentrantLock;
import org.abletwine.step.Progress;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.DataException;
import org.abletwine.table.ReadAhead;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/**
 * Moves batches from the reader through the steps to the sink: reading on one thread, the steps on
 * the caller's, writing on a third. A few batches go round, so memory does not grow with the number
 * of rows, and their order is kept.
 *
 * <p>The steps at the end that only compute from columns are done by whoever has time: by the
 * writing thread when a batch's turn has come, or before that by the caller's when batches pile up.
 * They are done under a lock and for one batch after another.
 */
final class Pipeline {
  private final Table transactions;
  private final List<StepRunner> steps;
  private final TableSink sink;
  private final int[] columns;
  private final long mostRows;
  private final Progress progress;

  /** The first of the steps that run on the writing thread: all from there on may. */
  private final int withWriting;

  private final BlockingQueue<Batch> toWrite = new ArrayBlockingQueue<>(8);
  private final Queue<Batch> toCompute = new ConcurrentLinkedQueue<>();
  private final ReentrantLock computing = new ReentrantLock();
  private final Batch end = new Batch(0);
  private final AtomicReference<@Nullable Throwable> writeFailure = new AtomicReference<>();

  private volatile long rowsIn;
  private volatile long rowsOut;
  private long bytesIn;

  Pipeline(
      Table transactions,
      List<StepRunner> steps,
      TableSink sink,
      int[] columns,
      long mostRows,
      Progress progress) {
    this.transactions = transactions;
    this.steps = steps;
    this.sink = sink;
    this.columns = columns;
    this.mostRows = mostRows;
    this.progress = progress;
    int from = steps.size();
    while (from > 0 && steps.get(from - 1).mayRunWithWriting()) {
      from--;
    }
    withWriting = from;
  }

  long rowsIn() {
    return rowsIn;
  }

  long rowsOut() {
    return rowsOut;
  }

  long bytesIn() {
    return bytesIn;
  }

  void run() {
    Runnable ended = () -> {};
    Thread writer = null;
    try (ReadAhead reading = new ReadAhead(transactions)) {
      ended = progress.reading(transactions, reading::bytesRead, () -> rowsIn);
      writer = new Thread(() -> writeAll(reading), "write");
      writer.setDaemon(true);
      writer.start();
      transformAll(reading);
      writer.join();
      bytesIn = reading.bytesRead();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new DataException("the run was interrupted", e);
    } finally {
      if (writer != null) {
        stop(writer);
      }
      ended.run();
    }
    rethrow(writeFailure.get());
  }

  private void transformAll(ReadAhead reading) throws InterruptedException {
    for (Batch batch = reading.next(); batch != null; batch = reading.next()) {
      if (writeFailure.get() != null) {
        break; // the reason is thrown once all threads have ended
      }
      boolean last = rowsIn + batch.rows() >= mostRows;
      if (last) {
        keepFirst(batch, (int) (mostRows - rowsIn));
      }
      rowsIn += batch.rows();
      for (StepRunner step : steps.subList(0, withWriting)) {
        step.apply(batch);
      }
      toCompute.add(batch);
      toWrite.put(batch);
      help();
      if (last) {
        break;
      }
    }
    toWrite.put(end);
  }

  /** On the caller's thread: does the computing of a batch if the writing is behind. */
  private void help() {
    if (toWrite.size() > 1 && withWriting < steps.size() && computing.tryLock()) {
      try {
        Batch next = toCompute.poll();
        if (next != null) {
          computeNow(next);
        }
      } finally {
        computing.unlock();
      }
    }
  }

  /** On the writing thread: does the computing of the batch whose turn it is, unless it is done. */
  private void compute(Batch batch) {
    computing.lock();
    try {
      if (toCompute.peek() == batch) {
        toCompute.remove();
        computeNow(batch);
      }
    } finally {
      computing.unlock();
    }
  }

  private void computeNow(Batch batch) {
    for (StepRunner step : steps.subList(withWriting, steps.size())) {
      step.apply(batch);
    }
  }

  private static void keepFirst(Batch batch, int count) {
    if (count < batch.rows()) {
      int[] first = new int[count];
      for (int i = 0; i < count; i++) {
        first[i] = i;
      }
      batch.pick(first, count);
    }
  }

  private void writeAll(ReadAhead reading) {
    try {
      for (Batch batch = toWrite.take(); batch != end; batch = toWrite.take()) {
        if (writeFailure.get() == null) {
          compute(batch);
          rowsOut += batch.rows();
          sink.write(batch, columns);
        }
        reading.recycle(batch);
      }
    } catch (InterruptedException e) {
      // the transforming side failed and says why
    } catch (RuntimeException | Error e) {
      writeFailure.set(e);
      drain(reading);
    }
  }

  /** After a failure: keeps handing batches back, so that the other side is not left waiting. */
  private void drain(ReadAhead reading) {
    try {
      for (Batch batch = toWrite.take(); batch != end; batch = toWrite.take()) {
        reading.recycle(batch);
      }
    } catch (InterruptedException e) {
      // ended by stop
    }
  }

  private static void stop(Thread writer) {
    writer.interrupt();
    try {
      writer.join();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private static void rethrow(@Nullable Throwable cause) {
    if (cause instanceof Error error) {
      throw error;
    }
    if (cause != null) {
      throw (RuntimeException) cause;
    }
  }
}
