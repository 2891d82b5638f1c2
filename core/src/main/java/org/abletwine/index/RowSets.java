package org.abletwine.index;

/** Numbered sets of rows that one key fits; each has at least two. Rows are in file order. */
public interface RowSets {

  /** Returns how many sets there are so far. */
  int count();

  /**
   * @param set a set
   * @return how many rows it has
   */
  int size(int set);

  /**
   * @param set a set
   * @return its rows, 0-based
   */
  int[] rows(int set);
}
