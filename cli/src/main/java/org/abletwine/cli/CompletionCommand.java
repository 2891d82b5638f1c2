package org.abletwine.cli;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
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
      "  able-twine completion zsh > ~/.able-twine.zsh            # then in ~/.zshrc: . ~/.able-twine.zsh",
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

  @Parameters(
      paramLabel = "SHELL",
      completionCandidates = Shells.class,
      description = "One of ${COMPLETION-CANDIDATES}.")
  private String shell;

  /** The names of the shells. */
  static final class Shells extends ArrayList<String> {
    private static final long serialVersionUID = 1L;

    Shells() {
      super(Arrays.stream(Shell.values()).map(Shell::toString).toList());
    }
  }

  @Override
  public Integer call() {
    List<String> names = new Shells();
    if (!names.contains(shell)) {
      throw new SettingException(
          "no shell is called " + shell + " here; " + NearestName.hint(shell, names));
    }
    System.out.print(script(Shell.values()[names.indexOf(shell)]));
    return 0;
  }

  /** The script for a shell. */
  static String script(Shell shell) {
    return shell == Shell.FISH
        ? FishScript.of(Main.whole())
        : AutoComplete.bash("able-twine", Main.whole()); // which zsh takes too
  }
}
