package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.PriorityQueue;
import java.util.function.Consumer;
import org.abletwine.step.Exceptions;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.ByteCursor;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/**
 * What needs attention in a large reference, noted part by part on disk, since there may be much of
 * it, and told in the order of the whole: by kind, and then by the row of the reference after which
 * it is known. Noted by one thread, and told once that is done.
 */
final class ToldOfParts {
  private static final int BLOCK = 1 << 14;

  private final Spill spill;
  private final List<SpillFile> files = new ArrayList<>();
  private final RowBytes pending = new RowBytes();

  ToldOfParts(Spill spill) {
    this.spill = spill;
  }

  /** Notes what needs attention in the next part, in its order. */
  void part(Consumer<PreparedLookup.OfReference> part) {
    SpillFile file = spill.file();
    part.accept(
        (found, kind, after) -> {
          pending.number(kind);
          pending.number(after);
          pending.number(found.row());
          pending.text(found.step());
          pending.text(found.kind());
          pending.text(found.table());
          pending.text(found.key());
          pending.text(found.detail());
          if (pending.used() > 1 << 20) {
            putOut(file);
          }
        });
    putOut(file);
    if (file.size() == 0) {
      file.close();
    } else {
      files.add(file);
    }
  }

  private void putOut(SpillFile file) {
    file.append(pending.bytes(), pending.used());
    pending.clear();
  }

  /** Returns the bytes on disk. */
  long bytes() {
    return files.stream().mapToLong(SpillFile::size).sum();
  }

  /** Tells all of it. */
  void tell(Exceptions exceptions) {
    PriorityQueue<Next> queue = new PriorityQueue<>();
    for (SpillFile file : files) {
      Next next = new Next(file);
      next.go();
      queue.add(next);
    }
    while (!queue.isEmpty()) {
      Next next = queue.remove();
      exceptions.found(Objects.requireNonNull(next.found, "the next one"));
      if (next.go()) {
        queue.add(next);
      }
    }
  }

  /** The next of one part. */
  private static final class Next implements Comparable<Next> {
    private final SpillFile file;
    private final ByteCursor cursor;
    private long kind;
    private long after;
    private Exceptions.@Nullable Found found;

    Next(SpillFile file) {
      this.file = file;
      cursor = new ByteCursor(file, BLOCK);
    }

    boolean go() {
      if (cursor.place() == file.size()) {
        return false;
      }
      kind = cursor.number();
      after = cursor.number();
      long row = cursor.number();
      String step = cursor.text();
      String what = cursor.text();
      String table = cursor.text();
      String key = cursor.text();
      found = new Exceptions.Found(step, what, table, row, key, cursor.text(), null, List.of());
      return true;
    }

    @Override
    public int compareTo(Next other) {
      int order = Long.compare(kind, other.kind);
      return order == 0 ? Long.compare(after, other.after) : order;
    }

    @Override
    public boolean equals(Object other) {
      return this == other;
    }

    @Override
    public int hashCode() {
      return System.identityHashCode(this);
    }
  }
}
