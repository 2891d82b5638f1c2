package org.abletwine.formats.json;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.stream.IntStream;
import org.abletwine.formats.packed.PackedFile;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;

/**
 * Writes an object for each row: an array of them, or an object a line. Values of columns that are
 * known to be numbers are numbers, those of columns of true and false are that, all others are
 * texts; null is null. Numbers keep their digits; what JSON cannot write as a number, such as one
 * with zeros before it, is a text.
 */
final class JsonSink implements BatchSink {
  private final Path target;
  private final boolean lines;
  private @Nullable PackedFile file;
  private List<@Nullable ColumnType> types = List.of();
  private List<String> names = List.of();
  private Section section = Section.WHOLE;
  private boolean any;
  private boolean ended;

  JsonSink(Path target, boolean lines) {
    this.target = target;
    this.lines = lines;
  }

  @Override
  public void typed(List<@Nullable ColumnType> columns) {
    types = columns;
  }

  @Override
  public void start(Table source, Schema columns) {
    names = columns.names();
    file = new PackedFile(target);
    any = section == Section.ROWS;
    if (!lines && section.begins()) {
      put("[".getBytes(StandardCharsets.UTF_8), 0, 1);
    }
  }

  @Override
  public byte[] section(Section only) {
    section = only;
    return lines ? new byte[0] : new byte[] {','}; // before the first object
  }

  private JsonEncoder fresh() {
    ColumnType.Kind[] kinds = new ColumnType.Kind[names.size()];
    for (int i = 0; i < kinds.length; i++) {
      ColumnType type = i < types.size() ? types.get(i) : null;
      kinds[i] = type == null ? ColumnType.Kind.TEXT : type.kind();
    }
    return new JsonEncoder(names, kinds, lines);
  }

  @Override
  public Encoder encoder() {
    JsonEncoder rows = fresh();
    return new Encoder() {
      @Override
      public void add(Batch batch, int @Nullable [] which, int count, int[] columns) {
        rows.add(batch, which, count, columns);
      }

      @Override
      public void flush() {
        take(rows);
      }
    };
  }

  @Override
  public void write(Batch batch, int[] columns) {
    JsonEncoder rows = fresh();
    rows.add(batch, null, batch.rows(), columns);
    take(rows);
  }

  private void take(JsonEncoder rows) {
    int length = rows.length();
    if (length > 0) {
      int skipped = any || lines ? 0 : 1; // the comma before the first object
      put(rows.bytes(), skipped, length - skipped);
      any = true;
    }
    rows.clear();
  }

  private void put(byte[] bytes, int from, int length) {
    byte[] whole = from == 0 ? bytes : java.util.Arrays.copyOfRange(bytes, from, from + length);
    Objects.requireNonNull(file).write(whole, length);
  }

  private void end() {
    if (!ended && !lines && section.ends()) {
      byte[] last = "\n]\n".getBytes(StandardCharsets.UTF_8);
      put(last, 0, last.length);
    }
    ended = true;
  }

  @Override
  public void complete() {
    end();
    if (file != null) {
      file.complete();
    }
  }

  @Override
  public void commit() {
    end();
    if (file != null) {
      file.commit();
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

  @Override
  public String form() {
    long numbers =
        IntStream.range(0, types.size())
            .filter(i -> types.get(i) != null && types.get(i).kind().numeric())
            .count();
    return (lines ? "an object a line" : "an array of objects")
        + ", UTF-8, "
        + (numbers == 0
            ? "every value as text: no column is known to be a number"
            : numbers + (numbers == 1 ? " column" : " columns") + " as numbers");
  }

  @Override
  public long bytesWritten() {
    return file == null ? 0 : file.size();
  }

  @Override
  public void close() {
    if (file != null) {
      file.close();
    }
  }
}
