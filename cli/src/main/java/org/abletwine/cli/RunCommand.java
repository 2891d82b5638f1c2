package org.abletwine.cli;

import java.nio.file.Path;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.PlanCloser;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.tell.Words;

/** Runs a plan. */
final class RunCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "run",
              "Runs a plan: fetches, fills, writes the outputs and prints the figures.")
          .examples(
              "  able-twine run harvest.plan.yaml",
              "  able-twine run harvest.plan.yaml --preview 5");

  private static final int CONTROL = 3;

  private final Given<Path> plan = usage.argument("PLAN", Path.class, "The plan file.");

  private final Given<Long> preview =
      usage.option("--preview", "N", Long.class, "Show the first N rows and write nothing.");

  private final Given<Boolean> lenient =
      usage.flag("--lenient", "Only report controls that do not hold; the exit status stays 0.");

  private final PlanOptions options = new PlanOptions(usage);

  private final WorkersOption workers = new WorkersOption(usage);

  private final MemoryOption memory = new MemoryOption(usage);

  private final FiguresOptions figures = new FiguresOptions(usage);

  private final Given<Path> report =
      usage.option(
          "--report",
          "FILE",
          Path.class,
          "Write the report there, whatever the plan says: one page of HTML.");

  private final Given<Path> since =
      usage.option(
          "--since", "RECORD", Path.class, "Tell what changed since the run whose record this is.");

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    if (preview.orNull() != null && preview.orNull() < 1) {
      throw usage.wrong("--preview takes a number from 1 on");
    }
    PlannedRun run =
        PlanFile.load(plan.get(), options.values())
            .workers(workers.count())
            .memory(memory.bytes(), memory.folder());
    if (preview.orNull() != null) {
      preview(run);
      return 0;
    }
    run.interrupted().ifPresent(Say::note);
    Drift.Since before = since.orNull() == null ? null : Drift.since(since.orNull());
    run.since(before).report(report.orNull());
    if (json.get()) {
      run.accounted();
    }
    PlannedRun.Result result = run.run(TerminalProgress.create());
    if (json.get() && result.account() != null) {
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
            figures.detail(),
            PlanCloser.of(plan.get().toString(), run.corrections() != null),
            false));
    if (before != null && result.account() != null && figures.detail() != Detail.QUIET) {
      Results.lines(DriftLines.part(before.to(result.account()), Ink.colour()), result.enriched());
    }
    return status(result.record());
  }

  private int status(RunRecord record) {
    return record.holds() || lenient.get() ? 0 : CONTROL;
  }

  private void preview(PlannedRun run) {
    PreviewSink sink = new PreviewSink();
    RunRecord record = run.preview(preview.get(), sink);
    if (json.get()) {
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
