package org.abletwine.cli;

import java.time.Duration;
import java.util.function.LongSupplier;
import me.tongfei.progressbar.ConsoleProgressBarConsumer;
import me.tongfei.progressbar.ProgressBar;
import me.tongfei.progressbar.ProgressBarBuilder;
import me.tongfei.progressbar.ProgressBarStyle;
import org.abletwine.plan.tell.Words;
import org.abletwine.step.Progress;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * A progress line on standard error for work that takes longer than about two seconds. Silent when
 * standard error is not a terminal.
 */
final class TerminalProgress implements Progress {
  private static final long QUIET_MILLIS = 2_000;
  private static final long EVERY_MILLIS = 250;
  private static final int WIDTH = 110;

  private TerminalProgress() {}

  /**
   * The progress to use now: a line that changes when a person is looking, else one now and then.
   */
  static Progress create() {
    return Ink.terminal(2) ? new TerminalProgress() : new PipedProgress();
  }

  @Override
  public Runnable reading(Table table, LongSupplier bytes, LongSupplier rows) {
    Meter meter = new Meter(table, bytes, rows);
    Runnable ended = Ticker.start(meter::show, QUIET_MILLIS, EVERY_MILLIS);
    return () -> {
      ended.run();
      meter.end();
    };
  }

  private static final class Meter {
    private final Table table;
    private final LongSupplier bytes;
    private final LongSupplier rows;
    private final long begun = System.nanoTime();
    private @Nullable ProgressBar bar;
    private boolean ended;

    Meter(Table table, LongSupplier bytes, LongSupplier rows) {
      this.table = table;
      this.bytes = bytes;
      this.rows = rows;
    }

    /** Whether only rows can be counted: a cursor of a database has no size. */
    private boolean counted() {
      return table.sizeInBytes() <= 0;
    }

    synchronized void show() {
      if (ended) {
        return;
      }
      ProgressBar shown = bar;
      if (shown == null) {
        shown =
            new ProgressBarBuilder()
                .setTaskName(Words.shown(table.name()))
                .setStyle(ProgressBarStyle.ASCII)
                .setUnit(counted() ? " rows" : " MB", counted() ? 1 : 1_000_000)
                .setInitialMax(counted() ? -1 : table.sizeInBytes())
                .setUpdateIntervalMillis((int) EVERY_MILLIS)
                .setMaxRenderedLength(WIDTH)
                .startsFrom(0, Duration.ofNanos(System.nanoTime() - begun))
                .setConsumer(new ConsoleProgressBarConsumer(Streams.overwritten(System.err), WIDTH))
                .clearDisplayOnFinish()
                .build();
        bar = shown;
      }
      long done = rows.getAsLong();
      double seconds = (System.nanoTime() - begun) / 1e9;
      shown.stepTo(counted() ? done : bytes.getAsLong());
      shown.setExtraMessage(
          Words.rows(done) + ", " + Words.count((long) (done / seconds)) + " a second");
    }

    synchronized void end() {
      ended = true;
      if (bar != null) {
        bar.close();
      }
    }
  }
}
