package org.abletwine.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlanInParts;
import org.abletwine.plan.PlanSentence;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.tell.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Checks a plan. */
@Command(
    name = "check",
    mixinStandardHelpOptions = true,
    description =
        "Reads a plan and the headers of its tables and reports every mistake at once;"
            + " runs nothing.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine check harvest.plan.yaml",
      "  able-twine check harvest.plan.yaml --words",
      "  able-twine check harvest.plan.yaml --cluster"
    })
final class CheckCommand implements Callable<Integer> {
  private static final int USAGE = 2;

  @Parameters(paramLabel = "PLAN", description = "The plan file.")
  private Path plan;

  @Mixin private PlanOptions options;

  @Option(
      names = "--words",
      description = "Tell what the plan does in plain sentences, once nothing is wrong with it.")
  private boolean words;

  @Option(names = "--cluster", description = "Report also what several processes cannot do of it.")
  private boolean cluster;

  @Option(names = "--json", description = "Print the mistakes as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    List<String> mistakes = PlanFile.check(plan, options.values());
    if (cluster && mistakes.isEmpty()) {
      mistakes = PlanInParts.refusals(plan, options.values());
    }
    if (json && words && mistakes.isEmpty()) {
      System.out.println(
          Words.json(RunJson.words(PlanFile.load(plan, options.values()).words(null))));
    } else if (json) {
      System.out.println(Words.json(RunJson.mistakes(mistakes)));
    } else if (mistakes.isEmpty() && words) {
      words();
    } else if (mistakes.isEmpty()) {
      System.out.println(plan.getFileName() + ": no mistakes found; nothing was run");
    } else {
      mistakes.forEach(System.out::println);
      int count = mistakes.size();
      Say.note(count + (count == 1 ? " mistake" : " mistakes") + " in " + plan.getFileName());
    }
    return mistakes.isEmpty() ? 0 : USAGE;
  }

  private void words() {
    TextTable table = new TextTable("ll");
    for (PlanSentence sentence : PlanFile.load(plan, options.values()).words(null)) {
      table.cell(sentence.about(), Ink.BOLD).cell(sentence.text()).end();
    }
    table.render(Ink.colour()).forEach(System.out::println);
  }
}
