package org.abletwine.lookup.rows;

import java.io.Serializable;
import java.util.BitSet;
import org.abletwine.index.RowSets;
import org.abletwine.index.RowStore;
import org.abletwine.table.text.ValueOrder;
import org.jspecify.annotations.Nullable;

/**
 * Finds the newest of several rows by a column: its declared type orders it, else its values do,
 * when all are numbers or all are dates. Anything else is refused, since which of two such rows is
 * the newer nobody can tell. Null is older than any value. Immutable; safe to share between
 * threads.
 */
public final class Newest implements Serializable {
  private static final long serialVersionUID = 1L;

  private final int cell;
  private final ValueOrder order;

  private Newest(int cell, ValueOrder order) {
    this.cell = cell;
    this.order = order;
  }

  /**
   * Looks at the values that may have to be compared.
   *
   * @param rows the rows
   * @param cell the cell that decides
   * @param sets those of them that may be compared with each other; null for all rows
   * @param without rows that are left out, where all may be compared
   * @param numbers the rows' numbers in the file
   * @param values takes note of them; nothing may be asked when it then finds them wrong
   */
  public static Newest by(
      RowStore rows,
      int cell,
      @Nullable RowSets sets,
      BitSet without,
      RowNumbers numbers,
      ValuesCompared values) {
    if (sets == null) {
      for (int row = without.nextClearBit(0);
          row < rows.rows();
          row = without.nextClearBit(row + 1)) {
        look(rows.get(row, cell), numbers.of(row), numbers.of(row), values);
      }
    }
    for (int set = 0; sets != null && set < sets.count(); set++) {
      int[] members = sets.rows(set);
      for (int row : members) {
        look(rows.get(row, cell), numbers.of(members[1]), numbers.of(row), values);
      }
    }
    return new Newest(cell, values.order());
  }

  private static void look(@Nullable String value, long set, long row, ValuesCompared values) {
    if (value != null) {
      values.look(set, row, value);
    }
  }

  /** The row with the greatest value; the first of equals. */
  public int among(RowStore rows, int[] members) {
    int best = members[0];
    for (int row : members) {
      if (newer(rows.get(row, cell), rows.get(best, cell))) {
        best = row;
      }
    }
    return best;
  }

  private boolean newer(@Nullable String one, @Nullable String other) {
    return one != null && (other == null || order.compare(one, other) > 0);
  }
}
