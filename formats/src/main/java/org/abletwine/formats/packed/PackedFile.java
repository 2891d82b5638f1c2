package org.abletwine.formats.packed;

import com.github.luben.zstd.ZstdOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.concurrent.atomic.AtomicLong;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.abletwine.table.DataException;
import org.abletwine.table.output.Output;
import org.abletwine.table.output.OutputFile;
import org.jspecify.annotations.Nullable;

/**
 * An output file, packed as its name says. Packing is done on a thread of its own. Not safe for use
 * by several threads at once.
 */
public final class PackedFile implements Output {
  private static final int BUFFER = 1 << 16;
  private static final LocalDateTime SOME_TIME = LocalDateTime.of(1980, 1, 1, 0, 0);

  /** Null for standard output. */
  private final @Nullable OutputFile file;

  private final @Nullable BehindStream packed;
  private final AtomicLong size = new AtomicLong();
  private boolean complete;

  /**
   * Creates the file beside its target.
   *
   * @param target where it will be; {@code -} is standard output, which is never packed
   * @throws DataException when it cannot be written there
   */
  public PackedFile(Path target) {
    if (target.toString().equals("-")) {
      file = null;
      packed = null;
      return;
    }
    OutputFile beside = new OutputFile(target);
    file = beside;
    Packing packing = Packing.of(target);
    try {
      packed =
          packing == Packing.NONE
              ? null
              : new BehindStream(packer(packing, target, beside), "pack " + target.getFileName());
    } catch (IOException e) {
      beside.close();
      throw cannotPack(e);
    }
  }

  private OutputStream packer(Packing packing, Path target, OutputFile beside) throws IOException {
    OutputStream into =
        new OutputStream() {
          @Override
          public void write(int b) {
            write(new byte[] {(byte) b}, 0, 1);
          }

          @Override
          public void write(byte[] bytes, int from, int length) {
            beside.write(bytes, from, length);
            size.addAndGet(length);
          }
        };
    return switch (packing) {
      case NONE -> into;
      case GZIP -> new GZIPOutputStream(into, BUFFER);
      case ZSTD -> Zstandard.of(into);
      case ZIP -> {
        ZipOutputStream archive = new ZipOutputStream(into);
        ZipEntry entry = new ZipEntry(member(target));
        entry.setTimeLocal(SOME_TIME); // the same rows make the same bytes
        archive.putNextEntry(entry);
        yield archive;
      }
    };
  }

  private static String member(Path target) {
    String inner = Packing.inner(target);
    return inner.indexOf('.') > 0 ? inner : inner + ".csv";
  }

  /**
   * Writes bytes.
   *
   * @param bytes from here; free for other use when the call returns
   * @param length so many, from the first on
   * @throws DataException when they, or some before them, cannot be written
   */
  public void write(byte[] bytes, int length) {
    if (packed == null) {
      if (file == null) {
        System.out.write(bytes, 0, length);
      } else {
        file.write(bytes, length);
      }
      size.addAndGet(length);
      return;
    }
    try {
      packed.write(bytes, 0, length);
    } catch (IOException e) {
      throw cannotPack(e);
    }
  }

  /** Returns how large the file is so far, in bytes; all of it once it is complete. */
  public long size() {
    return size.get();
  }

  private DataException cannotPack(IOException e) {
    return new DataException("cannot pack " + target() + ": " + e.getMessage(), e);
  }

  @Override
  public void complete() {
    if (packed != null && !complete) {
      try {
        packed.close();
      } catch (IOException e) {
        throw cannotPack(e);
      }
    }
    complete = true;
    if (file != null) {
      file.complete();
    }
  }

  @Override
  public void commit() {
    complete();
    if (file == null) {
      System.out.flush();
    } else {
      file.commit();
    }
  }

  @Override
  public void close() {
    if (packed != null && !complete) {
      packed.abandon();
    }
    if (file != null) {
      file.close();
    }
  }

  @Override
  public @Nullable Path target() {
    return file == null ? null : file.target();
  }

  @Override
  public @Nullable Path beside() {
    return file == null ? null : file.beside();
  }

  /** A class of its own, so that it is looked at only where the library is there. */
  private static final class Zstandard {
    static OutputStream of(OutputStream into) throws IOException {
      return new ZstdOutputStream(into).setChecksum(true);
    }
  }
}
