package org.abletwine.formats.packed;

import com.github.luben.zstd.ZstdInputStream;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.abletwine.table.DataException;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import org.jspecify.annotations.Nullable;

/**
 * The bytes that are packed in others. What is cut off or damaged is an error that names the byte,
 * and never fewer bytes.
 */
final class Unpacking extends FilterInputStream {
  private static final int SHOWN = 5;

  private final String name;
  private final CountedStream raw;
  private final @Nullable ZipInputStream zip;

  private Unpacking(
      String name, CountedStream raw, InputStream in, @Nullable ZipInputStream archive) {
    super(in);
    this.name = name;
    this.raw = raw;
    this.zip = archive;
  }

  /**
   * Unpacks bytes; what is not packed is given as it is.
   *
   * @param from the bytes
   * @param raw what they are read from, to tell how far
   */
  static InputStream of(String name, Packing packing, InputStream from, CountedStream raw)
      throws IOException {
    try {
      return switch (packing) {
        case NONE -> from;
        case GZIP -> {
          Library.COMPRESS.require(name);
          yield new Unpacking(name, raw, Gzip.of(from), null);
        }
        case ZSTD -> {
          Library.ZSTD.require(name);
          yield new Unpacking(name, raw, Zstandard.of(from), null);
        }
        case ZIP -> {
          ZipInputStream archive = new ZipInputStream(from);
          member(name, archive);
          yield new Unpacking(name, raw, archive, archive);
        }
      };
    } catch (IOException e) {
      throw damaged(name, raw, e);
    } catch (IllegalArgumentException e) { // how a name that cannot be read is told
      throw damaged(name, raw, new IOException(e.getMessage(), e));
    }
  }

  /** A class of its own, so that it is looked at only where the library is there. */
  private static final class Gzip {
    static InputStream of(InputStream raw) throws IOException {
      return GzipCompressorInputStream.builder()
          .setInputStream(raw)
          .setDecompressConcatenated(true)
          .get();
    }
  }

  /** A class of its own, likewise. */
  private static final class Zstandard {
    static InputStream of(InputStream raw) throws IOException {
      return new ZstdInputStream(raw);
    }
  }

  /** Goes to the only member that is a file. */
  private static void member(String name, ZipInputStream archive) throws IOException {
    ZipEntry entry = archive.getNextEntry();
    while (entry != null && beside(entry)) {
      refuseWorkbook(name, entry);
      entry = archive.getNextEntry();
    }
    if (entry == null) {
      throw new DataException(
          name + " is an archive without a file that can be read: it is empty, or cut off");
    }
    refuseWorkbook(name, entry);
  }

  /** Whether a member is a folder, or what some systems put beside the files. */
  private static boolean beside(ZipEntry entry) {
    return entry.isDirectory() || entry.getName().startsWith("__MACOSX/");
  }

  private static void refuseWorkbook(String name, ZipEntry entry) {
    boolean workbook =
        entry.getName().equals("[Content_Types].xml")
            || entry.getName().equals("mimetype")
            || entry.getName().startsWith("xl/");
    if (workbook) {
      throw new DataException(
          name + " is a workbook, not delimited text; give it the ending .xlsx or .ods");
    }
  }

  private static DataException damaged(String name, CountedStream raw, IOException e) {
    String message = e.getMessage();
    String reason =
        e instanceof EOFException
            ? "it ends there"
            : message == null ? e.getClass().getSimpleName() : message;
    return new DataException(
        name
            + " is cut off or damaged: after byte "
            + raw.count()
            + " it cannot be unpacked ("
            + reason
            + "); get the whole file again",
        e);
  }

  @Override
  public int read() throws IOException {
    byte[] one = new byte[1];
    int count = read(one, 0, 1);
    return count < 0 ? count : one[0] & 0xFF;
  }

  @Override
  public int read(byte[] into, int from, int length) throws IOException {
    try {
      int count = in.read(into, from, length);
      if (count < 0 && zip != null) {
        requireNoOther(zip);
      }
      return count;
    } catch (IOException e) {
      throw damaged(name, raw, e);
    } catch (IllegalArgumentException e) { // as above
      throw damaged(name, raw, new IOException(e.getMessage(), e));
    }
  }

  private void requireNoOther(ZipInputStream archive) throws IOException {
    List<String> others = new ArrayList<>();
    for (ZipEntry e = archive.getNextEntry();
        e != null && others.size() <= SHOWN;
        e = archive.getNextEntry()) {
      if (!beside(e)) {
        others.add(e.getName());
      }
    }
    if (!others.isEmpty()) {
      throw new DataException(
          name
              + " holds more than one file: beside the first "
              + String.join(", ", others.subList(0, Math.min(SHOWN, others.size())))
              + (others.size() > SHOWN ? " and more" : "")
              + "; unpack it, and name the files");
    }
  }
}
