package org.abletwine.cli;

import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.AutoComplete;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Prints what makes a shell complete commands and options. */
@Command(
    name = "completion",
    mixinStandardHelpOptions = true,
    description = "Prints a script by which a shell completes commands, options and files.",
    footerHeading = "%nExample%n",
    footer = {
      "  . <(able-twine completion bash)                          # for this session",
      "  able-twine completion zsh > ~/.able-twine-completion     # and in ~/.zshrc: . ~/.able-twine-completion",
      "  able-twine completion fish > ~/.config/fish/completions/able-twine.fish"
    })
final class CompletionCommand implements Callable<Integer> {
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

  @Parameters(paramLabel = "SHELL", description = "One of ${COMPLETION-CANDIDATES}.")
  private Shell shell;

  @Override
  public Integer call() {
    System.out.print(script(shell));
    return 0;
  }

  /** The script for a shell. */
  static String script(Shell shell) {
    return shell == Shell.FISH
        ? FishScript.of(Main.whole())
        : AutoComplete.bash("able-twine", Main.whole()); // which zsh takes too
  }
}
