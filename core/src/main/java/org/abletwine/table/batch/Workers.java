package org.abletwine.table.batch;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.Supplier;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * Goes through a table with several workers. Each takes the next piece of it, does its work on the
 * rows, and waits for its turn to put out what has to be in row order. So there is one piece a
 * worker in memory, and nothing is seen by two threads while it can change: a piece, its batch and
 * the worker's own counters belong to the worker; the place in the table, and whatever is put out
 * in order, belong to whoever has the lock or the turn.
 *
 * <p>What fails first in the order of the rows is what is thrown, however many workers there are: a
 * failure waits for its turn too, and ends the run when it comes.
 */
public final class Workers {

  /** One worker's part. */
  public interface Worker {

    /**
     * Does the work on some rows.
     *
     * @param batch the rows
     */
    void work(Batch batch);

    /**
     * All rows of a piece have been worked on, and those before it are put out.
     *
     * @return whether to go on with the rows behind it
     */
    boolean inOrder();

    /**
     * A row of a piece has failed, and those before the piece are put out: work ends after this.
     */
    default void failed() {}
  }

  /** As many as are of use where rows are taken one after another. */
  private static final int ENOUGH = 4;

  private final Pieces pieces;
  private final boolean whole;
  private final Object cutting = new Object();
  private final Object turning = new Object();

  // Guarded by cutting.
  @GuardedBy("cutting") private long cut;

  @GuardedBy("cutting") private boolean atEnd;

  // Guarded by turning.
  @GuardedBy("turning") private long turn;

  @GuardedBy("turning") private boolean stopped;

  @GuardedBy("turning") private @Nullable Throwable failure;

  private Workers(Pieces pieces, boolean whole) {
    this.pieces = pieces;
    this.whole = whole;
  }

  /** Returns how many workers there are unless it is stated: one for each processor. */
  public static int usual() {
    return Runtime.getRuntime().availableProcessors();
  }

  /**
   * Works through a table. Returns once all workers have ended.
   *
   * @param pieces the table; not closed here
   * @param count how many workers, at least 1; the calling thread is one of them
   * @param whole whether a worker is given all rows of a piece at once, which then stay as they are
   *     until it has put them out in order
   * @param worker makes a worker; called by the calling thread
   * @throws DataException when a row cannot be read, or what a worker throws: of several failures
   *     that of the first row
   */
  public static void run(Pieces pieces, int count, boolean whole, Supplier<Worker> worker) {
    Workers workers = new Workers(pieces, whole);
    List<Worker> all = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      all.add(worker.get());
    }
    List<Thread> threads = new ArrayList<>();
    for (Worker other : all.subList(1, count)) {
      Thread thread = new Thread(() -> workers.loop(other), "worker " + (threads.size() + 2));
      thread.setDaemon(true);
      thread.start();
      threads.add(thread);
    }
    workers.loop(all.get(0));
    join(threads);
    workers.rethrow();
  }

  /**
   * Reads a table with several workers for someone who takes its rows in order: the rows of a piece
   * are parsed, and looked at by {@link Worker#work}, while those of others are taken.
   *
   * @param table the table
   * @param first how many of the first cells of each row will be looked at, at least 1
   * @param wanted which rows, by their number, 1-based; null for all
   * @param looked the columns that are looked at, 0-based; null for all
   * @param worker makes a worker; what a piece holds stays until it was taken in order
   * @throws DataException when a row cannot be read, or what a worker throws
   */
  public static void each(
      Table table,
      int first,
      @Nullable BitSet wanted,
      @Nullable BitSet looked,
      Supplier<Worker> worker) {
    try (Pieces pieces = BatchTable.of(table).pieces(first, wanted, looked)) {
      run(pieces, Math.min(usual(), ENOUGH), true, worker);
    }
  }

  private static void join(List<Thread> threads) {
    boolean interrupted = false;
    for (Thread thread : threads) {
      while (thread.isAlive()) {
        try {
          thread.join();
        } catch (InterruptedException e) {
          interrupted = true;
          threads.forEach(Thread::interrupt);
        }
      }
    }
    if (interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  private void loop(Worker worker) {
    Pieces.Piece piece = pieces.piece();
    if (whole) {
      piece.atOnce();
    }
    boolean more = true;
    while (more) {
      long number;
      Throwable failed = null;
      synchronized (cutting) {
        if (atEnd) {
          return;
        }
        number = cut++;
        try {
          atEnd = !pieces.next(piece);
          if (atEnd) {
            return;
          }
        } catch (RuntimeException | Error e) {
          atEnd = true;
          failed = e;
        }
      }
      if (failed == null) {
        failed = worked(worker, piece);
      }
      more = ended(worker, number, failed);
    }
  }

  private @Nullable Throwable worked(Worker worker, Pieces.Piece piece) {
    try {
      Batch batch = read(worker, piece);
      while (batch != null) {
        worker.work(batch);
        batch = whole ? null : read(worker, piece);
      }
      return null;
    } catch (RuntimeException | Error e) {
      return e;
    }
  }

  private static @Nullable Batch read(Worker worker, Pieces.Piece piece) {
    try {
      return piece.read();
    } catch (DataException e) {
      if (piece.batch().rows() > 0) {
        worker.work(piece.batch()); // a row before that one may fail too, and is told first
      }
      throw e;
    }
  }

  /** Waits for the piece's turn and puts out what is in order; returns whether to go on. */
  private boolean ended(Worker worker, long number, @Nullable Throwable failed) {
    synchronized (turning) {
      while (turn != number && !stopped) {
        try {
          turning.wait();
        } catch (InterruptedException e) {
          Thread.currentThread().interrupt();
          stop(new DataException("the run was interrupted", e));
        }
      }
      if (stopped) {
        return false;
      }
    }
    Throwable met = failed;
    boolean more = false;
    try {
      if (met == null) {
        more = worker.inOrder();
      } else {
        worker.failed();
      }
    } catch (RuntimeException | Error e) {
      met = met == null ? e : met;
    }
    synchronized (turning) {
      turn++;
      if (met != null || !more) {
        stop(met);
      }
      turning.notifyAll();
      return !stopped;
    }
  }

  /** Ends all work. */
  @GuardedBy("turning") private void stop(@Nullable Throwable cause) {
    if (!stopped) {
      stopped = true;
      failure = cause;
    }
    turning.notifyAll();
  }

  private void rethrow() {
    Throwable cause;
    synchronized (turning) {
      cause = failure;
    }
    if (cause instanceof Error error) {
      throw error;
    }
    if (cause != null) {
      throw (RuntimeException) cause;
    }
  }

  @Override
  public String toString() {
    return "Workers";
  }
}
