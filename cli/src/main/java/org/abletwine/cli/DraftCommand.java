package org.abletwine.cli;

import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.draft.Draft;
import org.abletwine.plan.draft.LikeDraft;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.DataException;
import org.abletwine.table.Tables;
import org.abletwine.table.output.OutputFile;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Drafts a plan from tables. */
@Command(
    name = "draft",
    mixinStandardHelpOptions = true,
    sortOptions = false,
    description =
        "Drafts a plan: finds which columns join, which normalise steps win rows, what is there"
            + " twice, and what could be fetched; with the evidence as comments.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine draft tickets.csv growers.csv districts.csv prices.csv",
      "  able-twine draft tickets.csv masters.xlsx:Growers masters.xlsx:Districts --out t.plan.yaml",
      "  able-twine draft tickets.csv growers.csv prices.csv --like july-by-hand.csv --out july.plan.yaml"
    })
final class DraftCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "TRANSACTIONS", description = "The transactions.")
  private Path transactions;

  @Parameters(
      index = "1..*",
      arity = "1..*",
      paramLabel = "REFERENCE",
      description = "The references: files, or FILE:SHEET for a sheet of a workbook.")
  private List<Path> references;

  @Option(
      names = "--out",
      paramLabel = "FILE",
      description =
          "Where to save the plan: a new file, in whose folder its outputs will be. Default: it is"
              + " printed, for the working folder.")
  private Path out;

  @Option(
      names = "--like",
      paramLabel = "FILE",
      description =
          "A table that somebody made by hand from these: drafts the plan that makes it, and lists"
              + " the cells in which it differs from what the plan makes, with the likely reason.")
  private Path like;

  @Option(
      names = "--differences",
      paramLabel = "FILE",
      description = "With --like: write all the cells that differ there.")
  private Path differences;

  @Mixin private ReadingOptions reading;

  @Override
  public Integer call() {
    if (out != null && Files.exists(out)) {
      throw new DataException(out + " is there already; name a new file");
    }
    Path plan = out == null ? Path.of("drafted.plan.yaml") : out;
    if (like != null) {
      like(plan);
      return 0;
    }
    Draft draft =
        Draft.of(transactions, references, plan, reading.options(), TerminalProgress.create());
    if (out == null) {
      System.out.print(draft.text());
    } else {
      save(draft.text());
      RunRecord figures = draft.figures();
      int lookups = figures == null ? 0 : figures.lookups().size();
      System.out.println(
          "Wrote "
              + out
              + (figures == null
                  ? ""
                  : "  ("
                      + lookups
                      + (lookups == 1 ? " lookup" : " lookups")
                      + " for "
                      + Words.rows(figures.rowsIn())
                      + ")"));
      if (!draft.unused().isEmpty()) {
        System.out.println("Joins nothing that was found: " + String.join(", ", draft.unused()));
      }
      System.out.println("Read its comments, then: able-twine run " + out + " --preview 5");
    }
    if (!draft.problem().isEmpty()) {
      Say.note("the draft could not be run to its end: " + draft.problem());
    }
    return 0;
  }

  private void like(Path plan) {
    LikeDraft draft =
        LikeDraft.of(
            transactions, references, like, plan, reading.options(), TerminalProgress.create());
    PrintStream told = out == null ? System.err : System.out;
    if (out == null) {
      System.out.print(draft.text());
      System.out.flush();
    } else {
      save(draft.text());
      told.println("Wrote " + out);
    }
    DifferenceLines.of(draft, like, Ink.colour()).forEach(told::println);
    if (differences != null) {
      DifferenceLines.write(draft, Tables.file(like, reading.options()), differences);
      told.println("Wrote " + differences + "  (" + draft.slips().size() + " cells)");
    }
  }

  private void save(String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    try (OutputFile file = new OutputFile(out)) {
      file.write(bytes, bytes.length);
      file.commit();
    }
  }
}
