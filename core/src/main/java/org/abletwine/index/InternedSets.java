package org.abletwine.index;

import com.google.errorprone.annotations.concurrent.GuardedBy;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.table.DataException;

/**
 * Sets of rows that are found while looking, each numbered once. Memory follows the distinct sets.
 * Safe to use by several threads at once.
 */
public final class InternedSets implements RowSets, Serializable {
  private static final long serialVersionUID = 1L;
  private static final long MOST_MEMBERS = 100_000_000;

  @GuardedBy("this") private final List<int[]> sets = new ArrayList<>();

  @GuardedBy("this") private final Map<Members, Integer> numbers = new HashMap<>();

  @GuardedBy("this") private long members;

  private record Members(int[] rows) implements Serializable {
    @Override
    public boolean equals(Object other) {
      return other instanceof Members that && Arrays.equals(rows, that.rows);
    }

    @Override
    public int hashCode() {
      return Arrays.hashCode(rows);
    }
  }

  /**
   * The number of a set.
   *
   * @param rows its rows in file order, at least two; not to be changed afterwards
   * @return its number
   * @throws DataException when all sets together have more than 100 million rows
   */
  public synchronized int of(int[] rows) {
    Integer known = numbers.get(new Members(rows));
    if (known != null) {
      return known;
    }
    members += rows.length;
    if (members > MOST_MEMBERS) {
      throw new DataException(
          "the sets of rows that one value fits have more than 100 million rows together: the bands or"
              + " patterns overlap too much; add an equal part to the key");
    }
    sets.add(rows);
    numbers.put(new Members(rows), sets.size() - 1);
    return sets.size() - 1;
  }

  @Override
  public synchronized int count() {
    return sets.size();
  }

  @Override
  public synchronized int size(int set) {
    return sets.get(set).length;
  }

  @Override
  public synchronized int[] rows(int set) {
    return sets.get(set).clone();
  }

  @Override
  public String toString() {
    return "InternedSets[" + count() + "]";
  }
}
