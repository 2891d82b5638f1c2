package org.abletwine.cli;

import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/** Does something now and then, on a thread that keeps nobody from ending. */
final class Ticker {
  private Ticker() {}

  /**
   * Begins.
   *
   * @param first milliseconds until the first time
   * @param every milliseconds between one time and the next
   * @return ends it
   */
  static Runnable start(Runnable work, long first, long every) {
    ScheduledExecutorService clock =
        Executors.newSingleThreadScheduledExecutor(
            task -> {
              Thread thread = new Thread(task, "progress");
              thread.setDaemon(true);
              return thread;
            });
    clock.scheduleAtFixedRate(work, first, every, TimeUnit.MILLISECONDS);
    return clock::shutdownNow;
  }
}
