package org.abletwine.cli;

import java.util.function.LongSupplier;
import org.abletwine.plan.tell.Words;
import org.abletwine.step.Progress;
import org.abletwine.table.Table;

/**
 * A sign of life where nobody sees a line change, such as in a log: one line every ten seconds,
 * nothing before.
 */
final class PipedProgress implements Progress {
  private final long everyMillis;

  PipedProgress() {
    this(10_000);
  }

  PipedProgress(long everyMillis) {
    this.everyMillis = everyMillis;
  }

  @Override
  public Runnable reading(Table table, LongSupplier bytes, LongSupplier rows) {
    return Ticker.start(
        () -> System.err.println(line(table, bytes.getAsLong(), rows.getAsLong())),
        everyMillis,
        everyMillis);
  }

  /** How far it is. */
  private static String line(Table table, long bytes, long rows) {
    long size = table.sizeInBytes();
    return "able-twine: "
        + Words.shown(table.name())
        + ": "
        + Words.rows(rows)
        + " read"
        + (size > 0 && bytes > 0
            ? ", " + Words.percent(Math.min(bytes, size), size) + " of it"
            : "");
  }
}
