package org.abletwine.lookup;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.abletwine.step.Exceptions;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.OrderedRuns;
import org.abletwine.table.spill.RowBytes;
import org.abletwine.table.spill.Spill;

/**
 * What needs attention in a large reference, noted part by part on disk, since there may be much of
 * it, and told in the order of the whole: by kind, and then by the row of the reference after which
 * it is known. Noted by one thread, and told once that is done.
 */
final class ToldOfParts {
  private final Spill spill;
  private final List<SpillFile> files = new ArrayList<>();
  private final RowBytes pending = new RowBytes();

  ToldOfParts(Spill spill) {
    this.spill = spill;
  }

  /** Notes what needs attention in the next part, in its order. */
  void part(Consumer<PreparedLookup.OfReference> part) {
    List<SpillFile> own = new ArrayList<>(1);
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
            putOut(own);
          }
        });
    putOut(own);
    files.addAll(own);
  }

  /** Puts out what is pending, into a file that is made for the first of it. */
  private void putOut(List<SpillFile> own) {
    if (pending.used() > 0) {
      if (own.isEmpty()) {
        own.add(spill.file());
      }
      own.get(0).append(pending.bytes(), pending.used());
      pending.clear();
    }
  }

  /** {@return all that was noted of one part, for another process} */
  byte[] noted() {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    byte[] block = new byte[1 << 16];
    for (SpillFile file : files) {
      for (long at = 0; at < file.size(); ) {
        int read = file.read(at, block, 0);
        all.write(block, 0, read);
        at += read;
      }
    }
    return all.toByteArray();
  }

  /** Takes what was noted of one part by another process. */
  void take(byte[] noted) {
    if (noted.length > 0) {
      SpillFile file = spill.file();
      file.append(noted, noted.length);
      files.add(file);
    }
  }

  /** {@return the bytes on disk} */
  long bytes() {
    return files.stream().mapToLong(SpillFile::size).sum();
  }

  /** Tells all of it. */
  void tell(Exceptions exceptions) {
    OrderedRuns.merge(
        files,
        (kind, rest) -> {
          long row = rest.number();
          String step = rest.text();
          String what = rest.text();
          String table = rest.text();
          String key = rest.text();
          exceptions.found(
              new Exceptions.Found(step, what, table, row, key, rest.text(), null, List.of()));
        });
  }
}
