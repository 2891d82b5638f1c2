package org.abletwine.cli;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.InputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;

/** Runs a command as a user would, and keeps what it printed. */
final class Cli {
  /** What a command gave. */
  record Gave(int status, String out, String err) {}

  private Cli() {}

  static Gave run(String... args) {
    return runWith("", args);
  }

  /** Runs with a screen so many columns wide; what is asserted otherwise is not broken. */
  static synchronized Gave runAt(int columns, String... args) {
    wide = columns;
    try {
      return run(args);
    } finally {
      wide = WIDE;
    }
  }

  private static final int WIDE = 4_000;
  private static int wide = WIDE;

  static synchronized Gave runWith(String input, String... args) {
    PrintStream out = System.out;
    PrintStream err = System.err;
    InputStream in = System.in;
    ByteArrayOutputStream outBytes = new ByteArrayOutputStream();
    ByteArrayOutputStream errBytes = new ByteArrayOutputStream();
    try {
      System.setOut(new PrintStream(outBytes, true, StandardCharsets.UTF_8));
      System.setErr(new PrintStream(errBytes, true, StandardCharsets.UTF_8));
      System.setIn(new ByteArrayInputStream(input.getBytes(StandardCharsets.UTF_8)));
      System.setProperty("abletwine.terminals", "");
      System.setProperty("abletwine.columns", Integer.toString(wide));
      int status = Main.run(args);
      return new Gave(
          status,
          outBytes.toString(StandardCharsets.UTF_8),
          errBytes.toString(StandardCharsets.UTF_8));
    } finally {
      System.setOut(out);
      System.setErr(err);
      System.setIn(in);
    }
  }
}
