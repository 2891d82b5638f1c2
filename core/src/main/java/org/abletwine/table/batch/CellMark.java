package org.abletwine.table.batch;

/** Says how a cell that was not noted is marked: {@link Batch#NULL} or 0. */
public interface CellMark {
  /**
   * {@return the mark of a cell}
   *
   * @param text where it is
   * @param start where it begins there
   * @param end where it ends, exclusive
   */
  int of(byte[] text, int start, int end);
}
