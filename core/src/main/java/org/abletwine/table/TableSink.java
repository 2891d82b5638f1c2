package org.abletwine.table;

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
