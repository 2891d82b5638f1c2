package org.abletwine.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.demo.WendleVale;
import org.abletwine.plan.PlanCloser;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.table.DataException;

/** Lays out the demo and runs it. */
final class DemoCommand implements Command {
  private final Usage usage =
      Usage.of(this, "demo", "Lays out the demo data and plan in a folder and runs it.")
          .examples(
              "  able-twine demo                                      lays out wendle-vale/ and runs its plan",
              "  able-twine demo big --tickets 10000000 --growers 1000000   the same tables in that size, not run");

  private final Given<Path> folder =
      usage
          .argument("FOLDER", Path.class, "Where to lay it out. Default: ${DEFAULT-VALUE}.")
          .usually("wendle-vale");

  private final Given<Long> tickets =
      usage.option("--tickets", "N", Long.class, "Only write the tables, with N tickets.");

  private final Given<Integer> growers =
      usage.option("--growers", "N", Integer.class, "Only write the tables, with N growers.");

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    refuseForeignFolder();
    try {
      Files.createDirectories(folder.get());
      if (tickets.orNull() != null || growers.orNull() != null) {
        WendleVale.write(
            folder.get(),
            tickets.orNull() == null ? WendleVale.TICKETS : Math.max(1, tickets.orNull()),
            growers.orNull() == null ? WendleVale.GROWERS : Math.max(10, growers.orNull()),
            WendleVale.SEED);
        System.out.println("Wrote the tables to " + folder.get());
        return 0;
      }
      WendleVale.layOut(folder.get());
    } catch (IOException e) {
      throw new DataException("cannot write to " + folder.get() + ": " + e.getMessage(), e);
    }
    Path plan = folder.get().resolve("harvest.plan.yaml");
    PlannedRun run = PlanFile.load(plan);
    PlannedRun.Result result = run.run(TerminalProgress.create());
    Results.print(
        result.record(),
        result.enriched(),
        result.form(),
        result.bytes(),
        result.others(),
        new Results.Telling(
            Detail.MAIN, PlanCloser.of(plan.toString(), run.corrections() != null), json.get()));
    if (!json.get()) {
      System.out.println();
      System.out.println(
          "The plan is " + plan + "; README.md beside it lists what is wrong with the data. Next:");
      System.out.println("  ./able-twine run " + plan + " --preview 5");
      System.out.println("  ./able-twine run " + folder.get().resolve("month-end.plan.yaml"));
    }
    return 0;
  }

  private void refuseForeignFolder() {
    if (!Files.isDirectory(folder.get()) || WendleVale.isIn(folder.get())) {
      return;
    }
    try (var files = Files.list(folder.get())) {
      if (files.findAny().isPresent()) {
        throw new DataException(
            folder.get() + " holds other files; name a folder that is new or empty, or a demo's");
      }
    } catch (IOException e) {
      throw new DataException("cannot read the folder " + folder.get() + ": " + e.getMessage(), e);
    }
  }
}
