package org.abletwine.table;

import org.jspecify.annotations.Nullable;

/**
 * Takes enriched rows. What was written counts only once {@link #commit()} has returned: a sink
 * closed without it leaves no trace. Not safe for use by several threads at once.
 */
public interface TableSink extends Output {

  /**
   * Called once, before any row.
   *
   * @param source the table the rows come from, so that its way of writing can be kept
   * @param columns the columns to write
   */
  void start(Table source, Schema columns);

  /**
   * Takes the rows of one batch.
   *
   * @param batch the rows; valid only during the call
   * @param columns for each output column its column number in the batch
   */
  void write(Batch batch, int[] columns);

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
  void close();
}
