package org.abletwine.plan;

import java.nio.file.Path;
import java.util.ServiceLoader;
import java.util.regex.Pattern;
import org.abletwine.table.SettingException;

/**
 * Files that are named by an address, such as {@code hdfs://vale/tickets.csv}, and reached by
 * something on the class path, found with {@link ServiceLoader}. Implementations are stateless.
 */
public interface FarFiles {
  /** What an address begins with; one letter before the colon would be a drive. */
  Pattern ADDRESS = Pattern.compile("[a-zA-Z][a-zA-Z0-9+.-]+://.*");

  /**
   * The path of an address.
   *
   * @param address the address
   * @throws SettingException when nothing there can be reached
   */
  Path path(String address);

  /**
   * A file, near or far.
   *
   * @param folder what relative paths are relative to
   * @param text an address, or a path
   * @throws SettingException when it is an address, and nothing here reaches such files
   */
  static Path resolve(Path folder, String text) {
    if (!ADDRESS.matcher(text).matches() || text.startsWith("jdbc:")) {
      return folder.resolve(text);
    }
    return ServiceLoader.load(FarFiles.class)
        .findFirst()
        .orElseThrow(
            () ->
                new SettingException(
                    text
                        + ": such files are reached on a cluster alone; copy it to this machine, or"
                        + " run the plan there"))
        .path(text);
  }
}
