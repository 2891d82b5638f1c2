package org.abletwine.formats.workbook;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicLong;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.abletwine.formats.packed.FileState;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * The parts of a workbook file. Parts are read where they lie and never unpacked into files, so a
 * name within the archive leads nowhere else. A part whose bytes are not those that were packed is
 * an error, and so is one that grows beyond what a table packs to. Parts may be read by several
 * threads at once.
 */
final class Archive implements AutoCloseable {
  /**
   * So many times its packed size a part may be when unpacked; tables of one row over and over are
   * below.
   */
  private static final int MOST_TIMES = 400;

  /** Bytes that a part may have in any case. */
  private static final long ALWAYS = 1L << 26;

  private final String name;
  private final ZipFile zip;
  private final FileState state;
  private final AtomicLong taken = new AtomicLong();

  /**
   * @param name the name for messages
   * @param file where it is
   * @throws DataException when it is no archive, or a damaged one
   */
  Archive(String name, Path file) {
    this.name = name;
    try {
      this.state = FileState.of(file);
      this.zip = new ZipFile(file.toFile());
    } catch (IOException | IllegalArgumentException e) {
      throw damaged("its list of parts cannot be read", e);
    }
  }

  String name() {
    return name;
  }

  boolean has(String part) {
    return zip.getEntry(part) != null;
  }

  /** Returns how many packed bytes have been read so far, as good as that is known. */
  long taken() {
    return taken.get();
  }

  /**
   * Opens a part.
   *
   * @param part its name
   * @throws DataException when there is none of that name
   */
  InputStream open(String part) {
    ZipEntry entry = zip.getEntry(part);
    if (entry == null) {
      throw damaged("its part " + part + " is missing", null);
    }
    try {
      return new Guarded(entry, zip.getInputStream(entry));
    } catch (IOException e) {
      throw damaged("its part " + part + " cannot be unpacked", e);
    }
  }

  DataException damaged(String what, @Nullable Exception e) {
    String message =
        name + " is a damaged workbook: " + what + "; get the whole file again, or save it anew";
    return e == null ? new DataException(message) : new DataException(message, e);
  }

  /** Checks that nobody wrote to the file since it was opened. */
  void requireSame() {
    try {
      state.requireSame();
    } catch (IOException e) {
      throw damaged("it cannot be looked at again", e);
    }
  }

  @Override
  public void close() {
    try {
      zip.close();
    } catch (IOException e) {
      // reading is over; nothing depends on the close
    }
  }

  /** A part that is checked while it is read. */
  private final class Guarded extends FilterInputStream {
    private final ZipEntry entry;
    private final CRC32 sum = new CRC32();
    private long bytes;
    private long told;

    Guarded(ZipEntry entry, InputStream in) {
      super(in);
      this.entry = entry;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
      int count;
      try {
        count = in.read(into, from, length);
      } catch (IOException e) {
        throw damaged("its part " + entry.getName() + " cannot be unpacked", e);
      }
      if (count < 0) {
        if (sum.getValue() != entry.getCrc()) {
          throw damaged("its part " + entry.getName() + " is not what was packed", null);
        }
        return count;
      }
      sum.update(into, from, count);
      bytes += count;
      if (bytes > ALWAYS && bytes / MOST_TIMES > entry.getCompressedSize()) {
        throw new DataException(
            name
                + ": its part "
                + entry.getName()
                + " unpacks to more than "
                + MOST_TIMES
                + " times its size, which no table does; it is not read further");
      }
      tell();
      return count;
    }

    private void tell() {
      long packed =
          entry.getSize() <= 0
              ? 0
              : (long) ((double) bytes / entry.getSize() * entry.getCompressedSize());
      taken.addAndGet(packed - told);
      told = packed;
    }
  }
}
