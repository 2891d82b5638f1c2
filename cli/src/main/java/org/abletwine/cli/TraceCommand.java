package org.abletwine.cli;

import java.nio.file.Path;
import org.abletwine.enrich.Enrichment;
import org.abletwine.enrich.TracedRow;
import org.abletwine.plan.AuditJson;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.tell.Words;
import org.abletwine.step.run.Trace;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;

/** One transaction, step by step. */
final class TraceCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "trace",
              "Takes one transaction through a plan and shows what each step made of it: the key as"
                  + " written, what each normalise step made of it, the reference rows that fit, which"
                  + " was taken and why, and what was filled. Nothing is written.")
          .asStated()
          .examples(
              "  able-twine trace harvest.plan.yaml --row 18",
              "  able-twine trace harvest.plan.yaml --where \"ticket_no = '01042'\"");

  private final Given<Path> plan = usage.argument("PLAN", Path.class, "The plan file.");

  private final Given<Long> row =
      usage.option(
          "--row", "N", Long.class, "The transaction's row, the first after the header being 1.");

  private final Given<String> where =
      usage.option(
          "--where",
          "CONDITION",
          "A SQL condition over the transactions; the first row that meets it is taken.");

  private final PlanOptions options = new PlanOptions(usage);

  private final Given<Boolean> json = usage.flag("--json", "Print the trace as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    if ((row.orNull() == null) == (where.orNull() == null)) {
      throw new SettingException("state which transaction: --row N or --where CONDITION");
    }
    if (row.orNull() != null && row.orNull() < 1) {
      throw new SettingException("--row: rows are counted from 1");
    }
    Enrichment enrichment = PlanFile.load(plan.get(), options.values()).enrichment();
    TracedRow traced =
        row.orNull() == null ? enrichment.trace(where.orNull()) : enrichment.trace(row.orNull());
    if (traced == null) {
      throw new DataException(
          row.orNull() == null
              ? "no transaction meets "
                  + where.orNull()
                  + "; check the values, text in single quotes"
              : "there is no row " + row.orNull() + "; the transactions have fewer");
    }
    if (json.get()) {
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
