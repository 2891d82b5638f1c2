package org.abletwine.cli;

import java.io.PrintStream;
import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.RunJson;
import org.abletwine.table.Destination;
import org.jspecify.annotations.Nullable;

/** Prints what a run gave: to standard output, unless the rows themselves went there. */
final class Results {
  private Results() {}

  static void print(
      RunRecord run,
      @Nullable Destination output,
      String form,
      long bytes,
      List<String> others,
      boolean json) {
    boolean taken = output != null && output.toString().equals("-");
    PrintStream out = taken ? System.err : System.out;
    if (json) {
      out.println(Streams.json(RunJson.text(run)));
    } else {
      RunSummary.lines(run, !taken && Ink.colour()).forEach(out::println);
    }
    if (!taken && !json) {
      out.println();
      if (output != null) {
        out.println(
            "Wrote "
                + output
                + "  ("
                + (output.file() == null ? "" : RunSummary.bytes(bytes) + "; ")
                + form
                + ")");
      }
    }
    if (!json) {
      others.forEach(other -> out.println("Wrote " + other));
    }
    out.flush();
  }
}
