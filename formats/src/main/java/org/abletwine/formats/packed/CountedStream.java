package org.abletwine.formats.packed;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Counts the bytes read; the count may be asked from any thread. Read by one. */
final class CountedStream extends FilterInputStream {
  private volatile long count;

  CountedStream(InputStream in) {
    super(in);
  }

  long count() {
    return count;
  }

  @Override
  public int read() throws IOException {
    int read = in.read();
    add(read < 0 ? 0 : 1);
    return read;
  }

  @Override
  public int read(byte[] into, int from, int length) throws IOException {
    int read = in.read(into, from, length);
    add(Math.max(0, read));
    return read;
  }

  @Override
  public long skip(long bytes) throws IOException {
    long skipped = in.skip(bytes);
    add(skipped);
    return skipped;
  }

  private void add(long more) {
    count += more;
  }

  /** Something more may always come: whoever asks must read to know. */
  @Override
  public int available() {
    return 1;
  }

  @Override
  public boolean markSupported() {
    return false;
  }
}
