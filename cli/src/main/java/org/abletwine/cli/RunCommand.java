package org.abletwine.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Outcome;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.drift.Drift;
import org.abletwine.plan.tell.Closer;
import org.abletwine.plan.tell.Words;
import org.jspecify.annotations.Nullable;
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

  @Mixin private FiguresOptions figures;

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
    PlannedRun run = PlanFile.load(plan, options.values()).workers(workers.count());
    if (preview != null) {
      preview(run);
      return 0;
    }
    run.interrupted().ifPresent(Say::note);
    Drift.Since before = since == null ? null : Drift.since(since);
    if (json || before != null) {
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
        new Results.Telling(figures.detail(), closer(plan, run.corrections()), false));
    if (before != null && result.account() != null && figures.detail() != Detail.QUIET) {
      Results.lines(DriftLines.part(before.to(result.account()), Ink.colour()), result.enriched());
    }
    return status(result.record());
  }

  private int status(RunRecord record) {
    return record.holds() || lenient ? 0 : CONTROL;
  }

  /**
   * How to look closer at rows of a plan: keys that may be misspelt in the draft of corrections,
   * all others by following the first of them.
   */
  static Closer closer(Path plan, @Nullable Path corrections) {
    return new Closer() {
      @Override
      public String one() {
        return "trace " + plan + " --row N";
      }

      @Override
      public Look look(LookupFigures lookup, Outcome outcome) {
        LookupFigures.Firsts firsts = lookup.outcomes().firsts();
        boolean plain =
            !lookup.fits().byRule()
                && lookup.blankParts().size() == 1
                && lookup.outcomes().wouldMatch() == 0;
        if (outcome == Outcome.UNMATCHED && plain && corrections != null) {
          return new Look("corrections draft", false);
        }
        long row =
            switch (outcome) {
              case UNMATCHED -> firsts.unmatched();
              case AMBIGUOUS -> firsts.ambiguous();
              default -> firsts.blankKey();
            };
        return row == 0 ? Look.NONE : new Look("row " + Words.count(row), false);
      }
    };
  }

  private void preview(PlannedRun run) {
    PreviewSink sink = new PreviewSink();
    RunRecord record = run.preview(preview, sink);
    if (json) {
      System.out.println(Streams.json(RunJson.text(record)));
      return;
    }
    if (figures.detail() == Detail.ALL) {
      RunSummary.lines(record, Ink.colour()).forEach(System.out::println);
    } else {
      BriefSummary.ofPreview(record, Ink.colour()).forEach(System.out::println);
    }
    System.out.println();
    sink.print(System.out, Ink.colour());
    System.out.println(
        "Preview of the first " + Words.rows(record.rowsIn()) + "; nothing was written");
  }
}
