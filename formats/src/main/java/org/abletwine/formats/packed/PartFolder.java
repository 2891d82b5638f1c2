package org.abletwine.formats.packed;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;

/**
 * A folder that holds a table in parts, which several processes have written: files whose names
 * begin with {@code part-}, and which are one file when they stand one behind the other in the
 * order of their names. Stateless.
 */
public final class PartFolder {
  private static final String PARTS = "part-*";

  private PartFolder() {}

  /** Whether a path is such a folder. */
  public static boolean is(Path path) {
    try {
      return Files.isDirectory(path) && !parts(path).isEmpty();
    } catch (IOException e) {
      return false; // opening it says what is wrong
    }
  }

  /**
   * The parts in a folder, in their order.
   *
   * @throws IOException when it cannot be looked into
   */
  public static List<Path> parts(Path folder) throws IOException {
    List<Path> found = new ArrayList<>();
    try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, PARTS)) {
      files.forEach(found::add);
    }
    Collections.sort(found);
    return found;
  }

  /**
   * How large all parts are together, in bytes.
   *
   * @throws IOException when they cannot be looked at
   */
  public static long size(Path folder) throws IOException {
    long bytes = 0;
    for (Path part : parts(folder)) {
      bytes += Files.size(part);
    }
    return bytes;
  }

  /**
   * Opens the parts as one stream. A folder that is replaced meanwhile is an error: what was read
   * would be of two tables.
   *
   * @param from the first byte, 0-based
   * @throws IOException when it cannot be opened
   */
  public static InputStream open(Path folder, long from) throws IOException {
    List<Path> parts = parts(folder);
    long left = from;
    int at = 0;
    while (at < parts.size() - 1 && left >= Files.size(parts.get(at))) {
      left -= Files.size(parts.get(at++));
    }
    Joined joined = new Joined(folder, parts.subList(at, parts.size()));
    joined.skipNBytes(left);
    return joined;
  }

  /** One part after another. Read by one thread. */
  private static final class Joined extends InputStream {
    private final Path folder;
    private final List<Path> parts;
    private final FileState state;
    private InputStream current = InputStream.nullInputStream();
    private int next;

    Joined(Path folder, List<Path> parts) throws IOException {
      this.folder = folder;
      this.parts = parts;
      state = FileState.of(folder);
      proceed();
    }

    private boolean proceed() throws IOException {
      if (next == parts.size()) {
        return false;
      }
      current.close();
      current = Files.newInputStream(parts.get(next++));
      Object before = state.before().fileKey();
      if (!Objects.equals(before, FileState.of(folder).before().fileKey())) {
        throw new IOException("it was replaced while it was read; run again");
      }
      return true;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      int read = read(one, 0, 1);
      return read < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
      int read = current.read(into, from, length);
      while (read < 0 && proceed()) {
        read = current.read(into, from, length);
      }
      return read;
    }

    @Override
    public void close() throws IOException {
      current.close();
    }
  }
}
