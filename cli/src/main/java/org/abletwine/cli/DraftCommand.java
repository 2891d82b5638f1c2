package org.abletwine.cli;

import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.draft.Draft;
import org.abletwine.plan.draft.LikeDraft;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.DataException;
import org.abletwine.table.Tables;
import org.abletwine.table.output.OutputFile;

/** Drafts a plan from tables. */
final class DraftCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "draft",
              "Drafts a plan: finds which columns join, which normalise steps win rows, what is there"
                  + " twice, and what could be fetched; with the evidence as comments.")
          .asStated()
          .examples(
              "  able-twine draft tickets.csv growers.csv districts.csv prices.csv",
              "  able-twine draft tickets.csv masters.xlsx:Growers masters.xlsx:Districts --out t.plan.yaml",
              "  able-twine draft tickets.csv growers.csv prices.csv --like july-by-hand.csv --out july.plan.yaml");

  private final Given<Path> transactions =
      usage.argument("TRANSACTIONS", Path.class, "The transactions.");

  private final Given<List<Path>> references =
      usage.arguments(
          "REFERENCE",
          Path.class,
          "The references: files, or FILE:SHEET for a sheet of a workbook.");

  private final Given<Path> out =
      usage.option(
          "--out",
          "FILE",
          Path.class,
          "Where to save the plan: a new file, in whose folder its outputs will be. Default: it is"
              + " printed, for the working folder.");

  private final Given<Path> like =
      usage.option(
          "--like",
          "FILE",
          Path.class,
          "A table that somebody made by hand from these: drafts the plan that makes it, and lists"
              + " the cells in which it differs from what the plan makes, with the likely reason.");

  private final Given<Path> differences =
      usage.option(
          "--differences",
          "FILE",
          Path.class,
          "With --like: write all the cells that differ there.");

  private final ReadingOptions reading = new ReadingOptions(usage);

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    if (out.orNull() != null && Files.exists(out.orNull())) {
      throw new DataException(out.orNull() + " is there already; name a new file");
    }
    Path plan = out.orNull() == null ? Path.of("drafted.plan.yaml") : out.orNull();
    if (like.orNull() != null) {
      like(plan);
      return 0;
    }
    Draft draft =
        Draft.of(
            transactions.get(),
            references.get(),
            plan,
            reading.options(),
            TerminalProgress.create());
    if (out.orNull() == null) {
      System.out.print(draft.text());
    } else {
      save(draft.text());
      RunRecord figures = draft.figures();
      int lookups = figures == null ? 0 : figures.lookups().size();
      System.out.println(
          "Wrote "
              + out.orNull()
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
      System.out.println(
          "Read its comments, then: able-twine run " + out.orNull() + " --preview 5");
    }
    if (!draft.problem().isEmpty()) {
      Say.note("the draft could not be run to its end: " + draft.problem());
    }
    return 0;
  }

  private void like(Path plan) {
    LikeDraft draft =
        LikeDraft.of(
            transactions.get(),
            references.get(),
            like.get(),
            plan,
            reading.options(),
            TerminalProgress.create());
    PrintStream told = out.orNull() == null ? System.err : System.out;
    if (out.orNull() == null) {
      System.out.print(draft.text());
      System.out.flush();
    } else {
      save(draft.text());
      told.println("Wrote " + out.orNull());
    }
    DifferenceLines.of(draft, like.get(), Ink.colour()).forEach(told::println);
    if (differences.orNull() != null) {
      DifferenceLines.write(
          draft, Tables.file(like.get(), reading.options()), differences.orNull());
      told.println("Wrote " + differences.orNull() + "  (" + draft.slips().size() + " cells)");
    }
  }

  private void save(String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    try (OutputFile file = new OutputFile(out.get())) {
      file.write(bytes, bytes.length);
      file.commit();
    }
  }
}
