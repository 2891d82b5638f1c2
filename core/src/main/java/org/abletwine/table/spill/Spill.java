package org.abletwine.table.spill;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.abletwine.table.DataException;
import org.abletwine.table.output.SpillFile;
import org.jspecify.annotations.Nullable;

/**
 * How much of references and of totals by group one run may hold in memory, and where it keeps what
 * is beyond. Belongs to the thread that prepares the run; its files may be made and read by others.
 */
public final class Spill implements AutoCloseable {
  /** The share of the memory of this Java that references may take unless stated. */
  private static final double USUAL_SHARE = 0.6;

  private static final int SHARE = 4;
  private static final long LEAST_PART = 1 << 16;

  /** More is not worth having. */
  private static final long MOST_SHARED = 1L << 32;

  private static final int FEWEST_PARTS = 4;
  private static final int MOST_PARTS = 512;

  /** States another amount, in bytes, for trying everything with references on disk. */
  private static final String USUAL = "org.abletwine.memory";

  private final long limit;
  private final Path folder;
  private final List<SpillFile> files = Collections.synchronizedList(new ArrayList<>());
  private final AtomicInteger shares = new AtomicInteger();
  private long held;

  /**
   * @param limit bytes that references may take together; 0 for six tenths of what this Java may
   *     take
   * @param folder where files go; null for the folder for temporary files
   */
  public Spill(long limit, @Nullable Path folder) {
    long usual = Long.getLong(USUAL, (long) (USUAL_SHARE * Runtime.getRuntime().maxMemory()));
    this.limit = limit > 0 ? limit : usual;
    this.folder = folder == null ? Path.of(System.getProperty("java.io.tmpdir")) : folder;
  }

  /** Returns how many bytes may be held together. */
  public long limit() {
    return limit;
  }

  /** Returns how many bytes may still be held; negative when there are too many. */
  public long left() {
    return limit - held;
  }

  /**
   * Into how many parts to divide what does not fit: each takes a quarter of the memory there may
   * be, since another is held, and indexes grow.
   *
   * @param needed about how many bytes all of it would take
   */
  public int partsFor(long needed) {
    long each = Math.max(LEAST_PART, limit / SHARE);
    return (int) Math.max(FEWEST_PARTS, Math.min(MOST_PARTS, needed / each + 1));
  }

  /** Notes that bytes are held until the run ends. */
  public void hold(long bytes) {
    held += bytes;
  }

  /**
   * What a step with totals by group may hold in memory: such steps together a quarter of what
   * references may.
   */
  public final class Share {
    private final int workers;

    private Share(int workers) {
      this.workers = workers;
      shares.incrementAndGet();
    }

    /** Returns how many bytes each worker may hold, once all steps have been prepared. */
    public long bytes() {
      return Math.min(MOST_SHARED, limit / SHARE / workers / shares.get());
    }

    /** Returns where the rest goes. */
    public Spill spill() {
      return Spill.this;
    }
  }

  /**
   * A step with totals by group begins.
   *
   * @param workers how many threads work on it, each with groups of its own
   */
  public Share share(int workers) {
    return new Share(workers);
  }

  /**
   * Creates a file that lasts when the run ends: whoever asks for it deletes it.
   *
   * @throws DataException when the folder cannot be written to
   */
  public SpillFile lasting() {
    return SpillFile.in(folder).untilTheEnd();
  }

  /**
   * Creates a file, which is deleted when the run ends.
   *
   * @throws DataException when the folder cannot be written to
   */
  public SpillFile file() {
    SpillFile file = SpillFile.in(folder, files.isEmpty());
    files.add(file);
    return file;
  }

  /**
   * Holds that there is room for what will be written.
   *
   * @param bytes about how many; negative when that is not known
   * @param what what does not fit in memory, for the message
   * @throws DataException when there is not
   */
  public void requireRoom(long bytes, String what) {
    try {
      long room = Files.getFileStore(folder).getUsableSpace();
      if (bytes > room) {
        throw new DataException(
            what
                + " does not fit in the "
                + limit / 1_000_000
                + " MB that references may take in memory, and on disk it needs about "
                + bytes / 1_000_000
                + " MB, while the folder "
                + folder
                + " has room for "
                + room / 1_000_000
                + " MB; make room there, name another folder, or give more memory");
      }
    } catch (IOException e) {
      // a file system that does not say: writing will tell
    }
  }

  /** Deletes all files. */
  @Override
  public void close() {
    files.forEach(SpillFile::close);
    files.clear();
  }

  @Override
  public String toString() {
    return "Spill[" + limit + " bytes, " + folder + "]";
  }
}
