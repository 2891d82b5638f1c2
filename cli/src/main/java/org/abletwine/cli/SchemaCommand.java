package org.abletwine.cli;

import org.abletwine.plan.PlanSchema;

/** Prints the schema of plan files. */
final class SchemaCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "schema",
              "Prints the JSON Schema of plan files, by which an editor completes, explains and"
                  + " underlines.")
          .examples(
              "  able-twine schema > able-twine.schema.json",
              "",
              "A plan whose first line is",
              "  # yaml-language-server: $schema=able-twine.schema.json",
              "is then known to editors that speak the language server protocol for YAML.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    System.out.print(PlanSchema.text());
    return 0;
  }
}
