package org.abletwine.cli;

import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** How much memory references may take, and where those go that do not fit. */
public final class MemoryOption {
  private static final Pattern SIZE = Pattern.compile("([1-9][0-9]{0,14})([kmgt]?)b?");

  private final Usage usage;
  private final Given<String> memory;
  private final Given<Path> folder;

  /**
   * Tells a command of them.
   *
   * @param usage of the command
   */
  public MemoryOption(Usage usage) {
    this.usage = usage;
    memory =
        usage.option(
            "--memory",
            "SIZE",
            "How much of references may be in memory, such as 512m or 4g, and of totals by group a"
                + " quarter of that. What does not fit is kept on disk; what comes out is the same."
                + " Default: six tenths of what this program may take.");
    folder =
        usage.option(
            "--temporary-folder",
            "FOLDER",
            Path.class,
            "Where those parts go while the run lasts. Default: the system's.");
  }

  /** Returns the bytes stated, or 0 for none. */
  public long bytes() {
    return memory.orNull() == null ? 0 : size(usage, "--memory", memory.orNull());
  }

  /**
   * Reads an amount.
   *
   * @param usage of the command, for what is wrong with it
   * @param option the option
   * @param text such as {@code 512m} or {@code 4g}
   * @return bytes, 1 or more
   */
  public static long size(Usage usage, String option, String text) {
    Matcher size = SIZE.matcher(text.strip().toLowerCase(Locale.ROOT));
    long bytes = 0;
    if (size.matches()) {
      int power = size.group(2).isEmpty() ? 0 : 1 + "kmgt".indexOf(size.group(2));
      long count = Long.parseLong(size.group(1));
      bytes = count <= Long.MAX_VALUE >> 10 * power ? count << 10 * power : 0;
    }
    if (bytes == 0) {
      throw usage.wrong(option + " takes a size such as 512m or 4g, not " + text);
    }
    return bytes;
  }

  /** Returns the folder stated; null for none. */
  public @Nullable Path folder() {
    return folder.orNull();
  }
}
