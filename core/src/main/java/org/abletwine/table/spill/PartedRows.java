package org.abletwine.table.spill;

import java.util.ArrayList;
import java.util.List;
import org.abletwine.table.output.SpillFile;

/**
 * Files of rows, one for each part that the rows are divided into. Workers gather their rows apart
 * ({@link Gathered}) and put them out when it is their turn, so that each part has its rows in the
 * order of the table.
 */
public final class PartedRows {
  private final List<SpillFile> files = new ArrayList<>();
  private final long[] rows;

  /**
   * @param spill where the files go
   * @param parts how many parts, at least 1
   */
  public PartedRows(Spill spill, int parts) {
    for (int part = 0; part < parts; part++) {
      files.add(spill.file());
    }
    rows = new long[parts];
  }

  /** Returns how many parts there are. */
  public int parts() {
    return files.size();
  }

  /** Returns the rows of a part. */
  public Stored stored(int part) {
    return new Stored(files.get(part), rows[part]);
  }

  /** Returns the bytes of all parts. */
  public long bytes() {
    return files.stream().mapToLong(SpillFile::size).sum();
  }

  /** Deletes the file of a part that is not needed any more. */
  public void done(int part) {
    files.get(part).close();
  }

  /**
   * The part that a key belongs to. The hash is mixed once more: the index of a part goes by its
   * low bits, which must not be alike for all of the part's keys.
   *
   * @param hash the key's hash
   * @param parts how many parts there are
   */
  public static int partOf(int hash, int parts) {
    long mixed = (hash ^ 0x5bd1e995L) * 0x9E3779B97F4A7C15L;
    mixed = (mixed ^ mixed >>> 29) * 0xBF58476D1CE4E5B9L;
    return (int) ((mixed >>> 33) % parts);
  }

  /** What one worker has gathered. */
  public final class Gathered {
    private final RowBytes[] buffers = new RowBytes[files.size()];
    private final long[] counts = new long[buffers.length];

    /** Nothing yet. */
    public Gathered() {
      for (int part = 0; part < buffers.length; part++) {
        buffers[part] = new RowBytes();
      }
    }

    /**
     * Begins a row.
     *
     * @param part its part
     * @param number its number, 1-based
     * @return where its cells go
     */
    public RowBytes row(int part, long number) {
      counts[part]++;
      buffers[part].number(number);
      return buffers[part];
    }

    /** Puts out what was gathered. No two workers are in here at once. */
    public void putOut() {
      for (int part = 0; part < buffers.length; part++) {
        if (buffers[part].used() > 0) {
          files.get(part).append(buffers[part].bytes(), buffers[part].used());
          rows[part] += counts[part];
          counts[part] = 0;
          buffers[part].clear();
        }
      }
    }
  }
}
