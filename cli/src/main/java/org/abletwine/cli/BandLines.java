package org.abletwine.cli;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.abletwine.match.BandReport;
import org.abletwine.match.BandReport.Finding;
import org.abletwine.match.BandReport.Kind;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** What was found about bands, on a terminal. */
final class BandLines {
  private static final int MOST = 40;

  private BandLines() {}

  static void print(Table table, @Nullable String key, String ends, BandReport report) {
    boolean colour = Ink.colour();
    System.out.println(
        Ink.BOLD.on(table.name(), colour)
            + "  bands "
            + ends
            + (key == null ? "" : " by " + key)
            + ": "
            + Words.rows(report.rows())
            + (key == null ? "" : ", " + Words.keys(report.partitions()))
            + (report.blankRows() == 0
                ? ""
                : ", " + Words.rows(report.blankRows()) + " that can never be found"));
    long wrong = report.findings().size() - report.count(Kind.OPEN);
    System.out.println(
        "  "
            + (wrong == 0 ? Ink.GOOD : Ink.WARN)
                .on(
                    count(report, Kind.OVERLAP, "overlap")
                        + ", "
                        + count(report, Kind.GAP, "gap")
                        + ", "
                        + count(report, Kind.REVERSED, "reversed")
                        + ", "
                        + count(report, Kind.SAME_START, "same start"),
                    colour)
            + "; "
            + count(report, Kind.OPEN, "open end"));
    List<Finding> findings = new ArrayList<>(report.findings());
    findings.sort(Comparator.comparing(finding -> finding.kind() == Kind.OPEN)); // wrong ones first
    if (findings.isEmpty()) {
      return;
    }
    System.out.println();
    TextTable lines = new TextTable("lllll");
    for (String heading : new String[] {"", key == null ? "" : key, "from", "to", "rows"}) {
      lines.cell(heading, Ink.DIM);
    }
    lines.end();
    for (Finding finding : findings.subList(0, Math.min(MOST, findings.size()))) {
      boolean open = finding.kind() == Kind.OPEN;
      lines
          .cell(word(finding.kind()), open ? Ink.DIM : Ink.WARN)
          .cell(finding.partition())
          .cell(finding.from().isEmpty() ? "open" : finding.from())
          .cell(
              finding.kind() == Kind.SAME_START
                  ? ""
                  : finding.to().isEmpty() ? "open" : finding.to())
          .cell(String.join(", ", finding.rows().stream().map(String::valueOf).toList()))
          .end();
    }
    lines.render(colour).forEach(System.out::println);
    if (findings.size() > MOST) {
      System.out.println("  and " + (findings.size() - MOST) + " more; --json shows all");
    }
  }

  private static String word(Kind kind) {
    return switch (kind) {
      case OVERLAP -> "overlap";
      case GAP -> "gap";
      case REVERSED -> "reversed";
      case SAME_START -> "same start";
      case OPEN -> "open end";
    };
  }

  private static String count(BandReport report, Kind kind, String word) {
    long count = report.count(kind);
    boolean plural = count != 1 && !word.equals("reversed");
    return count + " " + word + (plural ? "s" : "");
  }
}
