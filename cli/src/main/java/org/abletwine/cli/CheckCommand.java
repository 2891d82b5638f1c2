package org.abletwine.cli;

import java.nio.file.Path;
import java.util.List;
import org.abletwine.plan.PlanFile;
import org.abletwine.plan.PlanInParts;
import org.abletwine.plan.PlanSentence;
import org.abletwine.plan.RunJson;
import org.abletwine.plan.tell.Words;

/** Checks a plan. */
final class CheckCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "check",
              "Reads a plan and the headers of its tables and reports every mistake at once;"
                  + " runs nothing.")
          .examples(
              "  able-twine check harvest.plan.yaml",
              "  able-twine check harvest.plan.yaml --words",
              "  able-twine check harvest.plan.yaml --cluster");

  private static final int USAGE = 2;

  private final Given<Path> plan = usage.argument("PLAN", Path.class, "The plan file.");

  private final PlanOptions options = new PlanOptions(usage);

  private final Given<Boolean> words =
      usage.flag(
          "--words", "Tell what the plan does in plain sentences, once nothing is wrong with it.");

  private final Given<Boolean> cluster =
      usage.flag("--cluster", "Report also what several processes cannot do of it.");

  private final Given<Boolean> json = usage.flag("--json", "Print the mistakes as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    List<String> mistakes = PlanFile.check(plan.get(), options.values());
    if (cluster.get() && mistakes.isEmpty()) {
      mistakes = PlanInParts.refusals(plan.get(), options.values());
    }
    if (json.get() && words.get() && mistakes.isEmpty()) {
      System.out.println(
          Words.json(RunJson.words(PlanFile.load(plan.get(), options.values()).words(null))));
    } else if (json.get()) {
      System.out.println(Words.json(RunJson.mistakes(mistakes)));
    } else if (mistakes.isEmpty() && words.get()) {
      words();
    } else if (mistakes.isEmpty()) {
      System.out.println(plan.get().getFileName() + ": no mistakes found; nothing was run");
    } else {
      mistakes.forEach(System.out::println);
      int count = mistakes.size();
      Say.note(count + (count == 1 ? " mistake" : " mistakes") + " in " + plan.get().getFileName());
    }
    return mistakes.isEmpty() ? 0 : USAGE;
  }

  private void words() {
    TextTable table = new TextTable("ll");
    for (PlanSentence sentence : PlanFile.load(plan.get(), options.values()).words(null)) {
      table.cell(sentence.about(), Ink.BOLD).cell(sentence.text()).end();
    }
    table.render(Ink.colour()).forEach(System.out::println);
  }
}
