package org.abletwine.cli;

import java.nio.file.Path;
import picocli.CommandLine;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;

/** What makes fish complete commands and options: a line for each. */
final class FishScript {
  private final StringBuilder lines = new StringBuilder();

  private FishScript() {}

  static String of(CommandLine whole) {
    FishScript script = new FishScript();
    script.lines.append("# Completions of able-twine for fish.\n");
    String none = "-n __fish_use_subcommand";
    options(script, whole.getCommandSpec(), none);
    whole
        .getSubcommands()
        .forEach(
            (name, command) -> {
              CommandSpec spec = command.getCommandSpec();
              script.line(none + " -f -a " + name, description(spec));
              options(script, spec, "-n '__fish_seen_subcommand_from " + name + "'");
            });
    return script.lines.toString();
  }

  private static void options(FishScript script, CommandSpec spec, String when) {
    for (OptionSpec option : spec.options()) {
      StringBuilder words = new StringBuilder(when);
      for (String name : option.names()) {
        words.append(name.startsWith("--") ? " -l " : " -s ").append(name.replaceFirst("^-+", ""));
      }
      if (option.arity().max() > 0) {
        words.append(option.type() == Path.class ? " -r -F" : " -x");
        candidates(option, words);
      }
      script.line(
          words.toString(), option.description().length == 0 ? "" : option.description()[0]);
    }
    for (ArgSpec argument : spec.positionalParameters()) {
      if (argument.completionCandidates() != null) {
        StringBuilder words = new StringBuilder(when).append(" -f");
        candidates(argument, words);
        script.line(words.toString(), "");
      }
    }
  }

  private static void candidates(ArgSpec argument, StringBuilder words) {
    if (argument.completionCandidates() != null) {
      words.append(" -a '").append(String.join(" ", argument.completionCandidates())).append("'");
    }
  }

  private static String description(CommandSpec spec) {
    String[] lines = spec.usageMessage().description();
    return lines.length == 0 ? "" : lines[0];
  }

  private void line(String words, String about) {
    lines.append("complete -c able-twine ").append(words);
    if (!about.isEmpty()) {
      String first = about.replaceFirst("(?s)([.:;]) .*", "").replace("%n", " ").replace("%%", "%");
      lines.append(" -d '").append(first.replace("\\", "\\\\").replace("'", "\\'")).append("'");
    }
    lines.append('\n');
  }
}
