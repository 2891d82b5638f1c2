package org.abletwine.table.spill;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.output.StoredBytes;

/** Bytes kept in memory, in blocks, so that they need no room at one place. */
public final class MemoryBytes implements StoredBytes {
  private static final int BITS = 16;
  private static final int BLOCK = 1 << BITS;

  private final List<byte[]> blocks = new ArrayList<>();
  private long size;

  @Override
  public long size() {
    return size;
  }

  @Override
  public void append(byte[] bytes, int length) {
    int done = 0;
    while (done < length) {
      int in = (int) (size & BLOCK - 1);
      if (in == 0) {
        blocks.add(new byte[BLOCK]);
      }
      int count = Math.min(BLOCK - in, length - done);
      System.arraycopy(bytes, done, blocks.get(blocks.size() - 1), in, count);
      done += count;
      size += count;
    }
  }

  @Override
  public int read(long at, byte[] into, int from) {
    int read = 0;
    while (from + read < into.length && at + read < size) {
      long place = at + read;
      int in = (int) (place & BLOCK - 1);
      int count = (int) Math.min(BLOCK - in, Math.min(into.length - from - read, size - place));
      System.arraycopy(blocks.get((int) (place >>> BITS)), in, into, from + read, count);
      read += count;
    }
    return read;
  }
}
