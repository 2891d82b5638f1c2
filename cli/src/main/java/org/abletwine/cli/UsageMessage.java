package org.abletwine.cli;

import java.util.List;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.UnmatchedArgumentException;

/** Says what is wrong with a command's words, and what would be right. */
final class UsageMessage {
  private UsageMessage() {}

  /**
   * @param error what the argument parser found
   * @param given the words of the command
   * @param commands the commands there are
   */
  static String of(ParameterException error, String[] given, List<String> commands) {
    CommandSpec command = error.getCommandLine().getCommandSpec();
    String option = unknownOption(command, given);
    if (option != null) {
      return "no option is called "
          + option
          + "; "
          + NearestName.hint(option, command.optionsMap().keySet());
    }
    if (error instanceof UnmatchedArgumentException unmatched
        && !unmatched.getUnmatched().isEmpty()) {
      String word = unmatched.getUnmatched().get(0);
      return command.parent() == null && commands.size() > 0 && !commands.contains(word)
          ? "no command is called " + word + "; " + NearestName.hint(word, commands)
          : "\"" + word + "\" is one word too many" + asPair(command, word);
    }
    String message = String.valueOf(error.getMessage());
    return message
        .replaceAll(" is not an? (long|int)$", " is not a whole number")
        .replace("Value for option option", "Value for option");
  }

  /** Where words are pairs, one without its value is told so. */
  private static String asPair(CommandSpec command, String word) {
    boolean pairs = command.positionalParameters().stream().anyMatch(one -> one.typeInfo().isMap());
    return pairs ? "; write it with its value: " + word + "=VALUE" : "";
  }

  /** The first word that looks like an option and is none: told before what is missing. */
  private static @Nullable String unknownOption(CommandSpec command, String[] given) {
    for (String word : given) {
      String name = word.contains("=") ? word.substring(0, word.indexOf('=')) : word;
      if (name.equals("--")) {
        return null;
      }
      if (name.startsWith("--") && !command.optionsMap().containsKey(name)) {
        return name;
      }
    }
    return null;
  }
}
