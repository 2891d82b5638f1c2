package org.abletwine.cli;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import picocli.AutoComplete;

/** Prints what makes a shell complete commands and options. */
final class CompletionCommand implements Command {
  private static final List<String> NAMES =
      Arrays.stream(Shell.values()).map(Shell::toString).toList();

  private final Usage usage =
      Usage.of(
              this,
              "completion",
              "Prints a script by which a shell completes commands, options and files.")
          .examples(
              "  . <(able-twine completion bash)                          # for this session",
              "  able-twine completion zsh > ~/.able-twine.zsh            # then in ~/.zshrc: . ~/.able-twine.zsh",
              "  able-twine completion fish > ~/.config/fish/completions/able-twine.fish");

  /** Shells that are known. */
  enum Shell {
    BASH,
    ZSH,
    FISH;

    @Override
    public String toString() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  private final Given<String> shell =
      usage.argument("SHELL", "One of ${COMPLETION-CANDIDATES}.").oneOf(NAMES);

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    if (!NAMES.contains(shell.get())) {
      throw new SettingException(
          "no shell is called " + shell.get() + " here; " + NearestName.hint(shell.get(), NAMES));
    }
    System.out.print(script(Shell.values()[NAMES.indexOf(shell.get())]));
    return 0;
  }

  /** The script for a shell. */
  static String script(Shell shell) {
    return shell == Shell.FISH
        ? FishScript.of(Main.whole())
        : AutoComplete.bash("able-twine", Main.whole()); // which zsh takes too
  }
}
