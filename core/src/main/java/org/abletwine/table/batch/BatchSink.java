package org.abletwine.table.batch;

import java.util.List;
import java.util.stream.IntStream;
import org.abletwine.table.ColumnType;
import org.abletwine.table.TableSink;
import org.abletwine.table.output.Output;
import org.jspecify.annotations.Nullable;

/** A sink that takes batches, as all of our own do. */
public interface BatchSink extends TableSink, Output {

  /**
   * States what the columns hold, where that is known; called once, before {@link #start}.
   *
   * @param types for each column its type; null where it is not known
   */
  default void typed(List<@Nullable ColumnType> types) {}

  /**
   * Names the columns whose values are private: rows that come out hold them, and whoever only
   * shows rows to a person shows digests; called once, before {@link #start}.
   *
   * @param columns their names
   */
  default void keepPrivate(List<String> columns) {}

  /** Which of what a table is made of goes to a file. */
  enum Section {
    /** All of it. */
    WHOLE,
    /** What comes before the rows. */
    HEAD,
    /** Rows, with others before them. */
    ROWS,
    /** What comes behind the rows. */
    TAIL;

    /** Returns whether what comes before the rows is written. */
    public boolean begins() {
      return this == WHOLE || this == HEAD;
    }

    /** Returns whether what comes behind the rows is written. */
    public boolean ends() {
      return this == WHOLE || this == TAIL;
    }
  }

  /**
   * States that only a section of the table is written; called once, before {@link #start}. Files
   * of all sections, one behind the other, are the file of the whole.
   *
   * @param section which
   * @return the bytes with which a section of rows begins, unpacked, and which are left out where
   *     no rows come before it; no row begins so
   */
  default byte[] section(Section section) {
    throw new IllegalStateException("not written in sections");
  }

  /**
   * Takes the rows of one batch.
   *
   * @param batch the rows; valid only during the call
   * @param columns for each output column its column number in the batch
   */
  void write(Batch batch, int[] columns);

  @Override
  default void write(List<@Nullable String> row) {
    write(
        OneRow.of(row.toArray(new @Nullable String[0])), IntStream.range(0, row.size()).toArray());
  }

  /**
   * Takes rows of one worker, and writes them when it is their turn.
   *
   * @return an encoder for one worker; to be asked for after {@link #start}
   */
  default Encoder encoder() {
    return new CopiedRows(this);
  }

  /**
   * Whether neighbouring columns of the source that stay neighbours leave as one piece of text, so
   * that their cells need not be found.
   */
  default boolean copiesText() {
    return false;
  }

  /**
   * Whether rows are wanted that come before one which ends the run: then encoders are given those
   * too, and {@link Encoder#flush} is called once more.
   */
  default boolean takesRowsBeforeAFailure() {
    return false;
  }

  /** Whether nothing is looked at of a row but the columns that are taken of it. */
  default boolean looksOnlyAtColumns() {
    return false;
  }

  /** One worker's part of writing. */
  interface Encoder {

    /**
     * Takes rows of a batch; nothing is written yet.
     *
     * @param batch the rows; valid only during the call
     * @param rows which of them, 0-based, in the order to be written; null for all
     * @param count how many
     * @param columns for each output column its column number in the batch
     */
    void add(Batch batch, int @Nullable [] rows, int count, int[] columns);

    /** Writes the rows taken since the last time. No two workers are in here at once. */
    void flush();
  }

  /** Returns in words how the output is written down, such as delimiter and line end. */
  default String form() {
    return "";
  }

  /** Returns the bytes written so far. */
  default long bytesWritten() {
    return 0;
  }

  @Override
  void commit();

  @Override
  void close();

  /**
   * A sink for batches.
   *
   * @param sink any sink
   * @return itself when it takes batches, else one that gives it their rows
   */
  static BatchSink of(TableSink sink) {
    return sink instanceof BatchSink batches ? batches : new RowsSink(sink);
  }
}
