package org.abletwine.cli;

import picocli.CommandLine.Help.Ansi;

/**
 * Colour, where a person is looking: not when standard output is piped, and not when the
 * environment variable NO_COLOR is set to anything.
 */
enum Ink {
  PLAIN(""),
  BOLD("\u001b[1m"),
  DIM("\u001b[2m"),
  GOOD("\u001b[32m"),
  /** Magenta: yellow is hard to read on light backgrounds. */
  WARN("\u001b[35m"),
  BAD("\u001b[31m");

  private static final String OFF = "\u001b[0m";
  private final String on;

  Ink(String on) {
    this.on = on;
  }

  /** Whether standard output (1) or standard error (2) is a terminal. */
  static boolean terminal(int descriptor) {
    String told = System.getProperty("abletwine.terminals");
    return told == null ? System.console() != null : told.contains(Integer.toString(descriptor));
  }

  static boolean colour() {
    String off = System.getenv("NO_COLOR");
    return (off == null || off.isEmpty()) && terminal(1);
  }

  static Ansi helpAnsi() {
    return colour() ? Ansi.ON : Ansi.OFF;
  }

  String on(String text, boolean colour) {
    return colour && this != PLAIN && !text.isBlank() ? on + text + OFF : text;
  }
}
