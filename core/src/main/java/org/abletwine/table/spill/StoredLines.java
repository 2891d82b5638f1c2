package org.abletwine.table.spill;

import java.lang.ref.Cleaner;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.RandomAccess;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.output.StoredBytes;
import org.jspecify.annotations.Nullable;

/**
 * Lines of cells, in memory as bytes while they are few, else in a file that is deleted once nobody
 * holds the list any more. Filled by one thread, and then safe for use by several.
 */
public final class StoredLines extends AbstractList<List<@Nullable String>>
    implements RandomAccess {
  private static final Cleaner CLEANER = Cleaner.create();

  /** Of so many lines the place of the first is held. */
  private static final int STRIDE = 64;

  private static final int READ_AT_ONCE = 1 << 15;
  private static final int WRITE_AT_ONCE = 1 << 16;

  /** So many lines at least are sorted in memory, and times the bytes that they take as objects. */
  private static final int FEWEST_SORTED = 16;

  private static final int AS_OBJECTS = 6;

  private final int cells;
  private final Spill.@Nullable Share share;
  private StoredBytes stored = new MemoryBytes();
  private final RowBytes pending = new RowBytes();
  private long[] places = new long[16];
  private int size;
  private @Nullable ByteCursor cursor;

  /** The line that the cursor stands before. */
  private int next;

  /**
   * @param cells how many each line has
   * @param share how much may be in memory; null for any amount
   */
  public StoredLines(int cells, Spill.@Nullable Share share) {
    this.cells = cells;
    this.share = share;
  }

  /** Adds a line behind the others. */
  public void append(@Nullable String[] line) {
    if (size % STRIDE == 0) {
      if (size / STRIDE == places.length) {
        places = Arrays.copyOf(places, 2 * places.length);
      }
      places[size / STRIDE] = stored.size() + pending.used();
    }
    for (int cell = 0; cell < cells; cell++) {
      pending.text(line[cell]);
    }
    size++;
    if (pending.used() > WRITE_AT_ONCE) {
      putOut();
    }
  }

  private void putOut() {
    if (share != null && stored instanceof MemoryBytes && stored.size() > share.bytes()) {
      SpillFile file = share.spill().lasting();
      CLEANER.register(this, file::close);
      byte[] block = new byte[WRITE_AT_ONCE];
      for (long at = 0; at < stored.size(); ) {
        int read = stored.read(at, block, 0);
        file.append(block, read);
        at += read;
      }
      stored = file;
    }
    stored.append(pending.bytes(), pending.used());
    pending.clear();
  }

  /** All lines were added. */
  public void end() {
    putOut();
  }

  /** Returns a line's cells. */
  public synchronized @Nullable String[] cells(int line) {
    if (line < 0 || line >= size) {
      throw new IndexOutOfBoundsException(line);
    }
    ByteCursor at = cursor;
    if (at == null) {
      at = new ByteCursor(stored, READ_AT_ONCE);
      cursor = at;
    }
    if (line < next || line - next >= STRIDE) {
      next = line / STRIDE * STRIDE;
      at.seek(places[line / STRIDE]);
    }
    for (; next < line; next++) {
      for (int cell = 0; cell < cells; cell++) {
        at.cell();
      }
    }
    next++;
    @Nullable String[] read = new @Nullable String[cells];
    for (int cell = 0; cell < cells; cell++) {
      read[cell] = at.textOrNull();
    }
    return read;
  }

  @Override
  public List<@Nullable String> get(int line) {
    return Arrays.asList(cells(line));
  }

  @Override
  public int size() {
    return size;
  }

  /**
   * The same lines in another order: sorted piece by piece, and merged. Those alike stay as they
   * are.
   *
   * @param order the order
   * @param most how many of the first are wanted
   */
  public StoredLines sorted(Comparator<@Nullable String[]> order, int most) {
    List<StoredLines> pieces = new ArrayList<>();
    for (int from = 0; from < size; ) {
      List<@Nullable String[]> piece = new ArrayList<>();
      long taken = 0;
      for (; from < size && (piece.size() < FEWEST_SORTED || fits(taken)); from++) {
        @Nullable String[] line = cells(from);
        piece.add(line);
        taken += bytes(line);
      }
      piece.sort(order);
      pieces.add(of(piece.subList(0, Math.min(most, piece.size()))));
    }
    StoredLines all =
        pieces.isEmpty()
            ? of(List.of())
            : pieces.size() == 1 ? pieces.get(0) : merged(pieces, order, most);
    pieces.stream().filter(piece -> piece != all).forEach(StoredLines::discard);
    return all;
  }

  /** Deletes the lines, which nobody uses any more. */
  public void discard() {
    if (stored instanceof SpillFile file) {
      file.close();
    }
  }

  private boolean fits(long taken) {
    return share == null || taken * AS_OBJECTS <= share.bytes();
  }

  private static long bytes(@Nullable String[] line) {
    long bytes = 0;
    for (@Nullable String cell : line) {
      bytes += cell == null ? 1 : 8 + cell.length();
    }
    return bytes;
  }

  private StoredLines of(List<@Nullable String[]> lines) {
    StoredLines made = new StoredLines(cells, share);
    lines.forEach(made::append);
    made.end();
    return made;
  }

  /** A piece at one of its lines. */
  private static final class Piece {
    private final StoredLines lines;
    private final int number;
    private int at;
    private @Nullable String[] line;

    Piece(StoredLines lines, int number) {
      this.lines = lines;
      this.number = number;
      line = lines.cells(0);
    }

    boolean next() {
      at++;
      if (at < lines.size()) {
        line = lines.cells(at);
      }
      return at < lines.size();
    }
  }

  private StoredLines merged(
      List<StoredLines> pieces, Comparator<@Nullable String[]> order, int most) {
    Comparator<Piece> byLine = (one, other) -> order.compare(one.line, other.line);
    PriorityQueue<Piece> queue =
        new PriorityQueue<>(byLine.thenComparingInt(piece -> piece.number));
    for (StoredLines piece : pieces) {
      if (!piece.isEmpty()) {
        queue.add(new Piece(piece, queue.size()));
      }
    }
    StoredLines all = new StoredLines(cells, share);
    while (!queue.isEmpty() && all.size < most) {
      Piece piece = queue.remove();
      all.append(piece.line);
      if (piece.next()) {
        queue.add(piece);
      }
    }
    all.end();
    return all;
  }

  @Override
  public String toString() {
    return "StoredLines[" + size + "]";
  }
}
