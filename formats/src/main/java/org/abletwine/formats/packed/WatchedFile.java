package org.abletwine.formats.packed;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;

/**
 * A file being read, or some bytes of it, that says at the end when it was written to meanwhile:
 * what was read of it is then neither the old nor the new. A file that was moved into its place
 * does not matter, since the old one is read on.
 */
final class WatchedFile extends FilterInputStream {
  private final FileState state;
  private long left;

  WatchedFile(Path path, InputStream in) throws IOException {
    this(path, in, Long.MAX_VALUE);
  }

  /**
   * @param most so many bytes, from where it is read
   */
  WatchedFile(Path path, InputStream in, long most) throws IOException {
    super(in);
    this.state = FileState.of(path);
    this.left = most;
  }

  @Override
  public int read() throws IOException {
    int read = left > 0 ? super.read() : -1;
    if (read < 0) {
      state.requireSame();
    }
    left--;
    return read;
  }

  @Override
  public int read(byte[] bytes, int from, int length) throws IOException {
    int read = left > 0 ? super.read(bytes, from, (int) Math.min(left, length)) : -1;
    if (read < 0) {
      state.requireSame();
    }
    left -= Math.max(0, read);
    return read;
  }

  @Override
  public long skip(long bytes) throws IOException {
    long skipped = super.skip(Math.min(left, bytes));
    left -= skipped;
    return skipped;
  }
}
