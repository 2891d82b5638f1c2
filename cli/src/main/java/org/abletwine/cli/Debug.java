package org.abletwine.cli;

import java.io.PrintStream;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.Set;
import org.abletwine.table.AbleTwineException;

/**
 * Technical detail of an error: where it came from. Our own messages show no value of a private
 * column; those of Java and of libraries may hold any cell, so of these only the kind is told.
 */
final class Debug {
  private Debug() {}

  /** Prints where an error came from, and what caused it. */
  static void print(Throwable error, PrintStream out) {
    Set<Throwable> seen = Collections.newSetFromMap(new IdentityHashMap<>());
    String lead = "";
    for (Throwable at = error; at != null && seen.add(at); at = at.getCause()) {
      out.println(lead + told(at));
      for (StackTraceElement frame : at.getStackTrace()) {
        out.println("    at " + frame); // a tab would be shown as a control character
      }
      lead = "Caused by: ";
    }
  }

  /** An error in one line. */
  static String told(Throwable error) {
    return error instanceof AbleTwineException ? error.toString() : error.getClass().getName();
  }
}
