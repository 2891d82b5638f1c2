package org.abletwine.plan;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.formats.packed.PackedFile;
import org.abletwine.formats.packed.PartFolder;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Destination;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;

/**
 * An output whose rows several processes have written, each a part: adds what comes before and
 * behind the rows, and moves the folder of the parts into place. Whoever is killed while doing so
 * may do it once more: a folder that is not there any more was moved. Used by one thread.
 */
final class JoinedParts implements BatchSink {
  private final Destination place;
  private final PlanParts parts;
  private final boolean moved;
  private List<@Nullable ColumnType> types = List.of();
  private @Nullable BatchSink head;
  private @Nullable Table source;
  private @Nullable Schema schema;
  private boolean complete;

  JoinedParts(Destination place, PlanParts parts) {
    this.place = place;
    this.parts = parts;
    moved = !Files.exists(parts.beside());
  }

  /** The parts in a folder, in the order of the rows. */
  private static List<Path> in(Path folder) {
    try {
      return PartFolder.parts(folder);
    } catch (IOException e) {
      throw new DataException("cannot read the folder " + folder + ": " + e.getMessage(), e);
    }
  }

  private BatchSink section(int number) {
    Destination part = Objects.requireNonNull(place.part(parts.part(number)), "written in parts");
    return BatchSink.of(part.open(null));
  }

  @Override
  public void typed(List<@Nullable ColumnType> columns) {
    types = columns;
  }

  @Override
  public void start(Table from, Schema columns) {
    source = from;
    schema = columns;
    if (moved) {
      return;
    }
    BatchSink begins = section(0);
    head = begins;
    byte[] leadIn = begins.section(Section.HEAD);
    begins.typed(types);
    begins.start(from, columns);
    begins.commit();
    if (leadIn.length > 0) {
      withoutLeadIn(leadIn);
    }
  }

  /** Leaves out the first bytes of the first part that has rows, unless that was done before. */
  private void withoutLeadIn(byte[] bytes) {
    List<Path> all = in(parts.beside());
    for (Path part : all.subList(1, all.size())) {
      try (InputStream in = ByteSource.of(part).open().in()) {
        byte[] first = in.readNBytes(bytes.length);
        if (first.length == 0) {
          continue;
        }
        if (!Arrays.equals(first, bytes)) {
          return;
        }
        try (PackedFile shorter = new PackedFile(part)) {
          byte[] some = new byte[1 << 16];
          for (int read = in.read(some); read >= 0; read = in.read(some)) {
            shorter.write(some, read);
          }
          shorter.commit();
        }
        return;
      } catch (IOException e) {
        throw cannot("write", e);
      }
    }
  }

  @Override
  public void write(Batch batch, int[] columns) {
    throw new IllegalStateException("the rows were written in parts");
  }

  @Override
  public void complete() {
    if (complete || moved) {
      return;
    }
    complete = true;
    BatchSink end = section(PlanParts.LAST);
    end.section(Section.TAIL);
    end.typed(types);
    end.start(Objects.requireNonNull(source), Objects.requireNonNull(schema));
    end.commit();
    try {
      for (Path part : in(parts.beside())) {
        if (Files.size(part) == 0) {
          Files.delete(part);
        }
      }
    } catch (IOException e) {
      throw cannot("write", e);
    }
  }

  private DataException cannot(String what, IOException e) {
    return new DataException(
        "cannot " + what + " " + place + ": " + e.getMessage() + "; nothing was changed", e);
  }

  @Override
  public void commit() {
    complete();
    if (moved) {
      return;
    }
    Path target = parts.target();
    try {
      if (Files.exists(target, LinkOption.NOFOLLOW_LINKS)) {
        Files.move(target, parts.before(), StandardCopyOption.ATOMIC_MOVE);
      }
      Files.move(parts.beside(), target, StandardCopyOption.ATOMIC_MOVE);
      delete(parts.before());
    } catch (IOException e) {
      throw new DataException("cannot write " + place + ": " + e.getMessage(), e);
    }
  }

  /** Deletes a file, or a folder and what is in it, as far as there is one. */
  static void delete(Path folder) {
    if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
      deleteFile(folder);
      return;
    }
    try (Stream<Path> files = Files.list(folder)) {
      for (Path file : files.toList()) {
        Files.deleteIfExists(file);
      }
      Files.deleteIfExists(folder);
    } catch (IOException e) {
      // left for the next run that writes there
    }
  }

  private static void deleteFile(Path file) {
    try {
      Files.deleteIfExists(file);
    } catch (IOException e) {
      // left for the next run that writes there
    }
  }

  @Override
  public Path target() {
    return parts.target();
  }

  @Override
  public Path beside() {
    return moved ? parts.target() : parts.beside();
  }

  @Override
  public String form() {
    int count = Files.isDirectory(beside()) ? in(beside()).size() : in(target()).size();
    return (head == null ? "" : head.form() + ", ")
        + (count == 1 ? "in one part" : "in " + count + " parts");
  }

  @Override
  public long bytesWritten() {
    try {
      return PartFolder.size(Files.isDirectory(beside()) ? beside() : target());
    } catch (IOException e) {
      return 0; // for the summary alone
    }
  }

  @Override
  public void close() {
    if (head != null) {
      head.close();
    }
  }
}
