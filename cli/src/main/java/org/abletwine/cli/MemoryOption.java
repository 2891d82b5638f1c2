package org.abletwine.cli;

import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** How much memory references may take, and where those go that do not fit. */
public final class MemoryOption {
  private static final Pattern SIZE = Pattern.compile("([1-9][0-9]{0,14})([kmgt]?)b?");

  @Spec(Spec.Target.MIXEE)
  private CommandSpec spec;

  @Option(
      names = "--memory",
      paramLabel = "SIZE",
      description =
          "How much of references may be in memory, such as 512m or 4g, and of totals by group a"
              + " quarter of that. What does not fit is kept on disk; what comes out is the same."
              + " Default: six tenths of what this program may take.")
  private String memory;

  @Option(
      names = "--temporary-folder",
      paramLabel = "FOLDER",
      description = "Where those parts go while the run lasts. Default: the system's.")
  private Path folder;

  /** Nothing is stated. */
  public MemoryOption() {}

  /** Returns the bytes stated, or 0 for none. */
  public long bytes() {
    return memory == null ? 0 : size(spec.commandLine(), "--memory", memory);
  }

  /**
   * Reads an amount.
   *
   * @param command the command, for what is wrong with it
   * @param option the option
   * @param text such as {@code 512m} or {@code 4g}
   * @return bytes, 1 or more
   */
  public static long size(CommandLine command, String option, String text) {
    Matcher size = SIZE.matcher(text.strip().toLowerCase(Locale.ROOT));
    long bytes = 0;
    if (size.matches()) {
      int power = size.group(2).isEmpty() ? 0 : 1 + "kmgt".indexOf(size.group(2));
      long count = Long.parseLong(size.group(1));
      bytes = count <= Long.MAX_VALUE >> 10 * power ? count << 10 * power : 0;
    }
    if (bytes == 0) {
      throw new ParameterException(
          command, option + " takes a size such as 512m or 4g, not " + text);
    }
    return bytes;
  }

  /** Returns the folder stated; null for none. */
  public @Nullable Path folder() {
    return folder;
  }
}
