package org.abletwine.formats.csv;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Stretch;
import org.abletwine.table.batch.Stretch.Held;
import org.abletwine.table.batch.Stretch.Looked;
import org.jspecify.annotations.Nullable;

/**
 * Cuts a file of delimited text into stretches for several processes to read. A stretch begins
 * behind a line end, which may be within a cell in quotes: so it is looked at twice, for either
 * case, unless all that is before it is known (the way of Ge, Li, Eilebrecht, Chandramouli and
 * Kossmann 2019, "Speculative distributed CSV data parsing for big data analytics", without the
 * guess). Text in another encoding than UTF-8, or packed, is a single stretch. Immutable.
 */
record CsvStretches(ByteSource source, Dialect dialect, int columns) {
  private static final int BUFFER = 1 << 16;

  List<Stretch> of(long bytes) {
    if (!dialect.encoding().charset().equals(StandardCharsets.UTF_8) || !source.opensAnywhere()) {
      return List.of(new Stretch(0, 0, -1));
    }
    List<Long> borders = new ArrayList<>(List.of(0L));
    long size = source.size();
    long at = lineEnd(Math.max(bytes, headEnd()), size);
    while (at < size) {
      borders.add(at);
      at = lineEnd(at + bytes, size);
    }
    List<Stretch> stretches = new ArrayList<>();
    for (int i = 0; i < borders.size(); i++) {
      long to = i + 1 < borders.size() ? borders.get(i + 1) : -1;
      stretches.add(new Stretch(0, borders.get(i), to));
    }
    return stretches;
  }

  /** The end of the header, which no stretch may part. */
  private long headEnd() {
    Decoding decoding = new Decoding(source, dialect.encoding());
    try {
      Cutter cutter = new Cutter(decoding, dialect, columns, 1);
      CsvPiece piece = new CsvPiece();
      boolean more = true;
      while (more && cutter.beforeHeader()) {
        more = cutter.next(piece);
      }
      return cutter.border();
    } finally {
      decoding.close();
    }
  }

  /** The place behind the first line end from a place on; the size of the file for none. */
  private long lineEnd(long from, long size) {
    if (from >= size) {
      return size;
    }
    byte[] some = new byte[BUFFER];
    try (InputStream in = source.open(Math.max(0, from - 1), -1).in()) {
      long at = Math.max(0, from - 1);
      for (int read = in.read(some); read >= 0; read = in.read(some)) {
        for (int i = 0; i < read; i++) {
          if (some[i] == '\n') {
            return at + i + 1;
          }
        }
        at += read;
      }
      return size;
    } catch (IOException e) {
      throw new DataException("cannot read " + source.name() + ": " + e.getMessage(), e);
    }
  }

  /**
   * What a stretch holds, in either case. Where there is no quote at all, hardly any stretch begins
   * within a cell in quotes, and it is not looked at for that.
   */
  Looked look(Stretch stretch) {
    long from = stretch.from();
    Decoding decoding = new Decoding(source, dialect.encoding(), from, stretch.to());
    Cutter cutter = new Cutter(decoding, dialect, columns);
    Held open = open(cutter, decoding, from);
    boolean quotes = open == null || cutter.quotesMet();
    return new Looked(stretch, open, from == 0 || !quotes ? null : within(stretch));
  }

  private static @Nullable Held open(Cutter cutter, Decoding decoding, long from) {
    try {
      return toTheEnd(from == 0 ? cutter : cutter.beginning(from, 1, 1, false), from, 0, 0);
    } catch (DataException e) {
      return null; // whoever reads the rows is told
    } finally {
      decoding.close();
    }
  }

  private static Held toTheEnd(Cutter cutter, long border, long rowsBefore, long linesBefore) {
    CsvPiece piece = new CsvPiece();
    while (cutter.next(piece)) {
      // what is counted is in the cutter
    }
    return new Held(
        border,
        rowsBefore,
        linesBefore,
        cutter.borderRow() - 1,
        cutter.nextLine() - 1,
        cutter.endsWithin());
  }

  private @Nullable Held within(Stretch stretch) {
    Decoding decoding = new Decoding(source, dialect.encoding(), stretch.from(), stretch.to());
    long border;
    long row;
    long line;
    try {
      Cutter first =
          new Cutter(decoding, dialect, columns, 1).beginning(stretch.from(), 1, 1, true);
      first.next(new CsvPiece());
      if (first.endsWithin() && first.borderRow() == 1) {
        return new Held(-1, 0, 0, 0, first.nextLine() - 1, true);
      }
      border = first.border();
      row = first.borderRow();
      line = first.borderLine();
    } catch (DataException e) {
      return null; // whoever reads the rows is told
    } finally {
      decoding.close();
    }
    Decoding rest = new Decoding(source, dialect.encoding(), border, stretch.to());
    try {
      Cutter cutter = new Cutter(rest, dialect, columns).beginning(border, row, line, false);
      return toTheEnd(cutter, border, row - 1, line - 1);
    } catch (DataException e) {
      return null;
    } finally {
      rest.close();
    }
  }
}
