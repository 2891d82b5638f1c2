package org.abletwine.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.abletwine.table.DataException;
import org.abletwine.table.output.OutputFile;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Writes the manual: a page for each command. */
@Command(
    name = "manual",
    mixinStandardHelpOptions = true,
    description = "Writes man pages, one for each command, into a folder.",
    footerHeading = "%nExample%n",
    footer = {"  able-twine manual man/man1", "  man -M man able-twine-run"})
final class ManualCommand implements Callable<Integer> {

  @Parameters(paramLabel = "FOLDER", description = "Where the pages go; made when it is not there.")
  private Path folder;

  @Override
  public Integer call() {
    CommandLine whole = Main.whole();
    try {
      Files.createDirectories(folder);
      write("able-twine", ManPage.of(whole));
      for (CommandLine command : whole.getSubcommands().values()) {
        write("able-twine-" + command.getCommandName(), ManPage.of(command));
      }
    } catch (IOException e) {
      throw new DataException(
          "cannot write the manual to "
              + folder
              + ": "
              + OutputFile.reason(e)
              + "; name another folder",
          e);
    }
    Say.note(whole.getSubcommands().size() + 1 + " pages in " + folder);
    return 0;
  }

  private void write(String name, String page) throws IOException {
    Files.writeString(folder.resolve(name + ".1"), page, StandardCharsets.UTF_8);
  }
}
