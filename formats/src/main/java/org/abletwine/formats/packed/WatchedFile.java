package org.abletwine.formats.packed;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Objects;
import org.abletwine.table.DataException;

/**
 * A file being read that says at its end when it was written to meanwhile: what was read of it is
 * then neither the old nor the new. A file that was moved into its place does not matter, since the
 * old one is read on.
 */
final class WatchedFile extends FilterInputStream {
  private final Path path;
  private final BasicFileAttributes before;

  WatchedFile(Path path, InputStream in) throws IOException {
    super(in);
    this.path = path;
    this.before = Files.readAttributes(path, BasicFileAttributes.class);
  }

  @Override
  public int read() throws IOException {
    int read = super.read();
    if (read < 0) {
      check();
    }
    return read;
  }

  @Override
  public int read(byte[] bytes, int from, int length) throws IOException {
    int read = super.read(bytes, from, length);
    if (read < 0) {
      check();
    }
    return read;
  }

  private void check() throws IOException {
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
