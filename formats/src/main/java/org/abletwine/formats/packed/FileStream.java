package org.abletwine.formats.packed;

import java.io.OutputStream;
import org.abletwine.table.output.OutputFile;

/** An output file as a stream that gathers what is written to it. Used by one thread. */
public final class FileStream extends OutputStream {
  private final OutputFile file;
  private final byte[] held = new byte[1 << 16];
  private int length;
  private long count;

  /**
   * @param file where it is written
   */
  public FileStream(OutputFile file) {
    this.file = file;
  }

  @Override
  public void write(int b) {
    if (length == held.length) {
      flush();
    }
    held[length++] = (byte) b;
  }

  @Override
  public void write(byte[] bytes, int from, int size) {
    if (length + size > held.length) {
      flush();
    }
    if (size > held.length) {
      file.write(bytes, from, size);
      count += size;
    } else {
      System.arraycopy(bytes, from, held, length, size);
      length += size;
    }
  }

  @Override
  public void flush() {
    file.write(held, 0, length);
    count += length;
    length = 0;
  }

  /** Returns how many bytes have reached the file. */
  public long count() {
    return count;
  }
}
