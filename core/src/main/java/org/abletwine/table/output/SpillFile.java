package org.abletwine.table.output;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import org.abletwine.table.DataException;

/**
 * A file for what does not fit in memory: bytes are put behind those there are, and read from any
 * place. It is created under a name nobody can foresee, for its owner alone, locked while it is
 * used, and deleted when it is closed; one that a killed process has left is cleared away by the
 * next that creates one in that folder. Bytes are appended by one thread at a time; those that are
 * there may be read by many.
 */
public final class SpillFile implements AutoCloseable {
  private static final String NAME = "able-twine-spill";

  private final Path folder;
  private final PartFile part;
  private final FileChannel channel;
  private long size;

  private SpillFile(Path folder, PartFile part) {
    this.folder = folder;
    this.part = part;
    this.channel = part.channel();
  }

  /**
   * Creates a file.
   *
   * @param folder where
   * @throws DataException when that cannot be written to
   */
  public static SpillFile in(Path folder) {
    try {
      return new SpillFile(folder, PartFile.ofOwner(folder, NAME));
    } catch (IOException e) {
      throw failed(folder, e);
    }
  }

  private static DataException failed(Path folder, IOException e) {
    return new DataException(
        "cannot keep what does not fit in memory in the folder "
            + folder
            + ": "
            + OutputFile.reason(e)
            + "; make room there, name another folder, or give more memory",
        e);
  }

  /**
   * Puts bytes behind those there are.
   *
   * @param bytes from here
   * @param length so many, from the first on
   * @throws DataException when they cannot be written, a full disk included
   */
  public void append(byte[] bytes, int length) {
    try {
      ByteBuffer left = ByteBuffer.wrap(bytes, 0, length);
      while (left.hasRemaining()) {
        size += channel.write(left, size);
      }
    } catch (IOException e) {
      throw failed(folder, e);
    }
  }

  /**
   * Reads bytes.
   *
   * @param at the place of the first, 0-based
   * @param into where they go
   * @param from the place of the first there, 0-based
   * @return how many there were, at most as many as there is room for; 0 at the end
   * @throws DataException when they cannot be read
   */
  public int read(long at, byte[] into, int from) {
    try {
      ByteBuffer room = ByteBuffer.wrap(into, from, (int) Math.min(into.length - from, size - at));
      int read = 0;
      while (room.hasRemaining()) {
        int more = channel.read(room, at + read);
        if (more < 0) {
          break;
        }
        read += more;
      }
      return read;
    } catch (IOException e) {
      throw new DataException(
          "cannot read what was kept in the folder " + folder + ": " + e.getMessage(), e);
    }
  }

  /** Returns how many bytes there are. */
  public long size() {
    return size;
  }

  @Override
  public void close() {
    part.close();
  }
}
