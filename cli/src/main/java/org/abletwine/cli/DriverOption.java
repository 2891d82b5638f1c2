package org.abletwine.cli;

import java.nio.file.Path;
import java.util.List;
import org.abletwine.formats.database.Drivers;

/** Drivers for databases beside those that are there. */
final class DriverOption {
  private final Given<List<Path>> libraries;
  private boolean added;

  DriverOption(Usage usage) {
    libraries =
        usage.options(
            "--driver-path",
            "FILE",
            Path.class,
            "A library with a JDBC driver, beside those for SQLite and PostgreSQL.");
  }

  /** Adds the drivers stated, unless they are there already. */
  void add() {
    if (!added) {
      libraries.get().forEach(Drivers::add);
      added = true;
    }
  }
}
