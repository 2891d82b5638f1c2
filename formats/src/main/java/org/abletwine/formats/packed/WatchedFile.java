package org.abletwine.formats.packed;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;

/**
 * A file being read that says at its end when it was written to meanwhile: what was read of it is
 * then neither the old nor the new. A file that was moved into its place does not matter, since the
 * old one is read on.
 */
final class WatchedFile extends FilterInputStream {
  private final FileState state;

  WatchedFile(Path path, InputStream in) throws IOException {
    super(in);
    this.state = FileState.of(path);
  }

  @Override
  public int read() throws IOException {
    int read = super.read();
    if (read < 0) {
      state.requireSame();
    }
    return read;
  }

  @Override
  public int read(byte[] bytes, int from, int length) throws IOException {
    int read = super.read(bytes, from, length);
    if (read < 0) {
      state.requireSame();
    }
    return read;
  }
}
