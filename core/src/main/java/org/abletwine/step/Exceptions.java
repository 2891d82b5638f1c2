package org.abletwine.step;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Told about every row, key or reference row that needs a person's attention. Called by one thread,
 * in row order for each step.
 */
public interface Exceptions {
  /** Tells nobody. */
  Exceptions NONE = found -> {};

  /**
   * Something needs attention.
   *
   * @param found what it is
   */
  void found(Found found);

  /**
   * What needs attention.
   *
   * @param step the step that met it
   * @param kind what it is: {@code unmatched}, {@code ambiguous}, {@code blank-key}, {@code
   *     duplicate left out} or {@code collision}
   * @param table the table it is in
   * @param row its row there, 1-based, header not counted; 0 when it is no single row
   * @param key the key as written; parts parted by a vertical bar
   * @param detail what else there is to say; may be empty
   * @param measure what the row holds of the column whose totals go beside the figures, as written;
   *     null when there is none
   * @param carried what the row holds of the columns that go with it, in their order; empty when
   *     there are none, or it is no row of the transactions
   */
  record Found(
      String step,
      String kind,
      String table,
      long row,
      String key,
      String detail,
      @Nullable String measure,
      List<@Nullable String> carried) {
    /** Copies the list. */
    public Found {
      carried = Collections.unmodifiableList(new ArrayList<>(carried));
    }
  }
}
