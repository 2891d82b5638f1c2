package org.abletwine.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.PlanCloser;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.tell.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Runs a plan. */
@Command(
    name = "run",
    mixinStandardHelpOptions = true,
    description = "Runs a plan: fetches, fills, writes the outputs and prints the figures.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine run harvest.plan.yaml",
      "  able-twine run harvest.plan.yaml --preview 5"
    })
final class RunCommand implements Callable<Integer> {
  private static final int CONTROL = 3;

  @Spec private CommandSpec spec;

  @Parameters(paramLabel = "PLAN", description = "The plan file.")
  private Path plan;

  @Option(
      names = "--preview",
      paramLabel = "N",
      description = "Show the first N rows and write nothing.")
  private Long preview;

  @Option(
      names = "--lenient",
      description = "Only report controls that do not hold; the exit status stays 0.")
  private boolean lenient;

  @Mixin private PlanOptions options;

  @Mixin private WorkersOption workers;

  @Mixin private MemoryOption memory;

  @Mixin private FiguresOptions figures;

  @Option(
      names = "--report",
      paramLabel = "FILE",
      description = "Write the report there, whatever the plan says: one page of HTML.")
  private Path report;

  @Option(
      names = "--since",
      paramLabel = "RECORD",
      description = "Tell what changed since the run whose record this is.")
  private Path since;

  @Option(names = "--json", description = "Print the figures as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    if (preview != null && preview < 1) {
      throw new ParameterException(spec.commandLine(), "--preview takes a number from 1 on");
    }
    PlannedRun run =
        PlanFile.load(plan, options.values())
            .workers(workers.count())
            .memory(memory.bytes(), memory.folder());
    if (preview != null) {
      preview(run);
      return 0;
    }
    run.interrupted().ifPresent(Say::note);
    Drift.Since before = since == null ? null : Drift.since(since);
    run.since(before).report(report);
    if (json) {
      run.accounted();
    }
    PlannedRun.Result result = run.run(TerminalProgress.create());
    if (json && result.account() != null) {
      Results.json(RunJson.text(result.account()), result.enriched());
      return status(result.record());
    }
    Results.print(
        result.record(),
        result.enriched(),
        result.form(),
        result.bytes(),
        result.others(),
        new Results.Telling(
            figures.detail(), PlanCloser.of(plan.toString(), run.corrections() != null), false));
    if (before != null && result.account() != null && figures.detail() != Detail.QUIET) {
      Results.lines(DriftLines.part(before.to(result.account()), Ink.colour()), result.enriched());
    }
    return status(result.record());
  }

  private int status(RunRecord record) {
    return record.holds() || lenient ? 0 : CONTROL;
  }

  private void preview(PlannedRun run) {
    PreviewSink sink = new PreviewSink();
    RunRecord record = run.preview(preview, sink);
    if (json) {
      System.out.println(Words.json(RunJson.text(record)));
      return;
    }
    if (figures.detail() == Detail.ALL) {
      RunSummary.lines(record, Ink.colour()).forEach(System.out::println);
    } else {
      BriefSummary.ofPreview(record, Ink.colour()).forEach(System.out::println);
    }
    System.out.println();
    sink.print(System.out, Ink.colour());
    RunSummary.kept(record).forEach(System.out::println);
    System.out.println(
        "Preview of the first " + Words.rows(record.rowsIn()) + "; nothing was written");
  }
}
