package org.abletwine.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.abletwine.table.DataException;
import org.abletwine.table.output.OutputFile;
import picocli.CommandLine;

/** Writes the manual: a page for each command. */
final class ManualCommand implements Command {
  private final Usage usage =
      Usage.of(this, "manual", "Writes man pages, one for each command, into a folder.")
          .examples("  able-twine manual man/man1", "  man -M man able-twine-run");

  private final Given<Path> folder =
      usage.argument("FOLDER", Path.class, "Where the pages go; made when it is not there.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    CommandLine whole = Main.whole();
    try {
      Files.createDirectories(folder.get());
      write("able-twine", ManPage.of(whole));
      for (CommandLine command : whole.getSubcommands().values()) {
        write("able-twine-" + command.getCommandName(), ManPage.of(command));
      }
    } catch (IOException e) {
      throw new DataException(
          "cannot write the manual to "
              + folder.get()
              + ": "
              + OutputFile.reason(e)
              + "; name another folder",
          e);
    }
    Say.note(whole.getSubcommands().size() + 1 + " pages in " + folder.get());
    return 0;
  }

  private void write(String name, String page) throws IOException {
    Files.writeString(folder.get().resolve(name + ".1"), page, StandardCharsets.UTF_8);
  }
}
