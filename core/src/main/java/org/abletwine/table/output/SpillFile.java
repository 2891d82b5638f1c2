package org.abletwine.table.output;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
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
public final class SpillFile implements StoredBytes, AutoCloseable {
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
   * Creates a file in the folder for temporary files.
   *
   * @throws DataException when that cannot be written to
   */
  public static SpillFile temporary() {
    return in(Path.of(System.getProperty("java.io.tmpdir")));
  }

  /**
   * Creates a file.
   *
   * @param folder where
   * @throws DataException when that cannot be written to
   */
  public static SpillFile in(Path folder) {
    return in(folder, true);
  }

  /**
   * Creates a file.
   *
   * @param folder where
   * @param clears whether to clear away what killed runs have left there: that costs a look at all
   *     files of the folder
   * @throws DataException when that cannot be written to
   */
  public static SpillFile in(Path folder, boolean clears) {
    try {
      return new SpillFile(folder, PartFile.ofOwner(folder, NAME, clears));
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

  @Override
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

  @Override
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

  /**
   * Forgets all bytes, so that the file takes no room.
   *
   * @throws DataException when the file system does not allow that
   */
  public void clear() {
    try {
      channel.truncate(0);
      size = 0;
    } catch (IOException e) {
      throw failed(folder, e);
    }
  }

  /**
   * Returns a stream that puts bytes behind those there are.
   *
   * @return a stream without a buffer, whose failures are those of the file system
   */
  public OutputStream output() {
    return new OutputStream() {
      @Override
      public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
      }

      @Override
      public void write(byte[] bytes, int from, int length) throws IOException {
        ByteBuffer left = ByteBuffer.wrap(bytes, from, length);
        while (left.hasRemaining()) {
          size += channel.write(left, size);
        }
      }
    };
  }

  /** Returns a stream of all bytes from the first on; several may read at once. */
  public InputStream stream() {
    return part.stream();
  }

  /**
   * States that the file is used as long as the program runs: it is deleted then.
   *
   * @return this file
   */
  public SpillFile untilTheEnd() {
    part.path().toFile().deleteOnExit();
    return this;
  }

  /** Returns where the file is, for whoever must open it; not to be written to. */
  public Path path() {
    return part.path();
  }

  @Override
  public long size() {
    return size;
  }

  @Override
  public void close() {
    part.close();
  }
}
