package org.abletwine.formats.packed;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Objects;
import org.abletwine.table.DataException;

/**
 * A file as it was when it was opened, to tell whether it was written to since.
 *
 * @param path where it is
 * @param before what it was like
 */
public record FileState(Path path, BasicFileAttributes before) {

  /**
   * The file as it is now.
   *
   * @param path where it is
   * @throws IOException when that cannot be told
   */
  public static FileState of(Path path) throws IOException {
    return new FileState(path, Files.readAttributes(path, BasicFileAttributes.class));
  }

  /**
   * Checks that it was not written to since. One that was moved into its place does not matter.
   *
   * @throws DataException when it was
   * @throws IOException when that cannot be told
   */
  public void requireSame() throws IOException {
    if (!Files.exists(path)) {
      return;
    }
    BasicFileAttributes now = Files.readAttributes(path, BasicFileAttributes.class);
    boolean same = Objects.equals(now.fileKey(), before.fileKey());
    boolean touched =
        now.size() != before.size() || !now.lastModifiedTime().equals(before.lastModifiedTime());
    if (same && touched) {
      throw new DataException(
          path
              + " was written to while it was read: it had "
              + before.size()
              + " bytes at first and has "
              + now.size()
              + " now; run again once nothing writes to it");
    }
  }
}
