package org.abletwine.cli;

import java.io.PrintStream;
import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.tell.Closer;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.Destination;
import org.jspecify.annotations.Nullable;

/** Prints what a run gave: to standard output, unless the rows themselves went there. */
final class Results {
  private Results() {}

  /**
   * How a run is told.
   *
   * @param detail how much of it
   * @param closer tells how to look closer
   * @param json whether as JSON
   */
  record Telling(Detail detail, Closer closer, boolean json) {}

  static void print(
      RunRecord run,
      @Nullable Destination output,
      String form,
      long bytes,
      List<String> others,
      Telling telling) {
    if (telling.json()) {
      json(RunJson.text(run), output);
      return;
    }
    boolean taken = isStandardOutput(output);
    PrintStream out = taken ? System.err : System.out;
    print(out, !taken && Ink.colour(), new Ran(run, output, form, bytes, others), telling);
  }

  /** What came of a run. */
  record Ran(
      RunRecord record,
      @Nullable Destination output,
      String form,
      long bytes,
      List<String> others) {}

  /** Prints what came of a run as a person reads it. */
  static void print(PrintStream out, boolean colour, Ran ran, Telling telling) {
    RunRecord run = ran.record();
    Destination output = ran.output();
    boolean taken = isStandardOutput(output);
    switch (telling.detail()) {
      case MAIN -> BriefSummary.lines(run, telling.closer(), colour).forEach(out::println);
      case ALL -> RunSummary.lines(run, colour).forEach(out::println);
      case QUIET -> BriefSummary.quiet(run, colour).forEach(out::println);
    }
    if (telling.detail() == Detail.QUIET) {
      out.flush();
      return;
    }
    if (!taken) {
      out.println();
    }
    RunSummary.onDisk(run).forEach(out::println);
    RunSummary.kept(run).forEach(out::println);
    if (!taken) {
      if (output != null) {
        String size = output.file() == null ? "" : Words.bytes(ran.bytes()) + "; ";
        wrote(out, output + "  (" + size + ran.form() + ")");
      }
    }
    ran.others().forEach(other -> wrote(out, parted(other)));
    out.flush();
  }

  /** Prints figures as JSON. */
  static void json(String text, @Nullable Destination output) {
    PrintStream out = isStandardOutput(output) ? System.err : System.out;
    out.println(Words.json(text));
    out.flush();
  }

  /** Prints lines where the figures go. */
  static void lines(List<String> lines, @Nullable Destination output) {
    PrintStream out = isStandardOutput(output) ? System.err : System.out;
    lines.forEach(out::println);
    out.flush();
  }

  private static boolean isStandardOutput(@Nullable Destination output) {
    return output != null && output.toString().equals("-");
  }

  /** What is in a file, with its thousands parted; its name stays. */
  private static String parted(String other) {
    int at = other.indexOf("  (");
    return at < 0 ? other : other.substring(0, at) + Words.grouped(other.substring(at));
  }

  private static void wrote(PrintStream out, String what) {
    Screen.line("Wrote " + what).forEach(out::println);
  }
}
