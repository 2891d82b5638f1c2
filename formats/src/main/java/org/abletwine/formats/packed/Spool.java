package org.abletwine.formats.packed;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;
import org.abletwine.table.DataException;

/** Bytes on their way into an archive, deflated into a temporary file. Written by one thread. */
public final class Spool {
  /** Fast: rows of a table pack about as well at a tenth of the time. */
  private static final int LEVEL = 3;

  private final Path path;
  private final Deflater deflater = new Deflater(LEVEL, true);
  private final BehindStream out;
  private final CRC32 sum = new CRC32();
  private long size;
  private boolean ended;

  /**
   * @param name what is kept, for the name of the thread that packs it
   */
  public Spool(String name) {
    try {
      path = Files.createTempFile("able-twine-", ".spool");
      path.toFile().deleteOnExit();
      OutputStream file = Files.newOutputStream(path);
      out = new BehindStream(new DeflaterOutputStream(file, deflater, 1 << 16), "pack " + name);
    } catch (IOException e) {
      throw failed(e);
    }
  }

  private static DataException failed(IOException e) {
    return new DataException(
        "cannot keep rows in the folder for temporary files: "
            + e.getMessage()
            + "; make room there",
        e);
  }

  /** Adds bytes. */
  public void write(byte[] bytes, int length) {
    sum.update(bytes, 0, length);
    size += length;
    try {
      out.write(bytes, 0, length);
    } catch (IOException e) {
      throw failed(e);
    }
  }

  /** Ends what is written; it can be read from then on. */
  public void end() {
    if (!ended) {
      ended = true;
      try {
        out.close();
      } catch (IOException e) {
        throw failed(e);
      }
      deflater.end();
    }
  }

  /** Returns how many bytes were written. */
  public long size() {
    return size;
  }

  /** Returns the CRC-32 of the bytes written. */
  public long sum() {
    return sum.getValue();
  }

  /** Returns the bytes as they were written. */
  public InputStream plain() throws IOException {
    return new InflaterInputStream(Files.newInputStream(path), new Inflater(true), 1 << 16);
  }

  /** Returns the bytes as they are packed. */
  public InputStream packed() throws IOException {
    return Files.newInputStream(path);
  }

  /** Returns how many bytes they are, packed. */
  public long packedSize() throws IOException {
    return Files.size(path);
  }

  /** Gives the temporary file up. */
  public void close() {
    if (!ended) {
      ended = true;
      out.abandon();
      deflater.end();
    }
    try {
      Files.deleteIfExists(path);
    } catch (IOException e) {
      // deleted when the process ends
    }
  }
}
