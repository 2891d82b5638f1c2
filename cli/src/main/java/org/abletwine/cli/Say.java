package org.abletwine.cli;

import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** Messages, on standard error. */
final class Say {
  /** Characters of a line at most: a cell that a message quotes may be very long. */
  private static final int WIDEST = 1_000;

  private Say() {}

  static void error(@Nullable String message) {
    for (String line : String.valueOf(message).split("\n")) {
      note(line);
    }
  }

  /** Says what a person should know about how tables were read. */
  static void remarks(Table... tables) {
    for (Table table : tables) {
      table.remarks().forEach(remark -> note(table.name() + ": " + remark));
    }
  }

  static void note(String message) {
    int more = message.length() - WIDEST;
    String line = more <= 0 ? message : message.substring(0, WIDEST) + "... and " + more + " more";
    System.err.println("able-twine: " + line);
  }
}
