package org.abletwine.cli;

import java.util.SplittableRandom;
import picocli.CommandLine.Help.Ansi;

/**
 * Colour, where a person is looking: not when standard output is piped, and not when the
 * environment variable NO_COLOR is set to anything.
 */
enum Ink {
  PLAIN(""),
  BOLD("[1m"),
  DIM("[2m"),
  GOOD("[32m"),
  /** Magenta: yellow is hard to read on light backgrounds. */
  WARN("[35m"),
  BAD("[31m");

  /**
   * Stands for the escape character until a text is printed: control characters in it are shown
   * then, and nobody who writes data can know this one: it comes of the clock at this start, to the
   * billionth of a second. (Random numbers that are secure take their time to be ready.)
   */
  private static final String ESCAPE =
      "{" + Long.toHexString(new SplittableRandom().nextLong()) + "}";

  private static final String OFF = "[0m";
  private final String on;

  Ink(String on) {
    this.on = on;
  }

  /** A text that was coloured, as a terminal takes it. */
  static String shown(String text) {
    return text.replace(ESCAPE, "\u001b");
  }

  /** A text without its colours. */
  static String plain(String text) {
    return text.contains(ESCAPE)
        ? text.replaceAll(java.util.regex.Pattern.quote(ESCAPE) + "\\[[0-9]+m", "")
        : text;
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
    return colour && this != PLAIN && !text.isBlank() ? ESCAPE + on + text + ESCAPE + OFF : text;
  }
}
