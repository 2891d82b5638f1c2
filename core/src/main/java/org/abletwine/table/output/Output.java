package org.abletwine.table.output;

import java.nio.file.Path;
import org.abletwine.table.DataException;
import org.jspecify.annotations.Nullable;

/**
 * Something a run writes that becomes visible in two steps, so that several can become so together.
 */
public interface Output extends AutoCloseable {

  /**
   * Makes sure that everything written so far is kept, without showing it yet: after this only a
   * move can fail. Does nothing the second time.
   *
   * @throws DataException when it cannot be kept, such as on a full disk
   */
  default void complete() {}

  /**
   * Completes what is written, and shows it in its place.
   *
   * @throws DataException when that fails
   */
  void commit();

  /** Gives up what was written, unless it was committed. */
  @Override
  void close();

  /** Returns the file it becomes, or null when it is none, such as standard output. */
  default @Nullable Path target() {
    return null;
  }

  /**
   * Returns the file that holds what is written until it is moved to {@link #target}; null when
   * there is none. Once the output is complete, that file is what the target becomes.
   */
  default @Nullable Path beside() {
    return null;
  }
}
