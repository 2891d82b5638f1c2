package org.abletwine.lookup;

import java.io.Serializable;
import org.abletwine.index.HashIndex;
import org.abletwine.index.KeyGroups;
import org.abletwine.index.RowStore;

/**
 * A reference in memory: the attributes brought (first cells) and the key columns as written (cells
 * after), the index, and for every key on several rows which one is taken. Immutable; safe to share
 * between threads.
 *
 * @param name the reference
 * @param rows its rows
 * @param index from key to row or group
 * @param chosen for each group the place of the row taken, or {@link #DISAGREE}
 * @param conflicting for each group whether its rows disagree
 * @param blankKeys rows that no key can find
 */
record LoadedReference(
    String name,
    RowStore rows,
    HashIndex index,
    int[] chosen,
    boolean[] conflicting,
    long blankKeys)
    implements Serializable {
  /** Stands for a group from which no row is taken. */
  static final int DISAGREE = -1;

  private static final long serialVersionUID = 1L;

  static LoadedReference of(
      String name, RowStore rows, HashIndex index, long blankKeys, Several several, int brought) {
    KeyGroups groups = index.groups();
    int[] chosen = new int[groups.count()];
    boolean[] conflicting = new boolean[groups.count()];
    for (int group = 0; group < chosen.length; group++) {
      int first = groups.firstRow(group);
      boolean agree = true;
      for (int row : groups.rows(group)) {
        agree = agree && rows.agree(first, row, brought);
      }
      conflicting[group] = !agree;
      chosen[group] =
          switch (several) {
            case FLAG -> agree ? rows.place(first) : DISAGREE;
            case FIRST -> rows.place(first);
            case LAST -> rows.place(groups.lastRow(group));
          };
    }
    return new LoadedReference(name, rows, index, chosen, conflicting, blankKeys);
  }

  long conflictingKeys() {
    long count = 0;
    for (boolean conflict : conflicting) {
      count += conflict ? 1 : 0;
    }
    return count;
  }
}
