package org.abletwine.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.enrich.TracedRow;
import org.abletwine.plan.AuditJson;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.tell.Words;
import org.abletwine.step.run.Trace;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** One transaction, step by step. */
@Command(
    name = "trace",
    mixinStandardHelpOptions = true,
    sortOptions = false,
    description =
        "Takes one transaction through a plan and shows what each step made of it: the key as"
            + " written, what each normalise step made of it, the reference rows that fit, which"
            + " was taken and why, and what was filled. Nothing is written.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine trace harvest.plan.yaml --row 18",
      "  able-twine trace harvest.plan.yaml --where \"ticket_no = '01042'\""
    })
final class TraceCommand implements Callable<Integer> {
  @Parameters(paramLabel = "PLAN", description = "The plan file.")
  private Path plan;

  @Option(
      names = "--row",
      paramLabel = "N",
      description = "The transaction's row, the first after the header being 1.")
  private Long row;

  @Option(
      names = "--where",
      paramLabel = "CONDITION",
      description = "A SQL condition over the transactions; the first row that meets it is taken.")
  private String where;

  @Mixin private PlanOptions options;

  @Option(names = "--json", description = "Print the trace as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    if ((row == null) == (where == null)) {
      throw new SettingException("state which transaction: --row N or --where CONDITION");
    }
    if (row != null && row < 1) {
      throw new SettingException("--row: rows are counted from 1");
    }
    Enrichment enrichment = PlanFile.load(plan, options.values()).enrichment();
    TracedRow traced = row == null ? enrichment.trace(where) : enrichment.trace(row);
    if (traced == null) {
      throw new DataException(
          row == null
              ? "no transaction meets " + where + "; check the values, text in single quotes"
              : "there is no row " + row + "; the transactions have fewer");
    }
    if (json) {
      System.out.println(Words.json(AuditJson.trace(traced)));
    } else {
      print(traced);
    }
    return 0;
  }

  private static void print(TracedRow traced) {
    boolean colour = Ink.colour();
    System.out.println(Ink.BOLD.on("Row " + traced.number() + " as read", colour));
    TextTable cells = new TextTable("ll");
    traced
        .read()
        .forEach((name, value) -> cells.cell(name, Ink.DIM).cell(Trace.shown(value)).end());
    cells.render(colour).forEach(System.out::println);
    for (TracedRow.StepTrace step : traced.steps()) {
      System.out.println();
      System.out.println(Ink.BOLD.on(step.step(), colour));
      TextTable lines = new TextTable("ll");
      for (TracedRow.StepTrace.Line line : step.lines()) {
        lines.cell(line.label(), Ink.DIM).cell(line.detail(), ink(line)).end();
      }
      lines.render(colour).forEach(System.out::println);
    }
  }

  private static Ink ink(TracedRow.StepTrace.Line line) {
    if (line.label().endsWith(" =")) {
      return line.detail().equals("null") ? Ink.WARN : Ink.GOOD;
    }
    return line.label().equals("outcome") && !line.detail().startsWith("matched")
        ? Ink.WARN
        : Ink.PLAIN;
  }
}
