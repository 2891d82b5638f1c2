package org.abletwine.cli;

import java.util.concurrent.Callable;
import org.abletwine.plan.PlanSchema;
import picocli.CommandLine.Command;

/** Prints the schema of plan files. */
@Command(
    name = "schema",
    mixinStandardHelpOptions = true,
    description =
        "Prints the JSON Schema of plan files, by which an editor completes, explains and"
            + " underlines.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine schema > able-twine.schema.json",
      "",
      "A plan whose first line is",
      "  # yaml-language-server: $schema=able-twine.schema.json",
      "is then known to editors that speak the language server protocol for YAML."
    })
final class SchemaCommand implements Callable<Integer> {

  @Override
  public Integer call() {
    System.out.print(PlanSchema.text());
    return 0;
  }
}
