package org.abletwine.enrich;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Spliterator;
import java.util.Spliterators;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.abletwine.table.Row;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;

/**
 * The rows of a run as a stream: the run works in a thread of its own, and waits when the rows are
 * not taken. What is handed over are lists of rows, the last of them empty. Closing the stream ends
 * the run.
 */
final class RowStream implements Iterator<Row> {
  private static final int AT_ONCE = 500;
  private static final int WAITING = 8;

  private final BlockingQueue<List<Row>> handed = new ArrayBlockingQueue<>(WAITING);
  private List<Row> gathered = new ArrayList<>();
  private volatile boolean closed;
  private volatile @Nullable RuntimeException failure;
  private volatile @Nullable Error error;
  private Iterator<Row> current = List.<Row>of().iterator();
  private boolean ended;

  private RowStream() {}

  static Stream<Row> of(Consumer<TableSink> run) {
    RowStream rows = new RowStream();
    Thread thread = new Thread(() -> rows.run(run), "able-twine rows");
    thread.setDaemon(true);
    thread.start();
    return StreamSupport.stream(
            Spliterators.spliteratorUnknownSize(rows, Spliterator.ORDERED | Spliterator.NONNULL),
            false)
        .onClose(() -> rows.closed = true);
  }

  private void run(Consumer<TableSink> run) {
    try {
      run.accept(new RowsTaken(this::take));
    } catch (CancellationException e) {
      return; // nobody waits any more
    } catch (RuntimeException e) {
      failure = e;
    } catch (Error e) {
      error = e;
    }
    try {
      if (!gathered.isEmpty()) {
        hand(gathered);
      }
      hand(List.of());
    } catch (CancellationException e) {
      // nobody waits any more
    }
  }

  private void take(Row row) {
    gathered.add(row);
    if (gathered.size() == AT_ONCE) {
      hand(gathered);
      gathered = new ArrayList<>();
    }
  }

  private void hand(List<Row> rows) {
    try {
      while (!handed.offer(rows, 100, TimeUnit.MILLISECONDS)) {
        if (closed) {
          throw new CancellationException();
        }
      }
    } catch (InterruptedException e) {
      throw new CancellationException();
    }
    if (closed) {
      throw new CancellationException();
    }
  }

  @Override
  public boolean hasNext() {
    while (!current.hasNext() && !ended) {
      try {
        List<Row> next = handed.take();
        ended = next.isEmpty();
        current = next.iterator();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new CancellationException("interrupted while rows were awaited");
      }
    }
    RuntimeException met = failure;
    Error worse = error;
    if (!current.hasNext() && met != null) {
      throw met;
    }
    if (!current.hasNext() && worse != null) {
      throw worse;
    }
    return current.hasNext();
  }

  @Override
  public Row next() {
    if (!hasNext()) {
      throw new java.util.NoSuchElementException();
    }
    return current.next();
  }
}
