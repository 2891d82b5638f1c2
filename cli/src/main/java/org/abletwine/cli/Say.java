package org.abletwine.cli;

import org.jspecify.annotations.Nullable;

/** Messages, on standard error. */
final class Say {
  private Say() {}

  static void error(@Nullable String message) {
    for (String line : String.valueOf(message).split("\n")) {
      System.err.println("able-twine: " + line);
    }
  }

  static void note(String message) {
    System.err.println("able-twine: " + message);
  }
}
