package org.abletwine.cli;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import picocli.CommandLine;
import picocli.CommandLine.Help;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/** A command as a man page, in the macros of man(7). */
final class ManPage {
  private static final int ON_ONE_LINE = 10_000;

  private final StringBuilder page = new StringBuilder();
  private final CommandLine command;
  private final CommandSpec spec;

  private ManPage(CommandLine command) {
    this.command = command;
    this.spec = command.getCommandSpec();
  }

  /** The page of a command. */
  static String of(CommandLine command) {
    ManPage page = new ManPage(command);
    page.head();
    page.arguments();
    page.options();
    page.commands();
    page.foot();
    return page.page.toString();
  }

  private String name() {
    return spec.qualifiedName("-");
  }

  private void head() {
    page.append(".TH \"").append(name().toUpperCase(Locale.ROOT)).append("\" \"1\"\n");
    page.append(".nh\n.ad l\n");
    section("NAME");
    String about = text(spec.usageMessage().description());
    String first = about.replaceFirst("(?s)\\. .*", "").replaceFirst("\\.$", "");
    page.append(escaped(name())).append(" \\- ").append(escaped(first)).append('\n');
    section("SYNOPSIS");
    spec.usageMessage().width(ON_ONE_LINE);
    Help help = new Help(spec, Help.defaultColorScheme(Help.Ansi.OFF));
    String synopsis = help.synopsis(0).strip().replaceAll("\\s+", " ");
    page.append(".B ").append(escaped(synopsis)).append('\n');
    section("DESCRIPTION");
    page.append(escaped(about)).append('\n');
  }

  private void arguments() {
    if (spec.positionalParameters().stream().allMatch(ArgSpec::hidden)) {
      return;
    }
    section("ARGUMENTS");
    for (PositionalParamSpec one : spec.positionalParameters()) {
      if (!one.hidden()) {
        item(one.paramLabel(), one);
      }
    }
  }

  private void options() {
    section("OPTIONS");
    for (OptionSpec one : spec.options()) {
      if (!one.hidden()) {
        String value =
            one.arity().max() == 0
                ? ""
                : " " + (one.paramLabel().isEmpty() ? "VALUE" : one.paramLabel());
        item(String.join(", ", one.names()) + value, one);
      }
    }
  }

  private void item(String name, ArgSpec about) {
    page.append(".TP\n.B ").append(escaped(name)).append('\n');
    page.append(escaped(described(about))).append('\n');
  }

  /** What an argument is, with its default and the values there are. */
  private String described(ArgSpec argument) {
    Iterable<String> candidates = argument.completionCandidates();
    String all = candidates == null ? "" : String.join(", ", candidates);
    return text(argument.description())
        .replace("${COMPLETION-CANDIDATES}", all)
        .replace("${DEFAULT-VALUE}", String.valueOf(argument.defaultValueString()));
  }

  private void commands() {
    if (command.getSubcommands().isEmpty()) {
      return;
    }
    section("COMMANDS");
    command
        .getSubcommands()
        .forEach(
            (name, one) -> {
              page.append(".TP\n.B able\\-twine\\-").append(escaped(name)).append("(1)\n");
              page.append(escaped(text(one.getCommandSpec().usageMessage().description())))
                  .append('\n');
            });
  }

  private void foot() {
    String[] footer = spec.usageMessage().footer();
    if (footer.length > 0) {
      section("EXAMPLES");
      for (String line : footer) {
        if (line.isBlank()) {
          page.append(".PP\n");
        } else if (line.startsWith(" ")) {
          page.append(".nf\n").append(escaped(line.strip())).append("\n.fi\n");
        } else {
          page.append(escaped(line)).append('\n');
        }
      }
    }
    if (spec.parent() != null) {
      section("EXIT STATUS");
      page.append(
          "0 done; 1 the data or a file stopped it; 2 wrong usage or plan; 3 a control did not"
              + " hold, or more changed than is allowed.\n");
      section("SEE ALSO");
      page.append(".BR able\\-twine (1)\n");
    }
  }

  private void section(String title) {
    page.append(".SH ").append(title).append('\n');
  }

  private static String text(String[] lines) {
    return Arrays.stream(lines)
        .map(line -> line.replace("%n", "\n").replace("%%", "%"))
        .collect(Collectors.joining("\n"));
  }

  /** What a line says, and not what it would order. */
  private static String escaped(String text) {
    return text.replace("\\", "\\e").replace("-", "\\-").replaceAll("(?m)^([.'])", "\\\\&$1");
  }
}
