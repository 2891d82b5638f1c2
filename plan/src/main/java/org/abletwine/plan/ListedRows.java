package org.abletwine.plan;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.jspecify.annotations.Nullable;

/** A list for people, written row by row to a sink. Not safe for use by several threads at once. */
final class ListedRows {
  private final BatchSink sink;
  private final Batch batch;
  private final int[] columns;
  private long rows;

  /**
   * @param sink takes the rows; not started yet
   * @param types what the columns hold; null for texts
   * @param names the names of the columns
   */
  ListedRows(BatchSink sink, List<@Nullable ColumnType> types, List<String> names) {
    this.sink = sink;
    this.batch = new Batch(names.size());
    this.columns = IntStream.range(0, names.size()).toArray();
    sink.typed(types);
    sink.start(new Nothing(new Schema(names)), new Schema(names));
  }

  void row(@Nullable String... cells) {
    if (batch.full()) {
      flush();
    }
    for (String cell : cells) {
      batch.addCell(cell);
    }
    batch.endRow();
    rows++;
  }

  void flush() {
    sink.write(batch, columns);
    batch.clear(rows + 1, '\0');
  }

  long rows() {
    return rows;
  }

  /** {@return what was written, to be shown with other outputs} */
  Output output() {
    return new Output() {
      private boolean complete;

      @Override
      public void complete() {
        if (!complete) {
          complete = true;
          flush();
        }
        sink.complete();
      }

      @Override
      public void commit() {
        complete();
        sink.commit();
      }

      @Override
      public void close() {
        sink.close();
      }

      @Override
      public @Nullable Path target() {
        return sink.target();
      }

      @Override
      public @Nullable Path beside() {
        return sink.beside();
      }
    };
  }

  /** No table, whose form nothing is kept of. */
  private record Nothing(Schema schema) implements Table {
    @Override
    public String name() {
      return "a list";
    }

    @Override
    public Rows rows() {
      throw new UnsupportedOperationException("it has no rows of its own");
    }
  }
}
