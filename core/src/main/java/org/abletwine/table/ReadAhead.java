package org.abletwine.table;

import java.util.BitSet;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;

/**
 * Reads a table on a thread of its own, a few recycled batches ahead. {@link #next} and {@link
 * #recycle} may be called from different threads, each from one.
 */
public final class ReadAhead implements AutoCloseable {
  private static final int BATCHES = 4;

  private final TableReader reader;
  private final BlockingQueue<Batch> empty = new ArrayBlockingQueue<>(BATCHES);
  private final BlockingQueue<Batch> full = new ArrayBlockingQueue<>(BATCHES + 1);
  private final Batch end;
  private final AtomicReference<@Nullable Throwable> failure = new AtomicReference<>();
  private final @Nullable BitSet wanted;
  private final Thread thread;

  /**
   * Opens the table and starts reading.
   *
   * @param table the table
   * @throws DataException when it cannot be opened
   */
  public ReadAhead(Table table) {
    this(table, null);
  }

  /**
   * Opens the table and starts reading some of its rows.
   *
   * @param table the table
   * @param wanted which rows, by their number, 1-based; not to be changed meanwhile; null for all
   * @throws DataException when it cannot be opened
   */
  public ReadAhead(Table table, @Nullable BitSet wanted) {
    this(table, wanted, table.schema().size());
  }

  /**
   * Opens the table and starts reading, some cells of each row only.
   *
   * @param table the table
   * @param wanted which rows, by their number, 1-based; not to be changed meanwhile; null for all
   * @param first how many cells of each row, for {@link TableReader#noteFirst}
   * @throws DataException when it cannot be opened
   */
  public ReadAhead(Table table, @Nullable BitSet wanted, int first) {
    this.wanted = wanted;
    int columns = table.schema().size();
    reader = table.open();
    if (first < columns) {
      reader.noteFirst(first);
    }
    end = new Batch(0);
    for (int i = 0; i < BATCHES; i++) {
      empty.add(new Batch(columns));
    }
    thread = new Thread(this::readAll, "read " + table.name());
    thread.setDaemon(true);
    thread.start();
  }

  private void readAll() {
    try {
      Batch batch = empty.take();
      while (wanted == null ? reader.read(batch) : reader.read(batch, wanted)) {
        full.put(batch);
        batch = empty.take();
      }
    } catch (InterruptedException e) {
      return; // closed early: nobody waits for more
    } catch (RuntimeException | Error e) {
      failure.set(e);
    }
    full.add(end);
  }

  /**
   * Waits for the next batch.
   *
   * @return the batch, or null at the end of the table
   * @throws DataException when the table could not be read further
   * @throws InterruptedException when the calling thread is interrupted
   */
  public @Nullable Batch next() throws InterruptedException {
    Batch batch = full.take();
    if (batch != end) {
      return batch;
    }
    full.add(end);
    Throwable cause = failure.get();
    if (cause instanceof Error error) {
      throw error;
    }
    if (cause != null) {
      throw (RuntimeException) cause;
    }
    return null;
  }

  /**
   * Hands a batch back for reuse.
   *
   * @param batch a batch that {@link #next} returned
   */
  public void recycle(Batch batch) {
    empty.add(batch);
  }

  /** Returns the bytes read so far; may be asked from any thread. */
  public long bytesRead() {
    return reader.bytesRead();
  }

  /** Stops reading and waits until the reader is closed. */
  @Override
  public void close() {
    thread.interrupt();
    boolean interrupted = false;
    while (thread.isAlive()) {
      try {
        thread.join();
      } catch (InterruptedException e) {
        interrupted = true;
      }
    }
    reader.close();
    if (interrupted) {
      Thread.currentThread().interrupt();
    }
  }
}
