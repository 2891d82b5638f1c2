package org.abletwine.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.abletwine.demo.WendleVale;
import org.abletwine.plan.PlanCloser;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlannedRun;
import org.abletwine.table.DataException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Lays out the demo and runs it. */
@Command(
    name = "demo",
    mixinStandardHelpOptions = true,
    description = "Lays out the demo data and plan in a folder and runs it.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine demo                                      lays out wendle-vale/ and runs its plan",
      "  able-twine demo big --tickets 10000000 --growers 1000000   the same tables in that size, not run"
    })
final class DemoCommand implements Callable<Integer> {
  @Parameters(
      paramLabel = "FOLDER",
      arity = "0..1",
      defaultValue = "wendle-vale",
      description = "Where to lay it out. Default: ${DEFAULT-VALUE}.")
  private Path folder;

  @Option(
      names = "--tickets",
      paramLabel = "N",
      description = "Only write the tables, with N tickets.")
  private Long tickets;

  @Option(
      names = "--growers",
      paramLabel = "N",
      description = "Only write the tables, with N growers.")
  private Integer growers;

  @Option(names = "--json", description = "Print the figures as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    refuseForeignFolder();
    try {
      Files.createDirectories(folder);
      if (tickets != null || growers != null) {
        WendleVale.write(
            folder,
            tickets == null ? WendleVale.TICKETS : Math.max(1, tickets),
            growers == null ? WendleVale.GROWERS : Math.max(10, growers),
            WendleVale.SEED);
        System.out.println("Wrote the tables to " + folder);
        return 0;
      }
      WendleVale.layOut(folder);
    } catch (IOException e) {
      throw new DataException("cannot write to " + folder + ": " + e.getMessage(), e);
    }
    Path plan = folder.resolve("harvest.plan.yaml");
    PlannedRun run = PlanFile.load(plan);
    PlannedRun.Result result = run.run(TerminalProgress.create());
    Results.print(
        result.record(),
        result.enriched(),
        result.form(),
        result.bytes(),
        result.others(),
        new Results.Telling(
            Detail.MAIN, PlanCloser.of(plan.toString(), run.corrections() != null), json));
    if (!json) {
      System.out.println();
      System.out.println(
          "The plan is " + plan + "; README.md beside it lists what is wrong with the data. Next:");
      System.out.println("  ./able-twine run " + plan + " --preview 5");
      System.out.println("  ./able-twine run " + folder.resolve("month-end.plan.yaml"));
    }
    return 0;
  }

  private void refuseForeignFolder() {
    if (!Files.isDirectory(folder) || WendleVale.isIn(folder)) {
      return;
    }
    try (var files = Files.list(folder)) {
      if (files.findAny().isPresent()) {
        throw new DataException(
            folder + " holds other files; name a folder that is new or empty, or a demo's");
      }
    } catch (IOException e) {
      throw new DataException("cannot read the folder " + folder + ": " + e.getMessage(), e);
    }
  }
}
