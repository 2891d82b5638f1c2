package org.abletwine.cli;

import org.abletwine.table.batch.Workers;

/** How many threads work on the rows. */
final class WorkersOption {
  private static final int MOST = 1_000;

  private final Usage usage;
  private final Given<Integer> workers;

  WorkersOption(Usage usage) {
    this.usage = usage;
    workers =
        usage.option(
            "--workers",
            "N",
            Integer.class,
            "How many threads work on the rows. Default: one for each processor. What comes out is"
                + " the same for any number.");
  }

  int count() {
    if (workers.orNull() != null && (workers.orNull() < 1 || workers.orNull() > MOST)) {
      throw usage.wrong("--workers takes a number from 1 to " + MOST + ", not " + workers.orNull());
    }
    return workers.orNull() == null ? Workers.usual() : workers.orNull();
  }
}
